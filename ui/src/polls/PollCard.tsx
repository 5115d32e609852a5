import { useId, type ReactNode } from 'react'
import { useTranslation } from 'react-i18next'
import { pictureURL } from '../frame/pictures/pictures'
import type { AnswerTally, AnswerValue, Element, OwnVerdict, Phase, Sureness } from '../wire/types.gen'
import { Answer } from './answers/Answer'
import { asClass } from './charts/asClass'
import { Chart } from './charts/Chart'
import { Listen } from './sound/Listen'
import '../words/windows'

/** An answer as its student has it here. */
export type Given = { value: AnswerValue; sure?: Sureness; read?: string; late?: boolean }

type Props = {
  mark: Element & { kind: 'poll' }
  phase: Phase
  /** Which asking of the question this is. */
  round?: number
  given?: Given
  /** Left out where nobody can answer. */
  onGive?: (value: AnswerValue, sure?: Sureness) => void
  /** Not before the sheet that takes the answer is here. */
  ready?: boolean
  /** Something that is said above the answers, or stands below them. */
  note?: ReactNode
  below?: ReactNode
  /** What was begun is given when one goes on. */
  keeps?: boolean
  /** Nothing is said of the answer, which has not been given yet. */
  quiet?: boolean
  /** How many seconds are left to answer. */
  left?: number
  /** How the answers stand, where that is to be seen. */
  tally?: AnswerTally
  /** What is thought of the student's own answer, once that is shown. */
  verdict?: OwnVerdict | null
  /** Whose own order things are offered in, where they are shuffled. */
  seed?: string
  /** Fills its place on a frame, in frame units. */
  onFrame?: boolean
  /** How large its letters are where that is neither a page's nor a frame's. */
  letters?: string
}

/** Where a link leads, in short. */
function hostOf(link: string): string {
  try {
    return new URL(link).hostname
  } catch {
    return link
  }
}

/** A poll with its answers. */
export function PollCard(props: Props) {
  const { t } = useTranslation()
  const {
    mark,
    phase,
    round = 1,
    given,
    onGive,
    ready = true,
    tally,
    note,
    below,
    left,
    onFrame = false,
    letters,
    seed = '',
    keeps,
  } = props
  const { poll } = mark
  const open = phase === 'open' && onGive !== undefined && ready
  return (
    <fieldset
      className="rounded-[0.6em] border-2 border-line bg-paper p-[0.9em]"
      style={{ fontSize: letters ?? (onFrame ? 34 : 17), minHeight: onFrame ? mark.h : undefined }}
    >
      <legend className="float-start mb-[0.6em] w-full px-0 font-display text-[1.3em] leading-tight font-semibold">
        <span className="flex flex-wrap items-baseline gap-x-[0.5em]">
          {round > 1 && <span className="text-[0.75em] text-slate">{t('poll.round', { round })}</span>}
          <span dir="auto" className="min-w-[60%] grow basis-0">
            {poll.text}
          </span>
          {left !== undefined && (
            <span className="text-[0.75em] text-glow tabular-nums">{t('poll.left', { count: left })}</span>
          )}
        </span>
      </legend>
      <div className="clear-both">
        {note}
        {poll.picture && (
          <img
            src={pictureURL(poll.picture)}
            alt=""
            className="mb-[0.6em] max-h-[12em] max-w-full rounded-[0.4em] object-contain"
          />
        )}
        {poll.sound && <Listen sound={poll.sound} />}
        {poll.link && (
          <p className="mb-[0.6em]">
            <a
              href={poll.link}
              target="_blank"
              rel="noopener noreferrer"
              className="font-semibold text-dusk underline underline-offset-4"
            >
              {t('poll.toLink', { host: hostOf(poll.link) })}
            </a>
          </p>
        )}
        {tally?.chart ? (
          <Chart tally={asClass(tally, phase === 'revealed')} asked={poll} />
        ) : (
          <Answer
            key={round}
            asked={poll}
            given={given?.value as never}
            open={open}
            revealed={phase === 'revealed'}
            onGive={onGive && ((value) => onGive(value, given?.sure))}
            keeps={keeps}
            seed={poll.shuffle ? seed : ''}
          />
        )}
      </div>
      {poll.sure && onGive && given && (
        <SureOrNot given={given} open={open} onSure={(sure) => onGive(given.value, sure)} />
      )}
      {below}
      {phase === 'revealed' && poll.why && (
        <p dir="auto" className="mt-[0.6em] rounded-[0.4em] bg-fern-soft px-[0.7em] py-[0.4em]">
          {poll.why}
        </p>
      )}
      <p role="status" className="mt-[0.6em] text-[0.85em] text-slate empty:hidden">
        <Said {...props} />
      </p>
    </fieldset>
  )
}

/** How sure somebody is of an answer. */
function SureOrNot({ given, open, onSure }: { given: Given; open: boolean; onSure: (sure: Sureness) => void }) {
  const { t } = useTranslation()
  const name = useId()
  return (
    <fieldset className="mt-[0.6em] flex flex-wrap items-center gap-[0.8em]">
      <legend className="contents">
        <span className="font-semibold">{t('poll.howSure')}</span>
      </legend>
      {(['sure', 'unsure'] as const).map((sure) => (
        <label key={sure} className="flex min-h-[2em] items-center gap-[0.4em]">
          <input
            type="radio"
            name={name}
            disabled={!open}
            checked={given.sure === sure}
            onChange={() => onSure(sure)}
            className="size-[1.1em] accent-dusk"
          />
          {t(`poll.${sure}`)}
        </label>
      ))}
    </fieldset>
  )
}

/** What is said of one's own answer, or of what to do. */
function Said({ mark, phase, given, onGive, ready = true, verdict, quiet }: Props) {
  const { t } = useTranslation()
  if (!onGive || quiet) return null
  if (phase === 'revealed' && given && verdict?.verdict && !given.late)
    return (
      <>
        {t(`poll.your_${verdict.verdict}`)} {verdict.reason && t(`poll.reason_${verdict.reason}`)}
        {mark.poll.kind === 'order' && verdict.verdict !== 'right' && (
          <span className="block font-semibold text-fern-deep">
            {t('poll.rightIs')} <span dir="auto">{verdict.right}</span>
          </span>
        )}
      </>
    )
  if (given?.late) return t('poll.late')
  if (phase !== 'open') return t('poll.closed')
  if (!ready) return t('loading')
  if (given && mark.poll.kind !== 'memory')
    return (
      <>
        {given.read && t('poll.readAs', { text: given.read })} {t('poll.chosen')}
      </>
    )
  const { kind } = mark.poll
  // These say what to do where it is done.
  if (kind === 'number' || kind === 'short' || kind === 'open' || kind === 'draw' || kind === 'memory') return null
  return t(`poll.do_${kind}`)
}
