import { Check } from 'lucide-react'
import { useId } from 'react'
import { useTranslation } from 'react-i18next'
import { pictureURL } from '../frame/pictures/pictures'
import type { AnswerValue, Element, Phase } from '../wire/types.gen'
import { hasRight, isRight } from './kinds'

type Props = {
  mark: Element & { kind: 'poll' }
  phase: Phase
  /** Which asking of the question this is. */
  round?: number
  chosen?: AnswerValue
  /** Left out where nobody can answer. */
  onChoose?: (value: AnswerValue) => void
  /** Not before the sheet that takes the answer is here. */
  ready?: boolean
  /** How many gave each answer, in the order of the question, for the teacher. */
  counts?: number[]
  /** Fills its place on a frame, in frame units. */
  onFrame?: boolean
  /** How large its letters are where that is neither a page's nor a frame's. */
  letters?: string
}

/** A poll with its answers. */
export function PollCard({
  mark,
  phase,
  round = 1,
  chosen,
  onChoose,
  ready = true,
  counts,
  onFrame = false,
  letters,
}: Props) {
  const { t } = useTranslation()
  const name = useId()
  const { text, choice } = mark.poll
  const open = phase === 'open' && onChoose !== undefined && ready
  const said = !onChoose
    ? null
    : phase === 'revealed' && chosen && hasRight(mark.poll)
      ? isRight(mark.poll, chosen)
        ? t('poll.youWereRight')
        : t('poll.youWereWrong')
      : phase !== 'open'
        ? t('poll.closed')
        : !ready
          ? t('loading')
          : chosen
            ? t('poll.chosen')
            : t('poll.choose')
  const all = (counts ?? []).reduce((sum, n) => sum + n, 0)
  return (
    <fieldset
      className="rounded-[0.6em] border-2 border-line bg-paper p-[0.9em]"
      style={{ fontSize: letters ?? (onFrame ? 34 : 17), minHeight: onFrame ? mark.h : undefined }}
    >
      <legend className="float-start mb-[0.6em] w-full px-0 font-display text-[1.3em] leading-tight font-semibold">
        {round > 1 && <span className="me-[0.5em] text-[0.75em] text-slate">{t('poll.round', { round })}</span>}
        <span dir="auto">{text}</span>
      </legend>
      <div className="clear-both flex flex-col gap-[0.45em]">
        {choice.options.map((option, i) => {
          const mine = option.id === chosen?.choice.option
          const shownRight = option.right === true && phase === 'revealed'
          const count = counts?.[i] ?? 0
          return (
            <label
              key={option.id}
              className={`relative flex items-center gap-[0.7em] overflow-hidden rounded-[0.5em] border-2 px-[0.7em] py-[0.5em] ${mine ? 'border-dusk bg-dusk-soft font-semibold' : 'border-edge bg-paper'} ${open ? 'cursor-pointer hover:bg-mist' : ''} has-focus-visible:outline-3 has-focus-visible:outline-offset-2 has-focus-visible:outline-dusk`}
            >
              {counts && (
                <span
                  aria-hidden="true"
                  className={`absolute inset-y-0 start-0 ${shownRight ? 'bg-fern-soft' : 'bg-mist'}`}
                  style={{ width: `${all ? (100 * count) / all : 0}%` }}
                />
              )}
              {onChoose && (
                <input
                  type="radio"
                  name={name}
                  value={option.id}
                  checked={mine}
                  disabled={!open}
                  onChange={() => onChoose({ kind: 'choice', choice: { option: option.id } })}
                  className="relative size-[1.1em] shrink-0 accent-dusk outline-none"
                />
              )}
              {option.picture && (
                <img
                  src={pictureURL(option.picture)}
                  alt=""
                  className="relative max-h-[5em] max-w-[40%] shrink-0 rounded-[0.3em] object-contain"
                />
              )}
              <span dir="auto" className="relative grow">
                {option.text}
              </span>
              {shownRight && (
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
