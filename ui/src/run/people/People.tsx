import { Check, Lock, MoreVertical } from 'lucide-react'
import { DropdownMenu } from 'radix-ui'
import { useState } from 'react'
import { useTranslation } from 'react-i18next'
import { Face } from '../../kit/people'
import { useNow } from '../../kit/useNow'
import { workKey, type Staff } from '../../wire/lesson'
import type { Person } from '../../wire/types.gen'
import { useCalmState } from '../../wire/useCalm'
import { useStaffLesson } from '../../wire/useStaff'
import { ago } from '../../words/words'
import { doingOf, doings, type Doing, type Done } from './doing'
import { onList } from './expected'
import { placeOf } from '../places'

/** How often the panel looks for what is new. */
const CALM_MS = 500

/** Who is new stands behind the others. */
const placeIn = (order: string[], id: string) => (order.includes(id) ? order.indexOf(id) : order.length)

const looks: Record<Doing, string> = {
  notBegun: 'bg-mist text-slate',
  stopped: 'bg-amber-soft text-amber',
  working: 'text-slate',
  gone: 'bg-mist text-slate',
  removed: 'bg-rose-soft text-rose',
}

type Props = { staff: Staff; onLook: (student: string, frame: string) => void }

/** The students, those first who may need the teacher next. */
export function People({ staff, onLook }: Props) {
  const { t } = useTranslation()
  const people = useCalmState((s) => s.people, CALM_MS)
  const removed = new Set(staff.state.removed)
  const locks = new Set(staff.state.locks.students)
  const done = useCalmState((s) => s.said.all?.done?.[staff.state.frame], CALM_MS)
  const work = useCalmState((s) => s.work, CALM_MS)
  const now = useNow(5000)
  /** The order as it was when the list was taken in hand. */
  const [held, hold] = useState<string[] | null>(null)
  const own = staff.state.pace === 'own'
  const numbers = new Map(staff.board.frames.map((f, i) => [f.id, i + 1]))
  const rows = [...people.values()]
    .map((person) => ({ ...person, removed: removed.has(person.id) }))
    .map((person) => {
      // Where students go by themselves, what they do on any frame counts.
      const on = own
        ? allOf([...numbers.keys()].flatMap((frame) => work.get(workKey(person.id, frame)) ?? []))
        : work.get(workKey(person.id, staff.state.frame))
      return { person, on, state: doingOf(person, on, now) }
    })
    .sort(
      (a, b) =>
        doings.indexOf(a.state) - doings.indexOf(b.state) ||
        a.person.name.localeCompare(b.person.name, undefined, { numeric: true }),
    )
  // No row moves under the finger, nor under the keyboard's focus.
  if (held) rows.sort((a, b) => placeIn(held, a.person.id) - placeIn(held, b.person.id))
  const takeInHand = () => hold((before) => before ?? rows.map((r) => r.person.id))
  const letGo = () => hold(null)
  const count = (...states: Doing[]) => rows.filter((r) => states.includes(r.state)).length
  const names = rows.map((r) => r.person.name)
  const missing = staff.expected.length - onList(staff.expected, names)
  return (
    <>
      <p className="-mt-1 text-[13px] text-slate">{t('run.peopleNote')}</p>
      {rows.length === 0 && <p className="rounded-lg bg-mist p-3 text-slate">{t('run.noOneYet')}</p>}
      <ul
        className="-mx-1 flex min-h-0 grow flex-col gap-0.5 overflow-auto"
        onPointerEnter={takeInHand}
        onPointerLeave={letGo}
        onFocus={takeInHand}
        onBlur={letGo}
      >
        {rows.map(({ person, on, state }) => (
          <li key={person.id} className="grid grid-cols-[auto_1fr_auto] items-center gap-2.5 rounded-lg px-1 py-1.5">
            <Face id={person.id} name={person.name} faded={state === 'gone'} />
            <span className="min-w-0">
              <button
                type="button"
                onClick={() => onLook(person.id, placeOf(staff.board, staff.state, person))}
                aria-label={t('run.lookInto', person)}
                className="block max-w-full truncate font-semibold underline-offset-4 hover:underline"
              >
                {person.name}
              </button>
              <span className="block truncate text-[13px] text-slate">
                {own && (
                  <span className="font-semibold text-dusk">
                    {t('run.onFrame', { n: numbers.get(placeOf(staff.board, staff.state, person)) })} ·{' '}
                  </span>
                )}
                {state === 'gone'
                  ? t('run.keepsWork')
                  : on && on.marks > 0
                    ? [t('run.amount', { count: on.marks }), !own && (ago(on.at, now) ?? t('run.lastNow'))]
                        .filter(Boolean)
                        .join(', ')
                    : t('run.nothingYet')}
              </span>
            </span>
            <span className="flex items-center gap-0.5">
              <span className={`rounded-md px-2 py-0.5 text-[13px] ${looks[state]}`}>{t(`run.${state}`)}</span>
              {done?.includes(person.id) && <Check size={17} className="text-fern" aria-label={t('voices.isDone')} />}
              {locks.has(person.id) && <Lock size={14} className="text-glow-deep" aria-label={t('lock.only')} />}
              <SeatMenu person={person} locked={locks.has(person.id)} />
            </span>
          </li>
        ))}
      </ul>
      {missing > 0 && <p className="text-[13px] text-slate">{t('run.missing', { count: missing })}</p>}
      <dl className="grid grid-cols-3 border-t border-line pt-2 text-center">
        {(
          [
            ['sumHere', count('notBegun', 'stopped', 'working')],
            ['sumBegun', count('working', 'stopped')],
            ['sumNot', count('notBegun')],
          ] as const
        ).map(([word, n]) => (
          <div key={word} className="flex flex-col-reverse">
            <dt className="text-[13px] text-slate">{t(`run.${word}`)}</dt>
            <dd className="font-display text-xl font-semibold tabular-nums">{n}</dd>
          </div>
        ))}
      </dl>
    </>
  )
}

/** What a teacher may do about somebody: let them only look, take their seat away, and give it back. */
function SeatMenu({ person, locked }: { person: Person; locked: boolean }) {
  const { t } = useTranslation()
  const lesson = useStaffLesson()
  const remove = !person.removed
  return (
    <DropdownMenu.Root modal={false}>
      <DropdownMenu.Trigger
        aria-label={t('door.more', person)}
        className="grid size-7 place-items-center rounded-md text-slate hover:bg-mist"
      >
        <MoreVertical size={16} aria-hidden="true" />
      </DropdownMenu.Trigger>
      <DropdownMenu.Content align="end" className="z-30 rounded-xl border border-line bg-paper p-1 shadow-lg">
        <DropdownMenu.Item
          className="cursor-default rounded-lg px-3 py-2 outline-none data-[highlighted]:bg-mist"
          onSelect={() => void lesson.give({ kind: 'lock', lock: { student: person.id, on: !locked } })}
        >
          {t(locked ? 'lock.letWork' : 'lock.student', person)}
        </DropdownMenu.Item>
        <DropdownMenu.Item
          className="cursor-default rounded-lg px-3 py-2 outline-none data-[highlighted]:bg-mist"
          onSelect={() => void lesson.give({ kind: 'board', board: { student: person.id } })}
        >
          {t('atBoard.call', person)}
        </DropdownMenu.Item>
        <DropdownMenu.Item
          className="cursor-default rounded-lg px-3 py-2 outline-none data-[highlighted]:bg-mist"
          onSelect={() => void lesson.give({ kind: 'seat', seat: { student: person.id, remove } })}
        >
          {t(remove ? 'door.take' : 'door.give', person)}
        </DropdownMenu.Item>
      </DropdownMenu.Content>
    </DropdownMenu.Root>
  )
}

const allOf = (work: Done[]): Done => ({
  marks: work.reduce((sum, w) => sum + w.marks, 0),
  at: Math.max(0, ...work.map((w) => w.at)),
})
