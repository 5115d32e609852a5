import { WifiOff } from 'lucide-react'
import { useMemo, type ReactNode } from 'react'
import { useTranslation } from 'react-i18next'
import { Logo } from '../kit/Logo'
import { useLeft, useNow } from '../wire/hooks/useClock'
import { optionsOf } from '../polls/kinds'
import { PollCard } from '../polls/PollCard'
import type { FrontStage, Past, Person, SaidGroup } from '../wire/types.gen'
import { useLessonState } from '../wire/hooks/useLesson'
import { clock } from '../words/words'
import { FrontFrame } from './FrontFrame'
import { FrontSet } from './FrontSet'
import { Gathering, useInvitation } from './Gathering'
import { TimerFace } from './TimerFace'

/** Words fill the screen as far as they can be read. */
const lettersFor = (words: string) =>
  words.length <= 12 ? 20 : words.length <= 40 ? 13 : words.length <= 100 ? 9 : 6.5

/** How many frames stand beside each other. */
const across = (n: number) => (n <= 1 ? 1 : n <= 4 ? 2 : 3)

/** What is shown to the whole room, in whatever size it has. Nothing on it can be touched. */
export function FrontScreen({ session }: { session: string }) {
  const { t } = useTranslation()
  const told = useLessonState((s) => s.front)
  const polls = useNow(told?.polls)
  const stage = useMemo(() => told && { ...told, polls }, [told, polls])
  const online = useLessonState((s) => s.network === 'online')
  const left = useLeft(stage?.timer)
  if (!stage) return <Room>{null}</Room>
  if (stage.ended) {
    return (
      <Room>
        <p className="grid size-full place-items-center font-display text-[9cqh] font-semibold">{t('front.ended')}</p>
      </Room>
    )
  }
  const glows = left?.over && stage.timer?.light
  return (
    <Room>
      <div className="flex size-full flex-col" data-part="front" data-shows={stage.show.kind}>
        <h1 className="sr-only">{stage.frame.title || stage.title}</h1>
        <div className={`relative min-h-0 grow ${glows ? 'ring-[2cqh] ring-glow ring-inset' : ''}`}>
          <Content session={session} stage={stage} />
        </div>
        <Line session={session} stage={stage}>
          {left && <TimerFace left={left} className="text-[6cqh]" />}
          {!online && <WifiOff className="size-[2.6cqh] text-slate" aria-label={t('front.trouble')} />}
        </Line>
      </div>
    </Room>
  )
}

/** The whole screen, dark where the teacher wants it so. */
function Room({ children }: { children: ReactNode }) {
  const dark = useLessonState((s) => s.look?.dark)
  return (
    <div data-night={dark || undefined} className="[container-type:size] size-full overflow-hidden bg-paper text-night">
      {children}
    </div>
  )
}

function Content({ session, stage }: { session: string; stage: FrontStage & { past?: Past } }) {
  const { t } = useTranslation()
  const sheets = useLessonState((s) => s.sheets)
  const people = useLessonState((s) => s.people)
  const { show, frame } = stage
  const sheetOf = (owner: string) => sheets.find((s) => s.frame === frame.id && s.owner === owner)
  switch (show.kind) {
    case 'gathering':
      return <Gathering session={session} stage={stage} />
    case 'frame':
      if (frame.set) return <FrontSet stage={stage} />
      return frame.id ? (
        <FrontFrame
          key={`${frame.id} ${sheetOf('class')?.sheet}`}
          frame={frame}
          sheet={sheetOf('class')}
          polls={stage.polls}
          from={show.from}
        />
      ) : null
    case 'sheets': {
      const owners = show.owners ?? []
      return (
        <ul
          className="grid size-full gap-[1cqh] bg-mist p-[1cqh]"
          style={{ gridTemplateColumns: `repeat(${across(owners.length)}, minmax(0, 1fr))` }}
        >
          {frame.id &&
            owners.map((owner) => (
              <li key={owner} className="flex min-h-0 flex-col">
                <h2 dir="auto" className="truncate px-[0.5cqh] text-[3cqh] font-semibold">
                  {whose(owner, people, t('frame.somebody'), (n) => t('front.group', { n }))}
                </h2>
                <div className="min-h-0 grow">
                  <FrontFrame
                    key={sheetOf(owner)?.sheet ?? ''}
                    frame={frame}
                    sheet={sheetOf(owner)}
                    polls={stage.polls}
                  />
                </div>
              </li>
            ))}
        </ul>
      )
    }
    case 'past': {
      const owner = show.owners?.[0] ?? ''
      const now = sheetOf(owner)
      const name = whose(owner, people, t('frame.somebody'), (n) => t('front.group', { n }))
      const before = stage.past && { sheet: 'past', frame: frame.id, owner, marks: stage.past.marks }
      return (
        <ul className="grid size-full grid-cols-2 gap-[1cqh] bg-mist p-[1cqh]">
          {[before, now].map((sheet, i) => (
            <li key={i} className="flex min-h-0 flex-col">
              <h2 dir="auto" className="truncate px-[0.5cqh] text-[3cqh] font-semibold">
                {i === 0 ? t('front.before', { time: clock(stage.past?.at ?? 0) }) : t('front.now')}
                {name && ` · ${name}`}
              </h2>
              <div className="min-h-0 grow">
                <FrontFrame key={sheet?.sheet ?? ''} frame={frame} sheet={sheet} polls={stage.polls} />
              </div>
            </li>
          ))}
        </ul>
      )
    }
    case 'poll':
      return <Poll stage={stage} />
    case 'words':
      return (
        <p
          dir="auto"
          className="grid size-full place-items-center p-[4cqh] text-center font-display leading-tight font-semibold break-words whitespace-pre-wrap"
          style={{ fontSize: `${lettersFor(show.words ?? '')}cqh` }}
        >
          <span className="max-w-full">{show.words}</span>
        </p>
      )
    case 'nothing':
      return (
        <div className="grid size-full place-items-center">
          <Logo className="h-[16cqh] opacity-25" />
        </div>
      )
  }
}

/** Whose frame it is, as people say it. */
function whose(owner: string, people: ReadonlyMap<string, Person>, nobody: string, group: (n: string) => string) {
  if (owner === 'class') return ''
  return owner.startsWith('group-') ? group(owner.slice(6)) : (people.get(owner)?.name ?? nobody)
}

/** A poll, large, without answers until they are to be seen. */
function Poll({ stage }: { stage: FrontStage }) {
  const { t } = useTranslation()
  const mark = stage.frame.prepared.find((m) => m.id === stage.show.poll)
  if (mark?.kind !== 'poll') return null
  const { phase, round } = stage.polls[mark.id] ?? { phase: 'closed', round: 1 }
  if (stage.show.groups?.length) return <Said question={mark.poll.text} groups={stage.show.groups} />
  const many = Math.max(optionsOf(mark.poll).length, mark.poll.kind === 'choice' ? 0 : 5)
  return (
    <div className="flex size-full flex-col justify-center gap-[2cqh] overflow-hidden p-[4cqh]" inert>
      <PollCard
        mark={mark}
        phase={phase}
        round={round}
        tally={stage.tally}
        letters={many <= 4 ? '5cqh' : many <= 7 ? '3.6cqh' : '2.6cqh'}
      />
      <p className="text-[3cqh] text-slate">
        {t('front.answered', { count: stage.tally?.answered ?? 0, all: stage.seats })}
      </p>
    </div>
  )
}

/** What the class has said, taken together: the most said first, as wide as it is common. */
function Said({ question, groups }: { question: string; groups: SaidGroup[] }) {
  const { t } = useTranslation()
  const sorted = [...groups].sort((a, b) => b.count - a.count)
  const most = sorted[0]?.count ?? 1
  const size = sorted.length <= 4 ? 4.4 : sorted.length <= 8 ? 3.2 : 2.2
  return (
    <div className="flex size-full flex-col gap-[2cqh] overflow-hidden p-[4cqh]" data-part="front-said">
      <h2 dir="auto" className="font-display text-[5cqh] leading-tight font-semibold">
        {question}
      </h2>
      <ul className="flex min-h-0 grow flex-col justify-center gap-[1.6cqh]" style={{ fontSize: `${size}cqh` }}>
        {sorted.map((g, i) => (
          <li
            key={i}
            className="relative overflow-hidden rounded-[1.4cqh] border-2 border-line bg-paper px-[0.6em] py-[0.35em]"
          >
            <span
              aria-hidden="true"
              className="absolute inset-y-0 start-0 bg-dusk-soft"
              style={{ width: `${(100 * g.count) / most}%` }}
            />
            <span className="relative flex items-baseline gap-[0.6em]">
              <b dir="auto" className="font-display">
                {g.name || g.texts?.[0]}
              </b>
              <span dir="auto" className="min-w-0 grow truncate text-[0.75em] text-slate">
                {g.texts?.filter((text) => text.toLowerCase() !== (g.name || g.texts![0]!).toLowerCase()).join(' · ')}
              </span>
              <span className="shrink-0 tabular-nums">{t('front.said', { count: g.count })}</span>
            </span>
          </li>
        ))}
      </ul>
    </div>
  )
}

/** Below everything: how to join as long as people may, and the timer. */
function Line({ session, stage, children }: { session: string; stage: FrontStage; children: ReactNode }) {
  const { t } = useTranslation()
  const invitation = useInvitation(session, stage.code)
  const joins = stage.show.kind !== 'gathering' && invitation
  return (
    <div className="flex min-h-[4cqh] items-center justify-end gap-[2cqh] bg-paper px-[2cqh] text-[3cqh]">
      {joins && (
        <p className="me-auto truncate text-slate">
          {t('front.joinAt', invitation)}{' '}
          <b className="font-display tracking-[0.1em] text-glow-deep">{invitation.code}</b>
        </p>
      )}
      {children}
    </div>
  )
}
