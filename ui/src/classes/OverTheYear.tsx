import { useQuery } from '@tanstack/react-query'
import { useMemo } from 'react'
import { useTranslation } from 'react-i18next'
import { Link } from 'react-router'
import { Refusal } from '../kit/Refusal'
import { call, codeOf } from '../wire/http'
import type { ClassYear } from '../wire/types.gen'
import { Known } from './Known'

/** How many questions that failed are listed. */
const MOST_FAILED = 10

const table = 'max-h-[70dvh] overflow-auto rounded-xl border border-line bg-paper'

/** What the lessons of a class say: of each student and objective, and which questions failed. */
export function OverTheYear({ of }: { of: string }) {
  const { t, i18n } = useTranslation()
  const { data, error } = useQuery({
    queryKey: ['year', of],
    queryFn: () => call<ClassYear>('GET', `/classes/${of}/year`),
  })
  const objectives = useMemo(() => [...new Set(data?.students.flatMap((s) => s.objectives.map((o) => o.text)))], [data])
  if (error) return <Refusal code={codeOf(error)} />
  if (!data || data.lessons === 0) return null
  const when = new Intl.DateTimeFormat(i18n.language, { day: 'numeric', month: 'short' })
  return (
    <>
      <section aria-labelledby="objectives" className="mb-6">
        <h2 id="objectives" className="mb-1 text-lg font-semibold">
          {t('year.objectives')}
        </h2>
        <p className="mb-2 text-slate">{t('year.objectivesText', { count: data.lessons })}</p>
        {/* oxlint-disable-next-line jsx-a11y/no-noninteractive-tabindex -- a wide table is scrolled by keys */}
        <div className={table} tabIndex={0} role="group" aria-labelledby="objectives">
          <table className="w-full text-start">
            <thead className="sticky top-0 z-10 bg-paper">
              <tr>
                <th scope="col" className="px-4 py-2 text-start">
                  {t('year.student')}
                </th>
                {objectives.map((o) => (
                  <th key={o} scope="col" dir="auto" className="min-w-36 px-3 py-2 text-start font-semibold">
                    {o}
                  </th>
                ))}
              </tr>
            </thead>
            <tbody>
              {data.students.map((s) => (
                <tr key={s.id} className="border-t border-line">
                  <th scope="row" className="px-4 py-1.5 text-start font-normal">
                    <Link to={`/classes/${of}/students/${s.id}`} className="text-dusk underline underline-offset-4">
                      {s.name}
                    </Link>
                  </th>
                  {objectives.map((o) => {
                    const known = s.objectives.find((k) => k.text === o)
                    return (
                      <td key={o} className="px-3 py-1.5">
                        {known ? <Known known={known} brief /> : <span className="text-slate">–</span>}
                      </td>
                    )
                  })}
                </tr>
              ))}
            </tbody>
          </table>
        </div>
      </section>
      {data.failed.length > 0 && (
        <section aria-labelledby="failed" className="mb-6">
          <h2 id="failed" className="mb-2 text-lg font-semibold">
            {t('year.failed')}
          </h2>
          <ul className="divide-y divide-line rounded-xl border border-line bg-paper">
            {data.failed.slice(0, MOST_FAILED).map((f) => (
              <li key={f.text} className="flex flex-wrap items-baseline gap-x-3 px-4 py-2">
                <span dir="auto" className="font-semibold">
                  {f.text}
                </span>
                <span className="ms-auto flex flex-wrap gap-x-3 text-sm">
                  {f.lessons.map((l) => (
                    <Link
                      key={l.session}
                      to={`/records/${l.session}/report`}
                      title={l.title}
                      className="text-dusk underline underline-offset-4"
                    >
                      {when.format(l.at)}: {t('report.right', l.advice)}
                    </Link>
                  ))}
                </span>
              </li>
            ))}
          </ul>
        </section>
      )}
    </>
  )
}
