import { Lock } from 'lucide-react'
import { useTranslation } from 'react-i18next'
import { arrangementSign } from '../../kit/arrangement'
import { hueOf } from '../../kit/people'
import type { Staff } from '../../wire/lesson'
import type { Frame, Person } from '../../wire/types.gen'
import { useCalmState } from '../../wire/hooks/useCalm'
import { useStaffLesson } from '../../wire/hooks/useStaff'
import { ChangeMenu } from './ChangeMenu'
import { PaceMenu } from './PaceMenu'
import { openFrames, placeOf } from '../places'

/** How often the trail looks for what is new. */
const CALM_MS = 300

const rise = (i: number) => [10, 2, 13, 0, 9, 4][i % 6]!

/**
 * The board as a way with stations. Each shows how many students have something
 * on it, and at own pace who is there. One tap leads everybody there, or at own
 * pace shows the frame to the teacher.
 */
export function Trail({ staff }: { staff: Staff }) {
  const { t } = useTranslation()
  const lesson = useStaffLesson()
  const work = useCalmState((s) => s.work, CALM_MS)
  const people = useCalmState((s) => s.people, CALM_MS)
  const { board, state } = staff
  const at = board.frames.findIndex((f) => f.id === state.frame)
  const own = state.pace === 'own'
  const open = openFrames(board, state)
  const there = new Map(board.frames.map((f) => [f.id, [] as Person[]]))
  if (own) for (const person of people.values()) there.get(placeOf(board, state, person))?.push(person)
  const count = (frame: string) =>
    [...work.values()].filter((w) => w.frame === frame && w.marks > 0 && people.has(w.author)).length
  return (
    <nav
      aria-label={t('run.trail')}
      data-part="trail"
      className="flex gap-3 border-b border-line bg-linear-to-b from-paper to-snow px-4 pt-2 pb-2"
    >
      <PaceMenu staff={staff} />
      <ol className="flex min-w-0 grow overflow-x-auto">
        {board.frames.map((frame, i) => (
          <Station
            key={frame.id}
            frame={frame}
            i={i}
            on={i === at}
            walked={i < at && !own}
            last={i === board.frames.length - 1}
            done={count(frame.id)}
            all={people.size}
            there={own ? there.get(frame.id)! : null}
            closed={own && !open.includes(frame.id)}
            onGo={() => void lesson.give({ kind: 'go', go: { frame: frame.id } })}
          />
        ))}
      </ol>
      <ChangeMenu staff={staff} />
    </nav>
  )
}

type StationProps = {
  frame: Frame
  /** Its place, from 0. */
  i: number
  on: boolean
  walked: boolean
  last: boolean
  /** How many of all students have something on it. */
  done: number
  all: number
  /** At own pace, who is there. */
  there: Person[] | null
  /** At own pace, that students cannot go there yet. */
  closed: boolean
  onGo: () => void
}

function Station({ frame, i, on, walked, last, done, all, there, closed, onGo }: StationProps) {
  const { t } = useTranslation()
  const named = { n: i + 1, title: frame.title }
  const share = all ? done / all : 0
  const Sign = closed ? Lock : arrangementSign[frame.arrangement]
  const label = [
    t('run.station', { ...named, arrangement: t(`run.${frame.arrangement}`), count: done, all }),
    there && t('run.atStation', { count: there.length }),
    closed && t('run.notOpen'),
    !on && t(there ? 'run.lookAt' : 'run.goTo', named),
  ]
  return (
    <li className="relative min-w-36 grow basis-0">
      {!last && (
        <svg
          aria-hidden="true"
          className="absolute start-1/2 top-0 h-12 w-full overflow-visible rtl:-scale-x-100"
          viewBox="0 0 100 48"
          preserveAspectRatio="none"
        >
          <line
            x1="0"
            y1={rise(i) + 19}
            x2="100"
            y2={rise(i + 1) + 19}
            vectorEffect="non-scaling-stroke"
            className={walked ? 'stroke-glow' : 'stroke-edge'}
            strokeWidth={walked ? 3 : 2}
          />
        </svg>
      )}
      <button
        type="button"
        aria-current={on ? 'step' : undefined}
        aria-label={label.filter(Boolean).join(' ')}
        onClick={onGo}
        className="relative flex w-full flex-col items-center rounded-lg px-1 underline-offset-4 hover:underline"
        style={{ paddingTop: rise(i) }}
      >
        <svg aria-hidden="true" width="40" height="40" viewBox="0 0 40 40">
          <circle
            cx="20"
            cy="20"
            r="16"
            className={on ? 'fill-glow stroke-dawn' : closed ? 'fill-mist stroke-line' : 'fill-paper stroke-line'}
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
        <span className={`mt-0.5 flex max-w-full items-center gap-1.5 text-sm ${on ? 'font-bold' : 'text-slate'}`}>
          <Sign size={14} className="shrink-0" aria-hidden="true" />
          <span className="truncate">{frame.title}</span>
          <span className="shrink-0 text-slate tabular-nums">{`${done}/${all}`}</span>
        </span>
        {there && <There people={there} />}
      </button>
    </li>
  )
}

/** How many dots stand at a station before the rest is a number. */
const DOTS = 9

/** The students who are at a station. */
function There({ people }: { people: Person[] }) {
  return (
    <span
      aria-hidden="true"
      title={people.map((p) => p.name).join(', ')}
      className="mt-1 flex h-3.5 items-center justify-center gap-[3px]"
    >
      {people.slice(0, DOTS).map((p) => (
        <span key={p.id} className={`size-2.5 rounded-full ${p.here ? hueOf(p.id) : 'border border-edge bg-paper'}`} />
      ))}
      {people.length > DOTS && <span className="text-xs text-slate tabular-nums">+{people.length - DOTS}</span>}
    </span>
  )
}
