import { useState } from 'react'
import { useTranslation } from 'react-i18next'
import { Button } from '../kit/Button'
import type { ClassPage, Colleague, TeachTogether } from '../wire/types.gen'
import type { Change } from './useClasses'

type Props = { page: ClassPage; colleagues: Colleague[]; change: Change }

/** Who teaches a class: they see the same lessons and records. */
export function Together({ page, colleagues, change }: Props) {
  const { t } = useTranslation()
  const [who, choose] = useState('')
  const set = (to: TeachTogether) => change(`/classes/${page.id}/teachers`, to)
  const others = colleagues.filter((c) => !page.teachers.some((k) => k.id === c.id))
  return (
    <div className="flex flex-col gap-4">
      <p className="text-slate">{t('together.text')}</p>
      {page.teachers.length > 0 && (
        <ul className="divide-y divide-line rounded-xl border border-line bg-paper">
          {page.teachers.map((k) => (
            <li key={k.id} className="flex items-center gap-3 px-4 py-2">
              <bdi className="min-w-0 grow truncate font-semibold">{k.name}</bdi>
              <Button aria-label={t('together.stop', k)} onClick={() => void set({ teacher: k.id, teaches: false })}>
                {t('together.take')}
              </Button>
            </li>
          ))}
        </ul>
      )}
      {others.length > 0 ? (
        <form
          className="flex flex-wrap items-end gap-2"
          onSubmit={(e) => {
            e.preventDefault()
            void set({ teacher: who, teaches: true }).then(() => choose(''))
          }}
        >
          <label className="flex flex-col gap-1 font-semibold">
            {t('together.colleague')}
            <select
              className="rounded-lg border border-edge bg-paper px-3 py-2 font-normal"
              value={who}
              onChange={(e) => choose(e.target.value)}
            >
              <option value="">{t('choose')}</option>
              {others.map((c) => (
                <option key={c.id} value={c.id}>
                  {c.name}
                </option>
              ))}
            </select>
          </label>
          <Button type="submit" disabled={!who}>
            {t('together.add')}
          </Button>
        </form>
      ) : (
        <p className="text-slate">{t('together.nobody')}</p>
      )}
    </div>
  )
}
