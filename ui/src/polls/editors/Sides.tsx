import { useTranslation } from 'react-i18next'
import type { Option } from '../../wire/types.gen'
import { option } from '../kinds'
import { PairMistakes } from './Mistakes'
import { OptionRows } from './Options'
import { field, type FieldsProps } from './props'
import { Rows } from './Rows'

type Row = { left: Option; right: Option }

/** What belongs to what, pair by pair, and more things for the right side. */
export function MatchFields({ asked, onAsked, pick }: FieldsProps<'match'>) {
  const { t } = useTranslation()
  const { match } = asked
  const pairs = match.pairs ?? match.left.map((o, i) => ({ left: o.id, right: match.right[i]?.id ?? '' }))
  const of = (list: Option[], id: string) => list.find((o) => o.id === id)
  const rows: Row[] = pairs.flatMap((p) => {
    const [left, right] = [of(match.left, p.left), of(match.right, p.right)]
    return left && right ? [{ left, right }] : []
  })
  const more = match.right.filter((o) => !rows.some((r) => r.right.id === o.id))
  const put = (to: Row[], others: Option[]) =>
    onAsked({
      kind: 'match',
      match: {
        ...match,
        left: to.map((r) => r.left),
        right: [...to.map((r) => r.right), ...others],
        pairs: to.map((r) => ({ left: r.left.id, right: r.right.id })),
      },
    })
  return (
    <div className="flex flex-col gap-3">
      <Rows<Row>
        legend={t('question.pairs')}
        rows={rows}
        keyOf={(r) => r.left.id}
        onRows={(to) => put(to, more)}
        fresh={() => ({ left: option(), right: option() })}
        least={2}
        most={10}
        add={t('question.addPair')}
        drop={(n) => t('question.dropPair', { n })}
      >
        {(r, at, set) =>
          (['left', 'right'] as const).map((side) => (
            <input
              key={side}
              aria-label={t(`question.pair_${side}`, { n: at + 1 })}
              value={r[side].text}
              maxLength={300}
              dir="auto"
              onChange={(e) => set({ [side]: { ...r[side], text: e.target.value } })}
              className={`${field} grow basis-32`}
            />
          ))
        }
      </Rows>
      <OptionRows
        legend={t('question.pairsMore')}
        least={0}
        most={Math.max(0, 10 - rows.length)}
        pick={pick}
        options={more}
        onOptions={(others) => put(rows, others)}
      />
      <PairMistakes
        from={match.left}
        to={match.right}
        mistakes={(match.mistakes ?? []).map(({ name, left, right }) => ({ name, from: left, to: right }))}
        onMistakes={(to) =>
          onAsked({
            kind: 'match',
            match: { ...match, mistakes: to?.map((m) => ({ name: m.name, left: m.from, right: m.to })) },
          })
        }
      />
    </div>
  )
}

/** Boxes, and what belongs into which. */
export function BoxesFields({ asked, onAsked, pick }: FieldsProps<'boxes'>) {
  const { t } = useTranslation()
  const { boxes } = asked
  const homes = boxes.homes ?? []
  const put = (part: Partial<typeof boxes>) => {
    const next = { ...boxes, ...part }
    const left = (next.homes ?? []).filter(
      (h) => next.boxes.some((b) => b.id === h.box) && next.things.some((o) => o.id === h.thing),
    )
    onAsked({ kind: 'boxes', boxes: { ...next, homes: left.length > 0 ? left : undefined } })
  }
  return (
    <div className="flex flex-col gap-3">
      <OptionRows
        legend={t('question.boxes')}
        most={6}
        options={boxes.boxes}
        onOptions={(to) => put({ boxes: to })}
        pick={pick}
      />
      <Rows<Option>
        legend={t('question.things')}
        rows={boxes.things}
        keyOf={(o) => o.id}
        onRows={(things) => put({ things })}
        fresh={() => option()}
        least={1}
        most={20}
        add={t('question.addThing')}
        drop={(n) => t('question.dropThing', { n })}
      >
        {(o, at, set) => (
          <>
            <input
              aria-label={t('question.thing', { n: at + 1 })}
              value={o.text}
              maxLength={300}
              dir="auto"
              onChange={(e) => set({ text: e.target.value })}
              className={`${field} grow`}
            />
            <select
              aria-label={t('question.home', { n: at + 1 })}
              value={homes.find((h) => h.thing === o.id)?.box ?? ''}
              onChange={(e) =>
                put({
                  homes: [
                    ...homes.filter((h) => h.thing !== o.id),
                    ...(e.target.value ? [{ thing: o.id, box: e.target.value }] : []),
                  ],
                })
              }
              className={field}
            >
              <option value="">{t('question.noHome')}</option>
              {boxes.boxes.map((b, i) => (
                <option key={b.id} value={b.id}>
                  {b.text || t('question.box', { n: i + 1 })}
                </option>
              ))}
            </select>
          </>
        )}
      </Rows>
      <PairMistakes
        from={boxes.things}
        to={boxes.boxes}
        mistakes={(boxes.mistakes ?? []).map(({ name, thing, box }) => ({ name, from: thing, to: box }))}
        onMistakes={(to) => put({ mistakes: to?.map((m) => ({ name: m.name, thing: m.from, box: m.to })) })}
      />
    </div>
  )
}
