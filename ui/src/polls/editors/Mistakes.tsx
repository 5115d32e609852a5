import { useState } from 'react'
import { useTranslation } from 'react-i18next'
import type { Option, TextBlank as Blank } from '../../wire/types.gen'
import { MistakeName } from './MistakeName'
import { field } from './props'
import { Rows } from './Rows'

type Named = { name: string }
type ListProps<T extends Named> = {
  mistakes: T[] | undefined
  onMistakes: (to: T[] | undefined) => void
  fresh: () => T
  children: (mistake: T, at: number, put: (part: Partial<T>) => void) => React.ReactNode
}

/** Known mistakes of any kind, each with its name. */
function List<T extends Named>({ mistakes = [], onMistakes, fresh, children }: ListProps<T>) {
  const { t } = useTranslation()
  return (
    <Rows<T>
      legend={t('question.mistakes')}
      rows={mistakes}
      keyOf={(_, at) => `${at}`}
      onRows={(to) => onMistakes(to.length > 0 ? to : undefined)}
      fresh={fresh}
      least={0}
      most={12}
      add={t('question.addMistake')}
      drop={(n) => t('question.dropMistake', { n })}
    >
      {(m, at, put) => (
        <>
          {children(m, at, put)}
          <MistakeName n={at + 1} name={m.name} onName={(name) => put({ name } as Partial<T>)} />
        </>
      )}
    </Rows>
  )
}

type PickProps = { label: string; value: string; options: Option[]; onPick: (id: string) => void }

function Pick({ label, value, options, onPick }: PickProps) {
  const { t } = useTranslation()
  return (
    <select aria-label={label} value={value} onChange={(e) => onPick(e.target.value)} className={`${field} max-w-44`}>
      <option value="">{t('question.pickOne')}</option>
      {options.map((o, i) => (
        <option key={o.id} value={o.id}>
          {o.text || i + 1}
        </option>
      ))}
    </select>
  )
}

type Pair = Named & { from: string; to: string }
type PairProps = {
  from: Option[]
  to: Option[]
  mistakes: Pair[]
  onMistakes: (to: Pair[] | undefined) => void
}

/** Something put to what it does not belong to. */
export function PairMistakes({ from, to, mistakes, onMistakes }: PairProps) {
  const { t } = useTranslation()
  return (
    <List<Pair> mistakes={mistakes} onMistakes={onMistakes} fresh={() => ({ name: '', from: '', to: '' })}>
      {(m, at, put) => (
        <>
          <Pick
            label={t('question.mistakeThing', { n: at + 1 })}
            value={m.from}
            options={from}
            onPick={(id) => put({ from: id })}
          />
          <span aria-hidden="true" className="rtl:-scale-x-100">
            →
          </span>
          <Pick
            label={t('question.mistakePlace', { n: at + 1 })}
            value={m.to}
            options={to}
            onPick={(id) => put({ to: id })}
          />
        </>
      )}
    </List>
  )
}

type Ordered = Named & { order: string[] }
type OrderProps = { options: Option[]; mistakes?: Ordered[]; onMistakes: (to: Ordered[] | undefined) => void }

/** An order that comes of a mistake, by the numbers of the things above. */
export function OrderMistakes({ options, mistakes, onMistakes }: OrderProps) {
  const { t } = useTranslation()
  const words = (ids: string[]) => ids.map((id) => options.find((o) => o.id === id)?.text ?? '').join(' · ')
  return (
    <List<Ordered> mistakes={mistakes} onMistakes={onMistakes} fresh={() => ({ name: '', order: [] })}>
      {(m, at, put) => (
        <>
          <Numbers
            label={t('question.mistakeOrder', { n: at + 1 })}
            options={options}
            order={m.order}
            onOrder={(order) => put({ order })}
          />
          {m.order.length > 0 && (
            <span dir="auto" className="basis-full text-sm text-slate">
              {words(m.order)}
            </span>
          )}
        </>
      )}
    </List>
  )
}

type NumbersProps = { label: string; options: Option[]; order: string[]; onOrder: (to: string[]) => void }

/** Things by their numbers; taken when each is there once. */
function Numbers({ label, options, order, onOrder }: NumbersProps) {
  const numbers = (ids: string[]) => ids.map((id) => options.findIndex((o) => o.id === id) + 1).join(' ')
  const [text, setText] = useState(numbers(order))
  const read = (words: string) => {
    const all = words
      .split(/[^\d]+/)
      .filter(Boolean)
      .map(Number)
    const whole = all.length === options.length && new Set(all).size === all.length
    return whole && all.every((n) => n >= 1 && n <= options.length) ? all.map((n) => options[n - 1]!.id) : []
  }
  return (
    <input
      aria-label={label}
      aria-invalid={text !== '' && read(text).length === 0}
      placeholder={options.map((_, i) => options.length - i).join(' ')}
      value={text}
      inputMode="numeric"
      onChange={(e) => {
        setText(e.target.value)
        onOrder(read(e.target.value))
      }}
      className={`${field} w-36 tabular-nums`}
    />
  )
}

type InBlank = Named & { blank: number; texts: string[] }
type BlankProps = { blanks: Blank[]; onBlanks: (to: Blank[]) => void }

/** Known wrong texts in blanks. */
export function BlankMistakes({ blanks, onBlanks }: BlankProps) {
  const { t } = useTranslation()
  // What is begun has its place here until it has a text.
  const [mistakes, setMistakes] = useState<InBlank[]>(
    blanks.flatMap((b, blank) => (b.mistakes ?? []).map((m) => ({ ...m, blank }))),
  )
  const put = (to: InBlank[] = []) => {
    setMistakes(to)
    onBlanks(
      blanks.map((b, blank) => {
        const own = to.flatMap((m) => {
          const texts = m.texts.map((x) => x.trim()).filter(Boolean)
          return m.blank === blank && m.name.trim() && texts.length > 0 ? [{ name: m.name, texts }] : []
        })
        return { ...b, mistakes: own.length > 0 ? own : undefined }
      }),
    )
  }
  return (
    <List<InBlank> mistakes={mistakes} onMistakes={put} fresh={() => ({ name: '', blank: 0, texts: [''] })}>
      {(m, at, change) => (
        <>
          <select
            aria-label={t('question.mistakeBlank', { n: at + 1 })}
            value={m.blank}
            onChange={(e) => change({ blank: Number(e.target.value) })}
            className={field}
          >
            {blanks.map((b, i) => (
              <option key={b.id} value={i}>
                {b.accepted?.[0] ?? i + 1}
              </option>
            ))}
          </select>
          <input
            aria-label={t('question.mistakeFrom', { n: at + 1 })}
            placeholder={t('question.wrongText')}
            value={m.texts.join(' / ')}
            dir="auto"
            onChange={(e) => change({ texts: e.target.value.split('/').map((x) => x.trimStart()) })}
            className={`${field} grow`}
          />
        </>
      )}
    </List>
  )
}
