import { memo, useState } from 'react'
import { useTranslation } from 'react-i18next'
import { useNow } from '../../kit/hooks/useNow'
import { workKey, type Staff } from '../../wire/lesson'
import { useCalmState } from '../../wire/hooks/useCalm'
import type { Locks, StudentState } from '../../wire/types.gen'
import { whyInWords } from './why'
import { onList } from './expected'
import { WhoIs } from '../../kit/windows/WhoIs'
import { useLesson } from '../../wire/hooks/useLesson'
import { Rename } from './Rename'
import { Row } from './Row'

/** How often the panel looks for what is new. */
const CALM_MS = 500

/** Who may only look, also those for a while; by this device's clock, which nothing depends on. */
const lockedNow = ({ students = [], until = {} }: Locks, now: number) =>
  new Set([...students, ...Object.keys(until).filter((id) => until[id]! > now)])

/** Who is new stands behind the others. */
const placeIn = (order: string[], id: string) => (order.includes(id) ? order.indexOf(id) : order.length)

type Props = { staff: Staff; onLook: (student: string) => void }

/** The students, those first who may need the teacher next. */
export const People = memo(function People({ staff, onLook: look }: Props) {
  const { t } = useTranslation()
  const lesson = useLesson()
  const people = useCalmState((s) => s.people, CALM_MS)
  const locks = lockedNow(staff.state.locks, useNow(5000))
  const done = useCalmState((s) => s.said.all?.done?.[staff.state.frame], CALM_MS)
  const next = useCalmState((s) => s.next, CALM_MS)
  const work = useCalmState((s) => s.work, CALM_MS)
  const finished = new Set(done)
  const now = useNow(5000)
  /** The order as it was when the list was taken in hand. */
  const [held, hold] = useState<string[] | null>(null)
  /** Of whom is asked which student they are. */
  const [who, askWho] = useState<string | null>(null)
  const [renaming, rename] = useState<string | null>(null)
  const own = staff.state.pace === 'own'
  const numbers = new Map(staff.board.frames.map((f, i) => [f.id, i + 1]))
  const rows = next.flatMap((row) => {
    const person = people.get(row.student)
    return person ? [{ person, row, on: work.get(workKey(row.student, row.frame)) }] : []
  })
  // No row moves under the finger, nor under the keyboard's focus.
  if (held) rows.sort((a, b) => placeIn(held, a.person.id) - placeIn(held, b.person.id))
  const takeInHand = () => hold((before) => before ?? rows.map((r) => r.person.id))
  const letGo = () => hold(null)
  const count = (...states: StudentState[]) => rows.filter((r) => states.includes(r.row.state)).length
  const missing =
    staff.expected.length -
    onList(
      staff.expected,
      rows.map((r) => r.person),
    )
  const asked = who === null ? undefined : people.get(who)
  const named = renaming === null ? undefined : people.get(renaming)
  return (
    <>
      <p className="-mt-1 text-[13px] text-slate">{t('run.peopleNote')}</p>
      {rows.length === 0 && <p className="rounded-lg bg-mist p-3 text-slate">{t('run.noOneYet')}</p>}
      {/* oxlint-disable-next-line jsx-a11y/no-noninteractive-element-interactions -- rows stay still here */}
      <ul
        className="-mx-1 flex min-h-0 grow flex-col gap-0.5 overflow-auto"
        onPointerEnter={takeInHand}
        onPointerLeave={letGo}
        onFocus={takeInHand}
        onBlur={letGo}
      >
        {rows.map(({ person, row, on }) => (
          <Row
            key={person.id}
            id={person.id}
            name={person.name}
            state={row.state}
            on={own ? numbers.get(row.frame) : undefined}
            why={whyInWords(t, row, now)}
            pressing={row.why === 'help' || (row.why !== 'none' && row.why !== 'unseen' && !row.seen)}
            seen={row.seen ?? false}
            said={on && on.marks > 0 ? t('run.amount', { count: on.marks }) : ''}
            done={finished.has(person.id)}
            locked={locks.has(person.id)}
            held={staff.state.holds.students?.includes(person.id) ?? false}
            student={staff.expected.length > 0 ? (person.student ?? '') : undefined}
            onLook={look}
            onWho={askWho}
            onRename={rename}
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
      {named && <Rename key={named.id} id={named.id} name={named.name} onClose={() => rename(null)} />}
      {missing > 0 && <p className="text-[13px] text-slate">{t('run.missing', { count: missing })}</p>}
      <dl className="grid grid-cols-3 border-t border-line pt-2 text-center">
        {(
          [
            ['sumHere', count('notBegun', 'atWork', 'quiet', 'done', 'help', 'away')],
            ['sumBegun', count('atWork', 'quiet', 'done')],
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
