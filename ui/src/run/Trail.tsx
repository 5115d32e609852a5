import { User, Users } from 'lucide-react'
import { useTranslation } from 'react-i18next'
import type { Staff } from '../wire/lesson'
import { useLesson, useLessonState } from '../wire/useLesson'

const rise = (i: number) => [10, 2, 13, 0, 9, 4][i % 6]!

/** The board as a way with stations. Each shows how many students have something on it; one tap leads everybody there. */
export function Trail({ staff }: { staff: Staff }) {
  const { t } = useTranslation()
  const lesson = useLesson()
  const work = useLessonState((s) => s.work)
  const people = useLessonState((s) => s.people)
  const { frames } = staff.board
  const at = frames.findIndex((f) => f.id === staff.state.frame)
  const count = (frame: string) =>
    [...work.values()].filter((w) => w.frame === frame && w.marks > 0 && people.has(w.author)).length
  return (
    <nav
      aria-label={t('run.trail')}
      data-part="trail"
      className="border-b border-line bg-linear-to-b from-paper to-snow px-4 pt-2 pb-2"
    >
      <ol className="flex overflow-x-auto">
        {frames.map((frame, i) => {
          const done = count(frame.id)
          const all = people.size
          const share = all ? done / all : 0
          const on = i === at
          const arrangement = staff.state.set?.[frame.id]?.arrangement ?? frame.arrangement
          const Sign = arrangement === 'individual' ? User : Users
          const next = frames[i + 1] ? rise(i + 1) : null
          return (
            <li key={frame.id} className="relative min-w-36 grow basis-0">
              {next !== null && (
                <svg
                  aria-hidden="true"
                  className="absolute start-1/2 top-0 h-12 w-full overflow-visible"
                  viewBox="0 0 100 48"
                  preserveAspectRatio="none"
                >
                  <line
                    x1="0"
                    y1={rise(i) + 19}
                    x2="100"
                    y2={next + 19}
                    vectorEffect="non-scaling-stroke"
                    className={i < at ? 'stroke-glow' : 'stroke-edge'}
                    strokeWidth={i < at ? 3 : 2}
                  />
                </svg>
              )}
              <button
                type="button"
                aria-current={on ? 'step' : undefined}
                aria-label={`${t('run.station', { n: i + 1, title: frame.title, arrangement: t(`run.${arrangement}`), count: done, all })} ${on ? '' : t('run.goTo', { n: i + 1, title: frame.title })}`}
                onClick={() => void lesson.command({ kind: 'go', go: { frame: frame.id } }).catch(() => undefined)}
                className="relative flex w-full underline-offset-4 flex-col items-center rounded-lg px-1 hover:underline"
                style={{ paddingTop: rise(i) }}
              >
                <svg aria-hidden="true" width="40" height="40" viewBox="0 0 40 40">
                  <circle
                    cx="20"
                    cy="20"
                    r="16"
                    className={`${on ? 'fill-glow stroke-dawn' : 'fill-paper stroke-line'}`}
                    strokeWidth="4.5"
                  />
                  {share > 0 && (
                    <circle
                      cx="20"
                      cy="20"
                      r="16"
                      pathLength="1"
                      strokeDasharray={`${share} 1`}
                      transform="rotate(-90 20 20)"
                      className="fill-none stroke-fern"
                      strokeWidth="4.5"
                    />
                  )}
                  <text
                    x="20"
                    y="25.5"
                    textAnchor="middle"
                    className={`text-[15px] font-bold ${on ? 'fill-paper' : 'fill-night'}`}
                  >
                    {i + 1}
                  </text>
                </svg>
                <span
                  className={`mt-0.5 flex max-w-full items-center gap-1.5 text-sm ${on ? 'font-bold' : 'text-slate'}`}
                >
                  <Sign size={14} className="shrink-0" aria-hidden="true" />
                  <span className="truncate">{frame.title}</span>
                  <span className="shrink-0 text-slate tabular-nums">{`${done}/${all}`}</span>
                </span>
              </button>
            </li>
          )
        })}
      </ol>
    </nav>
  )
}
