import { memo, useState } from 'react'
import { useTranslation } from 'react-i18next'
import { useNow } from '../../kit/hooks/useNow'
import { workKey, type Staff } from '../../wire/lesson'
import { useCalmState } from '../../wire/useCalm'
import { ago } from '../../words/words'
import { doingOf, doings, type Doing, type Done } from './doing'
import { onList } from './expected'
import { WhoIs } from '../../kit/windows/WhoIs'
import { useLesson } from '../../wire/useLesson'
import { Row } from './Row'
import { placeOf } from '../places'

/** How often the panel looks for what is new. */
const CALM_MS = 500

const byName = new Intl.Collator(undefined, { numeric: true })

/** Who is new stands behind the others. */
const placeIn = (order: string[], id: string) => (order.includes(id) ? order.indexOf(id) : order.length)

type Props = { staff: Staff; onLook: (student: string) => void }

/** The students, those first who may need the teacher next. */
export const People = memo(function People({ staff, onLook: look }: Props) {
  const { t } = useTranslation()
  const lesson = useLesson()
  const people = useCalmState((s) => s.people, CALM_MS)
  const removed = new Set(staff.state.removed)
  const locks = new Set(staff.state.locks.students)
  const done = useCalmState((s) => s.said.all?.done?.[staff.state.frame], CALM_MS)
  const work = useCalmState((s) => s.work, CALM_MS)
  const finished = new Set(done)
  const now = useNow(5000)
  /** The order as it was when the list was taken in hand. */
  const [held, hold] = useState<string[] | null>(null)
  /** Of whom is asked which student they are. */
  const [who, askWho] = useState<string | null>(null)
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
    .sort((a, b) => doings.indexOf(a.state) - doings.indexOf(b.state) || byName.compare(a.person.name, b.person.name))
  // No row moves under the finger, nor under the keyboard's focus.
  if (held) rows.sort((a, b) => placeIn(held, a.person.id) - placeIn(held, b.person.id))
  const takeInHand = () => hold((before) => before ?? rows.map((r) => r.person.id))
  const letGo = () => hold(null)
  const count = (...states: Doing[]) => rows.filter((r) => states.includes(r.state)).length
  const missing =
    staff.expected.length -
    onList(
      staff.expected,
      rows.map((r) => r.person),
    )
  const asked = who === null ? undefined : people.get(who)
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
          <Row
            key={person.id}
            id={person.id}
            name={person.name}
            state={state}
            removed={person.removed}
            on={own ? numbers.get(placeOf(staff.board, staff.state, person)) : undefined}
            said={
              state === 'gone'
                ? t('run.keepsWork')
                : on && on.marks > 0
                  ? [t('run.amount', { count: on.marks }), !own && (ago(on.at, now) ?? t('run.lastNow'))]
                      .filter(Boolean)
                      .join(', ')
                  : t('run.nothingYet')
            }
            done={finished.has(person.id)}
            locked={locks.has(person.id)}
            student={staff.expected.length > 0 ? (person.student ?? '') : undefined}
            onLook={look}
            onWho={askWho}
          />
        ))}
      </ul>
      {asked && (
        <WhoIs
          session={lesson.session}
          id={asked.id}
          name={asked.name}
          student={asked.student ?? ''}
          onClose={() => askWho(null)}
        />
      )}
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
})

const allOf = (work: Done[]): Done => ({
  marks: work.reduce((sum, w) => sum + w.marks, 0),
  at: Math.max(0, ...work.map((w) => w.at)),
})
