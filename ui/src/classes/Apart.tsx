import { X } from 'lucide-react'
import { useState } from 'react'
import { useTranslation } from 'react-i18next'
import { Button } from '../kit/Button'
import type { ClassPage, ClassPlan } from '../wire/types.gen'

type StudentPair = ClassPlan['apart'][number]

type Props = { page: ClassPage; onSave: (apart: StudentPair[]) => void }

/** Pairs of students who should not be in one group. */
export function Apart({ page, onSave }: Props) {
  const { t } = useTranslation()
  const [pair, setPair] = useState<StudentPair>(['', ''])
  const { apart } = page.plan
  const students = page.students.filter((s) => !s.left)
  const name = (id: string) => {
    const found = page.students.find((s) => s.id === id)
    return found?.apart ?? found?.name ?? ''
  }
  const [a, b] = pair
  const select = (at: 0 | 1) => (
    <select
      aria-label={t(at === 0 ? 'apart.first' : 'apart.second')}
      className="min-w-0 rounded-lg border border-edge bg-paper px-2 py-1.5"
      value={pair[at]}
      onChange={(e) => setPair(at === 0 ? [e.target.value, b] : [a, e.target.value])}
    >
      <option value="">{t('choose')}</option>
      {students
        .filter((s) => s.id !== pair[1 - at])
        .map((s) => (
          <option key={s.id} value={s.id}>
            {s.apart ?? s.name}
          </option>
        ))}
    </select>
  )
  return (
    <section aria-labelledby="apart">
      <h2 id="apart" className="mb-1 text-xl">
        {t('apart.title')}
      </h2>
      <p className="mb-3 text-slate">{t('apart.text')}</p>
      <form
        className="mb-3 flex flex-wrap items-center gap-2"
        onSubmit={(e) => {
          e.preventDefault()
          onSave([...apart, pair])
          setPair(['', ''])
        }}
      >
        {select(0)}
        {t('apart.and')}
        {select(1)}
        <Button type="submit" disabled={!a || !b}>
          {t('apart.add')}
        </Button>
      </form>
      <ul className="flex flex-wrap gap-2">
        {apart.map((p) => (
          <li key={p.join()} className="flex items-center gap-1 rounded-lg bg-mist ps-3">
            <span>
              <bdi>{name(p[0])}</bdi> · <bdi>{name(p[1])}</bdi>
            </span>
            <Button
              look="quiet"
              aria-label={t('apart.remove', { a: name(p[0]), b: name(p[1]) })}
              onClick={() => onSave(apart.filter((o) => o !== p))}
            >
              <X size={16} aria-hidden="true" />
            </Button>
          </li>
        ))}
      </ul>
    </section>
  )
}
