import { useQuery } from '@tanstack/react-query'
import { useTranslation } from 'react-i18next'
import { Link } from 'react-router'
import { SessionName } from '../kit/SessionName'
import { call } from '../wire/http'
import { Mistaken } from './Mistaken'
import { OverTheYear } from './OverTheYear'
import type { Boards, ClassPage } from '../wire/types.gen'

/** The lessons of a class with their records, also of one that is put away. */
export function Records({ page }: { page: ClassPage }) {
  const { t } = useTranslation()
  const list = useQuery({ queryKey: ['boards'], queryFn: () => call<Boards>('GET', '/boards') })
  const lessons = list.data?.sessions.filter((s) => s.class === page.id && s.endedAt) ?? []
  return (
    <>
      {lessons.length > 0 && <OverTheYear of={page.id} />}
      {lessons.length > 0 && <Mistaken of={page.id} />}
      {list.data && lessons.length === 0 && <p className="mb-6 text-slate">{t('boards.noRecords')}</p>}
      <ul className="mb-6 divide-y divide-line rounded-xl border border-line bg-paper empty:hidden">
        {lessons.map((s) => (
          <li key={s.id} className="flex flex-wrap items-center gap-3 px-4 py-2.5">
            <SessionName session={s} />
            <Link
              to={`/records/${s.id}`}
              className="ms-auto font-semibold text-dusk underline underline-offset-4"
              aria-label={`${t('boards.toRecord')}: ${s.title}`}
            >
              {t('boards.toRecord')}
            </Link>
          </li>
        ))}
      </ul>
    </>
  )
}
