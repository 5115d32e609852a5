import { Check } from 'lucide-react'
import { useTranslation } from 'react-i18next'
import { shuffled } from '../kinds'
import { Grip } from './Grip'
import { OptionPicture } from './OptionPicture'
import { useDrag } from './useDrag'
import { field, type AnswerProps } from './props'

const letter = (i: number) => String.fromCharCode(65 + i)

/** What belongs to what: for each thing on the left one is taken from the right. */
export function Match({ asked, given, open, revealed, onGive, seed }: AnswerProps<'match'>) {
  const { t } = useTranslation()
  const { left, pairs = [] } = asked.match
  const right = shuffled(asked.match.right, seed)
  const taken = given?.match.pairs ?? []
  const words = (id: string) => {
    const i = right.findIndex((o) => o.id === id)
    return i < 0 ? '' : `${letter(i)} ${right[i]!.text}`
  }
  function take(id: string, to: string) {
    const others = taken.filter((p) => p.left !== id)
    const next = to ? [...others, { left: id, right: to }] : others
    if (next.length > 0) onGive?.({ kind: 'match', match: { pairs: next } })
  }
  const drag = useDrag((what, on) => take(on, what))
  return (
    <div className="grid gap-[0.8em] sm:grid-cols-2" data-drags>
      <ul className="flex flex-col gap-[0.45em]">
        {left.map((o) => {
          const mine = taken.find((p) => p.left === o.id)?.right ?? ''
          const key = pairs.find((p) => p.left === o.id)?.right
          return (
            <li
              key={o.id}
              data-drop={onGive && open ? o.id : undefined}
              className={`rounded-[0.5em] border-2 px-[0.6em] py-[0.4em] ${drag.over === o.id ? 'border-dusk bg-dusk-soft' : 'border-edge bg-paper'}`}
            >
              <span className="flex items-center gap-[0.6em]">
                <OptionPicture option={o} />
                <span dir="auto" className="grow font-semibold">
                  {o.text}
                </span>
              </span>
              {onGive && (
                <select
                  aria-label={t('poll.belongs', { text: o.text })}
                  value={mine}
                  disabled={!open}
                  onChange={(e) => take(o.id, e.target.value)}
                  className={`${field} mt-[0.3em]`}
                >
                  <option value="">{t('poll.chooseOne')}</option>
                  {right.map((r) => (
                    <option key={r.id} value={r.id}>
                      {words(r.id)}
                    </option>
                  ))}
                </select>
              )}
              {revealed && key && (
                <span className="mt-[0.2em] flex items-center gap-[0.25em] text-[0.85em] font-semibold text-fern-deep">
                  <Check size="1.1em" aria-hidden="true" />
                  <span dir="auto">{words(key)}</span>
                </span>
              )}
            </li>
          )
        })}
      </ul>
      <ul className="flex flex-col gap-[0.45em]" aria-label={t('poll.toChoose')}>
        {right.map((o, i) => (
          <li
            key={o.id}
            data-drag
            className={`relative flex items-center gap-[0.6em] rounded-[0.5em] bg-mist px-[0.6em] py-[0.4em] ${drag.dragged === o.id ? 'z-10 shadow-lg' : ''}`}
          >
            {onGive && open && <Grip {...drag.handle(o.id)} />}
            <b>{letter(i)}</b>
            <OptionPicture option={o} />
            <span dir="auto">{o.text}</span>
          </li>
        ))}
      </ul>
    </div>
  )
}
