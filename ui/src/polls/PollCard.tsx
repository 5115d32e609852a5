import { useTranslation } from 'react-i18next'
import type { AnswerValue, Element, Phase } from '../wire/types.gen'
import { Choice } from './Choice'
import { hasRight, isRight } from './kinds'
import { Rank } from './Rank'

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
  const { poll } = mark
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
            : t(poll.kind === 'rank' ? 'poll.order' : 'poll.choose')
  return (
    <fieldset
      className="rounded-[0.6em] border-2 border-line bg-paper p-[0.9em]"
      style={{ fontSize: letters ?? (onFrame ? 34 : 17), minHeight: onFrame ? mark.h : undefined }}
    >
      <legend className="float-start mb-[0.6em] w-full px-0 font-display text-[1.3em] leading-tight font-semibold">
        {round > 1 && <span className="me-[0.5em] text-[0.75em] text-slate">{t('poll.round', { round })}</span>}
        <span dir="auto">{poll.text}</span>
      </legend>
      <div className="clear-both">
        {poll.kind === 'choice' ? (
          <Choice
            options={poll.choice.options}
            chosen={chosen?.kind === 'choice' ? chosen.choice.option : undefined}
            phase={phase}
            open={open}
            counts={counts}
            onChoose={onChoose && ((option) => onChoose({ kind: 'choice', choice: { option } }))}
          />
        ) : (
          <Rank
            options={poll.rank.options}
            chosen={chosen?.kind === 'rank' ? chosen.rank.order : undefined}
            open={open}
            points={counts}
            onRank={onChoose && ((order) => onChoose({ kind: 'rank', rank: { order } }))}
          />
        )}
      </div>
      <p role="status" className="mt-[0.6em] text-[0.85em] text-slate empty:hidden">
        {said}
      </p>
    </fieldset>
  )
}
