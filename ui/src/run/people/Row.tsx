import { Check, Clock, Eye, Lock, UserRoundX } from 'lucide-react'
import { memo } from 'react'
import { useTranslation } from 'react-i18next'
import { Face } from '../../kit/people'
import type { StudentState } from '../../wire/types.gen'
import { SeatButton } from './SeatMenu'

/** How a reason looks that the teacher has not looked at yet. */
const looks: Record<StudentState, string> = {
  notBegun: 'font-semibold text-night',
  atWork: 'font-semibold text-night',
  quiet: 'font-semibold text-amber',
  done: 'text-fern',
  help: 'font-semibold text-dusk',
  away: 'font-semibold text-night',
  gone: '',
  removed: '',
}

/** The states that are worth a word beside a reason. */
const told: ReadonlySet<StudentState> = new Set(['away', 'done'])

type Props = {
  id: string
  name: string
  state: StudentState
  /** At own pace, the number of the frame that they are on. */
  on?: number
  /** Why they may need the teacher, in words; whether that is new; whether the teacher has looked since. */
  why: string
  pressing: boolean
  seen: boolean
  /** How much they have done, in words. */
  said: string
  done: boolean
  locked: boolean
  /** What they write waits for a yes. */
  held: boolean
  /** Which student of the class they are; undefined where there is no class list, '' where it is not known. */
  student?: string
  onLook: (student: string) => void
  onWho: (student: string) => void
  onRename: (student: string) => void
}

/** One student. There may be three hundred: a row is painted anew only when something of it has changed. */
export const Row = memo(function Row({
  id,
  name,
  state,
  on,
  why,
  pressing,
  seen,
  said,
  done,
  locked,
  held,
  student,
  onLook,
  onWho,
  onRename,
}: Props) {
  const { t } = useTranslation()
  return (
    <li className="grid grid-cols-[auto_1fr_auto] items-center gap-2.5 rounded-lg px-1 py-1.5 [contain-intrinsic-size:auto_3.5rem] [content-visibility:auto]">
      <Face id={id} name={name} faded={state === 'gone'} />
      <span className="min-w-0">
        <span className="flex items-center gap-1">
          <button
            type="button"
            onClick={() => onLook(id)}
            aria-label={t('run.lookInto', { name })}
            className="max-w-full truncate font-semibold underline-offset-4 hover:underline"
          >
            {name}
          </button>
          {student === '' && <UserRoundX size={14} className="shrink-0 text-amber" aria-label={t('whoIs.unknown')} />}
          {done && <Check size={16} className="shrink-0 text-fern" aria-label={t('voices.isDone')} />}
          {seen && <Eye size={15} className="shrink-0 text-slate" aria-label={t('next.seen')} />}
          {held && <Clock size={14} className="shrink-0 text-amber" aria-label={t('hold.waits')} />}
          {locked && <Lock size={14} className="shrink-0 text-glow-deep" aria-label={t('lock.only')} />}
        </span>
        <span className="block text-[13px] leading-snug text-slate">
          {on && <span className="font-semibold text-dusk">{t('run.onFrame', { n: on })} · </span>}
          <span key={`${state} ${why}`} className={`news rounded-sm ${pressing ? looks[state] : ''}`}>
            {why || t(`states.${state}`)}
          </span>
          {why && told.has(state) && <span> · {t(`states.${state}`)}</span>}
          {said && <span> · {said}</span>}
        </span>
      </span>
      <SeatButton {...{ id, name, removed: state === 'removed', locked, held, student, onWho, onRename }} />
    </li>
  )
})
