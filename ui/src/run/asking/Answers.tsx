import { useState } from 'react'
import { useTranslation } from 'react-i18next'
import { Chart } from '../../polls/charts/Chart'
import type { Staff } from '../../wire/lesson'
import type { Element, Frame, Outcome } from '../../wire/types.gen'
import { useLessonState } from '../../wire/hooks/useLesson'
import { Advice } from './Advice'
import { GroupsByAnswers } from './GroupsByAnswers'
import { InRow } from './InRow'
import { Moved } from './Moved'
import { People } from './People'
import { SameSaid } from './SameSaid'
import { Talking } from './Talking'

/** What the answers to the questions of a frame say, and what one might do next. */
export function Answers({ frame, staff }: { frame: Frame; staff: Staff }) {
  const { t } = useTranslation()
  const outcomes = useLessonState((s) => s.outcomes)
  const all = frame.prepared.filter((m) => m.kind === 'poll') as Array<Element & { kind: 'poll' }>
  // Of questions in a row one is looked at, by itself the one that is asked.
  const [picked, pick] = useState('')
  const asked = all.findLast((p) => staff.state.polls[p.id]?.phase === 'open' && !frame.set?.ownPace)
  const one = all.find((p) => p.id === picked) ?? asked
  const polls = frame.set ? (one ? [one] : []) : all
  return (
    <div className="flex flex-col gap-8">
      {frame.set && <InRow frame={frame} onQuestion={pick} />}
      {polls.map((mark) => {
        const outcome = outcomes.get(mark.id)
        // Of a frame that the class has not reached nothing was asked yet.
        if (!staff.state.polls[mark.id])
          return <p key={mark.id}>{t('asking.notAsked', { question: mark.poll.text })}</p>
        if (!outcome) return <p key={mark.id}>{t('loading')}</p>
        return <OneQuestion key={mark.id} mark={mark} outcome={outcome} frame={frame} staff={staff} />
      })}
    </div>
  )
}

type Props = { mark: Element & { kind: 'poll' }; outcome: Outcome; frame: Frame; staff: Staff }

function OneQuestion({ mark, outcome, frame, staff }: Props) {
  const { t } = useTranslation()
  const { answered, of, halfMs, round, verdicts, percent } = outcome
  const ended = staff.state.polls[mark.id]?.phase !== 'open'
  const half =
    halfMs !== undefined
      ? t('asking.half', { count: Math.max(1, Math.round(halfMs / 1000)) })
      : answered > 0 && t(ended ? 'asking.fewerThanHalf' : 'asking.notHalfYet')
  const facts = [
    round > 1 && t('poll.round', { round }),
    t('poll.answered', { count: answered, all: of }),
    half,
    outcome.sure && outcome.sure.sureWrong > 0 && t('asking.sureWrong', { count: outcome.sure.sureWrong }),
    outcome.late > 0 && t('asking.lateCount', { count: outcome.late }),
    outcome.offline > 0 && t('asking.offlineCount', { count: outcome.offline }),
  ].filter(Boolean) as string[]
  return (
    <section aria-label={mark.poll.text} className="grid gap-5 lg:grid-cols-[minmax(0,1fr)_20rem]">
      <div className="flex min-w-0 flex-col gap-4">
        <header>
          <h2 dir="auto" className="font-display text-2xl leading-tight font-semibold">
            {mark.poll.text}
          </h2>
          <p className="text-slate" role="status">
            {facts.join(' · ')}
          </p>
        </header>
        {verdicts && answered > 0 && percent && (
          <Shares right={verdicts.right} partly={verdicts.partly} wrong={verdicts.wrong} percent={percent} />
        )}
        <div className="text-[17px]">
          <Chart tally={outcome} asked={mark.poll} spans />
        </div>
        {outcome.chart?.kind === 'texts' && answered > 1 && <SameSaid poll={mark.id} round={round} />}
        {outcome.chart?.kind === 'bars' && answered > 0 && <p className="text-sm text-slate">{t('asking.spans')}</p>}
        {outcome.mistakes && outcome.mistakes.length > 0 && (
          <section aria-label={t('asking.mistakes')}>
            <h3 className="mb-1 font-semibold">{t('asking.mistakes')}</h3>
            <ul className="flex flex-wrap gap-2">
              {outcome.mistakes.map((m) => (
                <li key={m.name} className="rounded-lg bg-amber-soft px-2.5 py-1">
                  <span dir="auto">{m.name}</span> <b className="tabular-nums">{m.count}</b>
                </li>
              ))}
            </ul>
          </section>
        )}
        {outcome.moved && <Moved moved={outcome.moved} round={round} />}
      </div>
      <div className="flex flex-col gap-4">
        {outcome.next && <Advice mark={mark} frame={frame} advised={outcome.next} staff={staff} />}
        <Talking mark={mark} staff={staff} />
        {answered > 1 && <GroupsByAnswers mark={mark} staff={staff} />}
        <People mark={mark} outcome={outcome} frame={frame} />
      </div>
    </section>
  )
}

/** How many are right, partly right and wrong: in words, and as one bar. */
function Shares({
  right,
  partly,
  wrong,
  percent,
}: {
  right: number
  partly: number
  wrong: number
  percent: number[]
}) {
  const { t } = useTranslation()
  const parts = [
    { count: right, words: t('asking.right', { count: right }), look: 'bg-fern text-paper' },
    { count: partly, words: t('asking.partly', { count: partly }), look: 'bg-amber text-paper' },
    { count: wrong, words: t('asking.wrong', { count: wrong }), look: 'bg-rose text-paper' },
  ]
  return (
    <ul className="flex overflow-hidden rounded-lg text-sm font-semibold">
      {parts.map(
        ({ count, words, look }, i) =>
          count > 0 && (
            <li
              key={i}
              className={`min-w-fit basis-0 px-2.5 py-1 whitespace-nowrap ${look}`}
              style={{ flexGrow: count }}
            >
              {words} · {percent[i]} %
            </li>
          ),
      )}
    </ul>
  )
}
