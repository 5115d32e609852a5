import { Shuffle } from 'lucide-react'
import { useState } from 'react'
import { useTranslation } from 'react-i18next'
import { arrangementSign } from '../../kit/arrangement'
import { Button } from '../../kit/Button'
import { Dialog } from '../../kit/windows/Dialog'
import { Face } from '../../kit/people'
import type { Staff } from '../../wire/lesson'
import type { Command, Person, SetGroups } from '../../wire/types.gen'
import { useLessonState } from '../../wire/hooks/useLesson'
import { useStaffLesson } from '../../wire/hooks/useStaff'

const SIZES = [2, 3, 4, 5, 6, 7, 8]
const USUAL = 4
const Sign = arrangementSign.groups

/** Who is in which group, and a place to mix them anew or to move one student. */
export function GroupsButton({ staff }: { staff: Staff }) {
  const { t } = useTranslation()
  const lesson = useStaffLesson()
  const people = useLessonState((s) => s.people)
  const [open, setOpen] = useState(false)
  const groups = staff.state.groups ?? []
  const [size, setSize] = useState<number | null>(null)
  /** By what they are made: chance, seats, or groups kept for the class. */
  const [by, setBy] = useState('')
  const now = size ?? staff.state.groupSize ?? USUAL
  const command = (c: Command) => void lesson.give(c)
  const rows: Array<{ number: number; members: Person[] }> = groups.map((members, i) => ({
    number: i + 1,
    members: members.flatMap((id) => people.get(id) ?? []).sort(byName),
  }))
  const seated = new Set(groups.flat())
  const without = [...people.values()].filter((p) => !seated.has(p.id)).sort(byName)
  return (
    <>
      <button
        type="button"
        onClick={() => setOpen(true)}
        className="inline-flex items-center gap-1.5 rounded-lg px-2 py-1 hover:bg-mist hover:text-night"
      >
        <Sign size={15} aria-hidden="true" />
        {t('groups.open')}
      </button>
      <Dialog wide open={open} onOpenChange={setOpen} title={t('groups.title')} text={t('groups.text')}>
        <form
          className="mb-4 flex flex-wrap items-center gap-3"
          onSubmit={(e) => {
            e.preventDefault()
            command({ kind: 'groups', groups: { size: now, ...ways(by) } })
          }}
        >
          {(staff.seats || (staff.sets ?? []).length > 0) && (
            <label className="flex items-center gap-2">
              {t('groups.by')}
              <select
                className="rounded-lg border border-edge bg-paper px-2 py-1.5"
                value={by}
                onChange={(e) => setBy(e.target.value)}
              >
                <option value="">{t('groups.byChance')}</option>
                {staff.seats && <option value="seats">{t('groups.bySeats')}</option>}
                {staff.sets?.map((s) => (
                  <option key={s.id} value={`set ${s.id}`}>
                    {s.name}
                  </option>
                ))}
              </select>
            </label>
          )}
          <label className="flex items-center gap-2">
            {t('groups.size')}
            <select
              className="rounded-lg border border-edge bg-paper px-2 py-1.5"
              value={now}
              onChange={(e) => setSize(Number(e.target.value))}
            >
              {SIZES.map((n) => (
                <option key={n} value={n}>
                  {n}
                </option>
              ))}
            </select>
          </label>
          <Button type="submit">
            <Shuffle size={17} aria-hidden="true" />
            {t(groups.length > 0 ? 'groups.again' : 'groups.make')}
          </Button>
        </form>
        <ul className="grid grid-cols-[repeat(auto-fill,minmax(15rem,1fr))] items-start gap-3">
          {[...rows, { number: 0, members: without }].map(
            ({ number, members }) =>
              (number > 0 || members.length > 0) && (
                <li key={number} className={`rounded-xl border border-line p-3 ${number ? 'bg-snow' : 'bg-mist'}`}>
                  <h3 className="mb-1 font-display font-semibold">
                    {number ? t('groups.name', { n: number }) : t('groups.without')}
                  </h3>
                  {members.length === 0 && <p className="text-sm text-slate">{t('groups.empty')}</p>}
                  <ul>
                    {members.map((p) => (
                      <li key={p.id} className="flex items-center gap-2 py-0.5">
                        <Face id={p.id} name={p.name} faded={!p.here} />
                        <span className="min-w-0 grow truncate">{p.name}</span>
                        <select
                          aria-label={t('groups.move', { name: p.name })}
                          className="rounded-md border border-edge bg-paper px-1 py-0.5 text-sm"
                          value={number}
                          onChange={(e) =>
                            command({ kind: 'assign', assign: { student: p.id, group: Number(e.target.value) } })
                          }
                        >
                          {number === 0 && <option value={0}>{t('groups.none')}</option>}
                          {rows.map((r) => (
                            <option key={r.number} value={r.number}>
                              {t('groups.name', { n: r.number })}
                            </option>
                          ))}
                          <option value={rows.length + 1}>{t('groups.new')}</option>
                        </select>
                      </li>
                    ))}
                  </ul>
                </li>
              ),
          )}
        </ul>
        {people.size === 0 && <p className="text-slate">{t('groups.noOne')}</p>}
      </Dialog>
    </>
  )
}

/** What was chosen, as it is told. */
function ways(by: string): Pick<SetGroups, 'by' | 'set'> {
  if (by === 'seats') return { by }
  return by ? { by: 'set', set: by.slice('set '.length) } : {}
}

const byName = (a: Person, b: Person) => a.name.localeCompare(b.name, undefined, { numeric: true })
