import { Check, Clock, Eye, Lock, MoreVertical, UserRoundX } from 'lucide-react'
import { DropdownMenu } from 'radix-ui'
import { memo, useState } from 'react'
import { useTranslation } from 'react-i18next'
import { Face } from '../../kit/people'
import { useStaffLesson } from '../../wire/useStaff'
import type { StudentState } from '../../wire/types.gen'

const looks: Record<StudentState, string> = {
  notBegun: 'bg-mist text-slate',
  atWork: 'text-slate',
  quiet: 'bg-amber-soft text-amber',
  done: 'text-fern',
  help: 'bg-dusk-soft text-dusk font-semibold',
  away: 'bg-mist text-slate',
  gone: 'bg-mist text-slate',
  removed: 'bg-rose-soft text-rose',
}

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
}: Props) {
  const { t } = useTranslation()
  return (
    <li className="grid grid-cols-[auto_1fr_auto] items-center gap-2.5 rounded-lg px-1 py-1.5 [contain-intrinsic-size:auto_3.5rem] [content-visibility:auto]">
      <Face id={id} name={name} faded={state === 'gone'} />
      <span className="min-w-0">
        <button
          type="button"
          onClick={() => onLook(id)}
          aria-label={t('run.lookInto', { name })}
          className="block max-w-full truncate font-semibold underline-offset-4 hover:underline"
        >
          {name}
          {student === '' && (
            <UserRoundX size={14} className="ms-1 inline text-amber" aria-label={t('whoIs.unknown')} />
          )}
        </button>
        <span className="block truncate text-[13px] text-slate">
          {on && <span className="font-semibold text-dusk">{t('run.onFrame', { n: on })} · </span>}
          <span key={why} className={`news ${pressing ? 'text-night' : ''}`}>
            {why || said || t('run.nothingYet')}
          </span>
          {why && said && <span> · {said}</span>}
        </span>
      </span>
      <span className="flex items-center gap-0.5">
        <span className={`rounded-md px-2 py-0.5 text-[13px] ${looks[state]}`}>{t(`states.${state}`)}</span>
        {seen && <Eye size={15} className="text-slate" aria-label={t('next.seen')} />}
        {done && <Check size={17} className="text-fern" aria-label={t('voices.isDone')} />}
        {held && <Clock size={14} className="text-amber" aria-label={t('hold.waits')} />}
        {locked && <Lock size={14} className="text-glow-deep" aria-label={t('lock.only')} />}
        <SeatButton {...{ id, name, removed: state === 'removed', locked, held, student, onWho }} />
      </span>
    </li>
  )
})

type SeatProps = Pick<Props, 'id' | 'name' | 'locked' | 'held' | 'student' | 'onWho'> & { removed: boolean }

const more = 'grid size-7 place-items-center rounded-md text-slate hover:bg-mist'

/** The button of the menu; the menu itself is there when it is wanted. */
function SeatButton(props: SeatProps) {
  const { t } = useTranslation()
  const [wanted, setWanted] = useState(false)
  if (wanted) return <SeatMenu {...props} />
  return (
    <button
      type="button"
      aria-haspopup="menu"
      aria-label={t('door.more', { name: props.name })}
      className={more}
      onClick={() => setWanted(true)}
    >
      <MoreVertical size={16} aria-hidden="true" />
    </button>
  )
}

/** What a teacher may do about somebody: let them only look, take their seat away, and give it back. */
function SeatMenu({ id, name, removed, locked, held, student, onWho }: SeatProps) {
  const { t } = useTranslation()
  const lesson = useStaffLesson()
  const item = 'cursor-default rounded-lg px-3 py-2 outline-none data-[highlighted]:bg-mist'
  return (
    <DropdownMenu.Root modal={false} defaultOpen>
      <DropdownMenu.Trigger aria-label={t('door.more', { name })} className={more}>
        <MoreVertical size={16} aria-hidden="true" />
      </DropdownMenu.Trigger>
      {/* Outside of the row: what a row contains is clipped to it. */}
      <DropdownMenu.Portal>
        <DropdownMenu.Content align="end" className="z-30 rounded-xl border border-line bg-paper p-1 shadow-lg">
          <DropdownMenu.Item
            className={item}
            onSelect={() => void lesson.give({ kind: 'lock', lock: { student: id, on: !locked } })}
          >
            {t(locked ? 'lock.letWork' : 'lock.student', { name })}
          </DropdownMenu.Item>
          <DropdownMenu.Item
            className={item}
            onSelect={() => void lesson.give({ kind: 'board', board: { student: id } })}
          >
            {t('atBoard.call', { name })}
          </DropdownMenu.Item>
          <DropdownMenu.Item
            className={item}
            onSelect={() => void lesson.give({ kind: 'hold', hold: { student: id, on: !held } })}
          >
            {t(held ? 'hold.letGo' : 'hold.student', { name })}
          </DropdownMenu.Item>
          {student !== undefined && (
            <DropdownMenu.Item className={item} onSelect={() => onWho(id)}>
              {t('whoIs.open', { name })}
            </DropdownMenu.Item>
          )}
          <DropdownMenu.Item
            className={item}
            onSelect={() => void lesson.give({ kind: 'seat', seat: { student: id, remove: !removed } })}
          >
            {t(removed ? 'door.give' : 'door.take', { name })}
          </DropdownMenu.Item>
        </DropdownMenu.Content>
      </DropdownMenu.Portal>
    </DropdownMenu.Root>
  )
}
