import { Check } from 'lucide-react'
import { useId } from 'react'
import { useTranslation } from 'react-i18next'
import type { Element, Phase } from '../wire/types.gen'
import { pictureURL } from './pictures'

type Props = {
  mark: Element & { kind: 'poll' }
  phase: Phase
  chosen?: string
  /** Left out where nobody can answer. */
  onChoose?: (choice: string) => void
  /** Not before the sheet that takes the answer is here. */
  ready?: boolean
  /** How many chose each answer, for the teacher. */
  counts?: { [choice: string]: number }
  /** Fills its place on a frame, in frame units. */
  onFrame?: boolean
}

/** A poll with its answers. */
export function PollCard({ mark, phase, chosen, onChoose, ready = true, counts, onFrame = false }: Props) {
  const { t } = useTranslation()
  const name = useId()
  const { text, choices } = mark.poll
  const open = phase === 'open' && onChoose !== undefined && ready
  const right = new Set(choices.filter((c) => c.right).map((c) => c.id))
  const said = !onChoose
    ? null
    : phase === 'revealed' && right.size > 0 && chosen
      ? right.has(chosen)
        ? t('poll.youWereRight')
        : t('poll.youWereWrong')
      : phase !== 'open'
        ? t('poll.closed')
        : !ready
          ? t('loading')
          : chosen
            ? t('poll.chosen')
            : t('poll.choose')
  const all = Object.values(counts ?? {}).reduce((sum, n) => sum + n, 0)
  return (
    <fieldset
      className="rounded-[0.6em] border-2 border-line bg-paper p-[0.9em]"
      style={{ fontSize: onFrame ? 34 : 17, minHeight: onFrame ? mark.h : undefined }}
    >
      <legend className="float-start mb-[0.6em] w-full px-0 font-display text-[1.3em] leading-tight font-semibold">
        <span dir="auto">{text}</span>
      </legend>
      <div className="clear-both flex flex-col gap-[0.45em]">
        {choices.map((choice) => {
          const mine = choice.id === chosen
          const isRight = choice.right === true && phase === 'revealed'
          const count = counts?.[choice.id] ?? 0
          return (
            <label
              key={choice.id}
              className={`relative flex items-center gap-[0.7em] overflow-hidden rounded-[0.5em] border-2 px-[0.7em] py-[0.5em] ${mine ? 'border-dusk bg-dusk-soft font-semibold' : 'border-edge bg-paper'} ${open ? 'cursor-pointer hover:bg-mist' : ''} has-focus-visible:outline-3 has-focus-visible:outline-offset-2 has-focus-visible:outline-dusk`}
            >
              {counts && (
                <span
                  aria-hidden="true"
                  className={`absolute inset-y-0 start-0 ${isRight ? 'bg-fern-soft' : 'bg-mist'}`}
                  style={{ width: `${all ? (100 * count) / all : 0}%` }}
                />
              )}
              {onChoose && (
                <input
                  type="radio"
                  name={name}
                  value={choice.id}
                  checked={mine}
                  disabled={!open}
                  onChange={() => onChoose(choice.id)}
                  className="relative size-[1.1em] shrink-0 accent-dusk outline-none"
                />
              )}
              {choice.picture && (
                <img
                  src={pictureURL(choice.picture)}
                  alt=""
                  className="relative max-h-[5em] max-w-[40%] shrink-0 rounded-[0.3em] object-contain"
                />
              )}
              <span dir="auto" className="relative grow">
                {choice.text}
              </span>
              {isRight && (
                <span className="relative inline-flex items-center gap-[0.25em] text-[0.85em] font-semibold text-fern-deep">
                  <Check size="1.1em" aria-hidden="true" />
                  {t('poll.right')}
                </span>
              )}
              {counts && (
                <span className="relative text-[0.85em] font-semibold tabular-nums">{t('poll.votes', { count })}</span>
              )}
            </label>
          )
        })}
      </div>
      <p role="status" className="mt-[0.6em] text-[0.85em] text-slate empty:hidden">
        {said}
      </p>
    </fieldset>
  )
}
