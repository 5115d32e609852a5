import { useTranslation } from 'react-i18next'
import { PollCard } from '../polls/PollCard'
import type { Element, FrontStage, Lane } from '../wire/types.gen'

/** Questions in a row, in front: the one that is asked, or how far the class has come. */
export function FrontSet({ stage }: { stage: FrontStage }) {
  const { t } = useTranslation()
  const { frame, polls, set } = stage
  const asked = frame.prepared.filter((m): m is Element & { kind: 'poll' } => m.kind === 'poll')
  const now = frame.set?.ownPace ? undefined : (asked.find((p) => polls[p.id]?.phase === 'open') ?? asked.at(-1))
  const state = now && polls[now.id]
  const given = set?.given ?? 0
  const all = (set?.of ?? 0) * (set?.asked.length ?? 0)
  return (
    <div className="flex size-full flex-col gap-[3cqh] p-[4cqh]" data-part="front-set">
      <header>
        <h2 dir="auto" className="font-display text-[6cqh] leading-tight font-semibold">
          {frame.title}
        </h2>
        {frame.prompt && (
          <p dir="auto" className="text-[3.4cqh] text-slate">
            {frame.prompt}
          </p>
        )}
      </header>
      {now && state ? (
        <>
          <div inert className="min-h-0 grow overflow-hidden">
            <PollCard mark={now} phase={state.phase} round={state.round} letters="4.6cqh" />
          </div>
          {set && (
            <p className="text-[4cqh] font-semibold tabular-nums">
              {t('poll.answered', { count: set.now, all: set.of })}
            </p>
          )}
        </>
      ) : (
        <div className="flex min-h-0 grow flex-col justify-center gap-[4cqh]">
          <p className="text-center font-display text-[8cqh] leading-none font-semibold tabular-nums">
            {t('front.given', { count: given, all })}
          </p>
          {set?.lanes || set?.dots ? (
            <Race lanes={set.lanes} dots={set.dots} stops={asked.length} />
          ) : (
            <Way share={all > 0 ? given / all : 0} />
          )}
        </div>
      )}
    </div>
  )
}

/** How far all have come together. */
function Way({ share }: { share: number }) {
  return (
    <div aria-hidden="true" className="mx-auto h-[5cqh] w-4/5 overflow-hidden rounded-full bg-mist">
      <div
        className="h-full rounded-full bg-glow transition-[width] duration-500 motion-reduce:transition-none"
        style={{ width: `${100 * share}%` }}
      />
    </div>
  )
}

/** Boats on their way over the water to the light: one for each group, or one for each student without a name. */
function Race({ lanes, dots = [], stops }: { lanes?: Lane[]; dots?: number[]; stops: number }) {
  const { t } = useTranslation()
  if (!lanes) return <Fleet dots={dots} stops={stops} />
  // However many groups there are, all are seen.
  const high = Math.min(7, 50 / lanes.length - 1.2)
  return (
    <ul className="mx-auto flex w-[88%] flex-col gap-[1.2cqh]" aria-label={t('front.race')}>
      {lanes.map((lane) => (
        <li key={lane.group} className="flex items-center gap-[2cqw]">
          <span className="w-[14cqw] shrink-0 font-semibold" style={{ fontSize: `${Math.min(3.4, high)}cqh` }}>
            {t('front.group', { n: lane.group })}
          </span>
          <span className="relative grow rounded-[2cqh] bg-dusk-soft" style={{ height: `${high}cqh` }}>
            <Light />
            <span
              aria-hidden="true"
              className="absolute top-[14%] h-[72%] w-[4.2cqh] transition-[inset-inline-start] duration-700 motion-reduce:transition-none"
              style={{ insetInlineStart: `calc(${lane.share} * (100% - 6cqh) + .5cqh)` }}
            >
              <Boat />
            </span>
            <span className="sr-only">{t('front.laneAt', { percent: Math.round(100 * lane.share) })}</span>
          </span>
        </li>
      ))}
    </ul>
  )
}

/** All boats on one water: those that are as far lie beside each other, and nobody learns whose is which. */
function Fleet({ dots, stops }: { dots: number[]; stops: number }) {
  const { t } = useTranslation()
  const at = Array.from({ length: stops + 1 }, (_, i) => dots.filter((d) => Math.round(d * stops) === i).length)
  // So large that the most that lie in one place fit there.
  const size = Math.min(7, Math.sqrt((150 / (stops + 1)) * (36 / Math.max(1, ...at))) * 0.9)
  return (
    <ol
      aria-label={t('front.race')}
      className="relative mx-auto flex h-[40cqh] w-[88%] items-stretch overflow-hidden rounded-[2cqh] bg-dusk-soft pe-[1.5cqw]"
    >
      <Light />
      {at.map((count, i) => (
        <li key={i} className="flex min-w-0 grow basis-0 flex-wrap content-center justify-center">
          <span className="sr-only">{t('front.boats', { count, done: i })}</span>
          {Array.from({ length: count }, (_, n) => (
            <span
              key={n}
              aria-hidden="true"
              className="p-[.3cqh]"
              style={{ height: `${size}cqh`, width: `${size}cqh` }}
            >
              <Boat />
            </span>
          ))}
        </li>
      ))}
    </ol>
  )
}

/** Where the way ends. */
const Light = () => <span aria-hidden="true" className="absolute inset-y-0 end-0 w-[1cqw] bg-glow" />

/** A small boat under sail. */
function Boat() {
  return (
    <svg viewBox="0 0 36 44" className="size-full">
      <path d="M17 3 v28 h-13 z" className="fill-paper stroke-dusk" strokeWidth="2" strokeLinejoin="round" />
      <path d="M20 9 l11 22 h-11 z" className="fill-glow-soft stroke-dusk" strokeWidth="2" strokeLinejoin="round" />
      <path d="M2 34 h32 l-6 8 h-20 z" className="fill-dusk" />
    </svg>
  )
}
