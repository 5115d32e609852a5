import { Plus, Trash2 } from 'lucide-react'
import { useState } from 'react'
import { useTranslation } from 'react-i18next'
import { Button } from '../kit/Button'
import { Typed } from '../kit/fields/Typed'
import type { ClassGroups, ClassPage, ClassPlan } from '../wire/types.gen'
import { Apart } from './Apart'

const MOST = 40

/** The ways in which a class is divided into groups, and who should not be in one. */
export function Groups({ page, onChange }: { page: ClassPage; onChange: (to: Partial<ClassPlan>) => void }) {
  const { t } = useTranslation()
  const { sets } = page.plan
  const set = (id: string, to: Partial<ClassGroups>) =>
    onChange({ sets: sets.map((s) => (s.id === id ? { ...s, ...to } : s)) })
  const add = () =>
    onChange({
      sets: [
        ...sets,
        { id: crypto.randomUUID(), name: t('classGroups.nameNew', { n: sets.length + 1 }), groups: [[], []] },
      ],
    })
  return (
    <div className="flex flex-col gap-6">
      <p className="text-slate">{t('classGroups.text')}</p>
      {sets.map((s) => (
        <SetCard
          key={s.id}
          set={s}
          page={page}
          onSet={(to) => set(s.id, to)}
          onRemove={() => onChange({ sets: sets.filter((o) => o.id !== s.id) })}
        />
      ))}
      <Button className="self-start" onClick={add}>
        <Plus size={17} aria-hidden="true" />
        {t('classGroups.add')}
      </Button>
      <Apart page={page} onSave={(apart) => onChange({ apart })} />
    </div>
  )
}

type SetProps = { set: ClassGroups; page: ClassPage; onSet: (to: Partial<ClassGroups>) => void; onRemove: () => void }

/** One of them: each student with their group. */
function SetCard({ set, page, onSet, onRemove }: SetProps) {
  const { t } = useTranslation()
  const [removing, remove] = useState(false)
  const students = page.students.filter((s) => !s.left)
  const groupOf = (id: string) => set.groups.findIndex((g) => g.includes(id))
  function move(id: string, to: number) {
    const groups = set.groups.map((g) => g.filter((s) => s !== id))
    if (to === groups.length) groups.push([])
    if (to >= 0) groups[to] = [...(groups[to] ?? []), id]
    onSet({ groups })
  }
  return (
    <section aria-label={set.name} className="rounded-2xl border border-line bg-paper p-4">
      <div className="mb-3 flex flex-wrap items-end gap-3">
        <div className="min-w-40 grow">
          <Typed
            label={t('classGroups.name')}
            value={set.name}
            limit={40}
            required
            onChange={(name) => onSet({ name })}
          />
        </div>
        <span className="py-2 text-slate">
          {t('classGroups.count', { count: set.groups.filter((g) => g.length > 0).length })}
        </span>
        {removing ? (
          <>
            <Button look="rose" onClick={onRemove}>
              {t('classGroups.removeYes')}
            </Button>
            <Button onClick={() => remove(false)}>{t('cancel')}</Button>
          </>
        ) : (
          <Button aria-label={t('classGroups.remove', set)} onClick={() => remove(true)}>
            <Trash2 size={17} aria-hidden="true" />
          </Button>
        )}
      </div>
      <ul className="grid gap-x-6 gap-y-1 sm:grid-cols-2 lg:grid-cols-3">
        {students.map((s) => (
          <li key={s.id}>
            <label className="flex items-center gap-2">
              <bdi className="min-w-0 grow break-words">{s.apart ?? s.name}</bdi>
              <select
                className={`rounded-md border px-1 py-0.5 text-sm ${groupOf(s.id) < 0 ? 'border-edge bg-paper text-slate' : 'border-dusk bg-dusk-soft text-dusk'}`}
                value={groupOf(s.id)}
                onChange={(e) => move(s.id, Number(e.target.value))}
              >
                <option value={-1}>{t('groups.none')}</option>
                {set.groups.map((_, i) => (
                  <option key={i} value={i}>
                    {t('groups.name', { n: i + 1 })}
                  </option>
                ))}
                {set.groups.length < MOST && <option value={set.groups.length}>{t('groups.new')}</option>}
              </select>
            </label>
          </li>
        ))}
      </ul>
    </section>
  )
}
