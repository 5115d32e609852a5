import '../../words/windows'
import { ChevronLeft, ChevronRight } from 'lucide-react'
import { useEffect, useRef, useState } from 'react'
import { useTranslation } from 'react-i18next'
import { PollCard, type Given } from '../../polls/PollCard'
import { answersIn, handedID } from '../../rules/answers'
import type { Element, PollState, Results, Stage } from '../../wire/types.gen'
import type { Shown } from '../../wire/sheets'
import { useUntil } from '../../wire/hooks/useClock'
import { useLesson, useLessonState } from '../../wire/hooks/useLesson'
import { useResults } from '../../wire/hooks/useVerdict'
import { SetEnd } from './SetEnd'
import { Told } from './Told'
import { VerdictSign } from '../../polls/charts/VerdictSign'

type Poll = Element & { kind: 'poll' }
type Props = { stage: Stage; own: Shown | undefined; me: string }

/** Kinds that are given by a button of their own. */
const typed = ['number', 'short', 'open']

/** Questions in a row, as a student goes through them. */
export default function QuestionSet({ stage, own, me }: Props) {
  const { t } = useTranslation()
  const { frame } = stage
  const set = frame.set!
  const polls = frame.prepared.filter((m): m is Poll => m.kind === 'poll')
  const round = Math.max(0, ...polls.map((p) => stage.polls[p.id]?.round ?? 0))
  const marks = own?.marks ?? []
  const handed = marks.some((m) => m.id === handedID(frame.id, round))
  const results = useResults(own, stage.polls)
  const open = polls.findIndex((p) => stage.polls[p.id]?.phase === 'open')
  const [at, setAt] = useState(0)
  // Whoever is led is on the question that is open.
  const [led, setLed] = useState(open)
  if (!set.ownPace && open >= 0 && led !== open) {
    setLed(open)
    setAt(open)
  }
  const mark = polls[at]
  if (polls.length === 0) return <p className="p-6 text-center text-slate">{t('set.soon')}</p>
  const go = (to: number) => setAt(Math.max(0, Math.min(polls.length, to)))
  return (
    <div className="flex min-h-0 grow flex-col" data-part="set">
      <Steps polls={polls} marks={marks} stage={stage} results={results} at={at} onGo={go} end={set.ownPace ?? false} />
      <div className="min-h-0 grow overflow-auto p-4">
        <div className="mx-auto max-w-3xl">
          {mark ? (
            <One
              key={`${mark.id} ${round}`}
              mark={mark}
              stage={stage}
              own={own}
              me={me}
              handed={handed}
              results={results}
            />
          ) : (
            <SetEnd polls={polls} stage={stage} own={own} round={round} handed={handed} results={results} onGo={go} />
          )}
        </div>
      </div>
      {(set.ownPace || polls.length > 1) && (
        <div className="flex justify-between gap-3 border-t border-line bg-paper px-4 py-2">
          <button
            type="button"
            disabled={at === 0}
            onClick={() => go(at - 1)}
            className={`${step} border-edge bg-paper`}
          >
            <ChevronLeft size={18} aria-hidden="true" className="rtl:-scale-x-100" />
            {t('set.before')}
          </button>
          <button
            type="button"
            disabled={at >= polls.length - (set.ownPace ? 0 : 1)}
            onClick={() => go(at + 1)}
            className={`${step} border-dusk bg-dusk text-paper`}
          >
            {at === polls.length - 1 && set.ownPace ? t('set.toEnd') : t('set.after')}
            <ChevronRight size={18} aria-hidden="true" className="rtl:-scale-x-100" />
          </button>
        </div>
      )}
    </div>
  )
}

const step =
  'flex min-h-11 items-center gap-1.5 rounded-lg border px-4 font-semibold disabled:border-line disabled:bg-mist disabled:text-slate'

type StepsProps = {
  polls: Poll[]
  marks: readonly Element[]
  stage: Stage
  results: Results | null
  at: number
  onGo: (to: number) => void
  end: boolean
}

/** All questions, with how one's own answers stand. */
function Steps({ polls, marks, stage, results, at, onGo, end }: StepsProps) {
  const { t } = useTranslation()
  const list = useRef<HTMLOListElement>(null)
  // However many they are, they are one line, and the one that is answered is in sight.
  useEffect(() => {
    list.current?.children[at]?.scrollIntoView({ block: 'nearest', inline: 'center' })
  }, [at])
  return (
    <nav aria-label={t('set.questions')} className="border-b border-line bg-paper px-3 py-1">
      <ol ref={list} className="mx-auto flex max-w-3xl gap-1.5 overflow-x-auto p-1 pb-2">
        {polls.map((p, i) => {
          const answered = answersIn(marks, p.id, stage.polls[p.id]?.round ?? 1).length > 0
          const verdict = results?.verdicts[p.id]?.verdict
          const stands = verdict ? t(`set.told_${verdict}`) : t(answered ? 'set.answered' : 'set.notAnswered')
          return (
            <li key={p.id}>
              <button
                type="button"
                aria-current={i === at ? 'step' : undefined}
                aria-label={t('set.step', { n: i + 1, stands })}
                onClick={() => onGo(i)}
                className={`relative grid size-10 shrink-0 place-items-center rounded-full border-2 font-semibold tabular-nums ${i === at ? 'border-dusk ring-2 ring-dusk-soft' : 'border-line'} ${answered ? 'bg-dusk-soft' : 'bg-paper text-slate'}`}
              >
                {i + 1}
                {verdict && (
                  <span aria-hidden="true" className="absolute -end-1.5 -bottom-1.5 rounded-full bg-paper text-[15px]">
                    <VerdictSign verdict={verdict} />
                  </span>
                )}
              </button>
            </li>
          )
        })}
        {end && (
          <li>
            <button
              type="button"
              aria-current={at === polls.length ? 'step' : undefined}
              onClick={() => onGo(polls.length)}
              className={`h-10 shrink-0 rounded-full border-2 px-3 font-semibold ${at === polls.length ? 'border-dusk ring-2 ring-dusk-soft' : 'border-line'}`}
            >
              {t('set.end')}
            </button>
          </li>
        )}
      </ol>
    </nav>
  )
}

type OneProps = Props & { mark: Poll; handed: boolean; results: Results | null }

/** One question of the row. */
function One({ mark, stage, own, me, handed, results }: OneProps) {
  const { t } = useTranslation()
  const lesson = useLesson()
  const online = useLessonState((s) => s.network === 'online')
  const state: PollState = stage.polls[mark.id] ?? { phase: 'closed', round: 1 }
  const left = useUntil(state.closesAt)
  const { round } = state
  const phase = state.phase === 'open' && left?.over ? 'closed' : state.phase
  const given = answersIn(own?.marks ?? [], mark.id, round)[0]
  const told = results?.verdicts[mark.id]
  const once = stage.frame.set?.feedback === 'once'
  const [draft, setDraft] = useState<Given | null>(null)
  // It is known to be right, or no try is left.
  const final =
    handed || (phase === 'open' && (told?.verdict === 'right' || (told?.right !== undefined && told.right !== '')))
  // What was answered is being judged: until that is known nothing else is.
  const saving = useLessonState((s) => s.unsaved > 0)
  const waits =
    once && phase === 'open' && given !== undefined && (saving || told?.tries !== (given.before?.length ?? 0) + 1)
  const give = (g: Given) => {
    setDraft(null)
    if (!own) return
    const { value, sure } = g
    lesson.do(own.sheet, {
      kind: 'answer',
      answer: { poll: mark.id, round, value, ...(sure && { sure }), ...(!online && { offline: true }) },
    })
  }
  const checks = once && phase === 'open' && !final && !waits && !typed.includes(mark.poll.kind)
  const shown = draft ?? given
  return (
    <PollCard
      mark={mark}
      phase={phase}
      round={round}
      left={phase === 'open' ? left?.seconds : undefined}
      given={shown}
      ready={own !== undefined && !final && !waits}
      verdict={phase === 'revealed' ? told : undefined}
      seed={me}
      onGive={(value, sure) => (checks ? setDraft({ value, sure }) : give({ value, sure }))}
      quiet={checks || final || waits}
      keeps={!once}
      below={
        <>
          {checks && shown && (
            <button
              type="button"
              disabled={!draft || (mark.poll.sure && !draft.sure)}
              onClick={() => draft && give(draft)}
              className="mt-[0.7em] min-h-[2.4em] self-start rounded-[0.5em] bg-dusk px-[1em] py-[0.4em] font-semibold text-paper disabled:bg-slate"
            >
              {t('set.check')}
            </button>
          )}
          {waits && (
            <p role="status" className="mt-[0.7em] text-slate">
              {t(online ? 'set.waitsForVerdict' : 'set.waitsForNetwork')}
            </p>
          )}
          {phase !== 'revealed' && told && given && !draft && !waits && <Told told={told} />}
        </>
      }
    />
  )
}
