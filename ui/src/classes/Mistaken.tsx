import { useQuery } from '@tanstack/react-query'
import { useTranslation } from 'react-i18next'
import { Link } from 'react-router'
import { Refusal } from '../kit/Refusal'
import { call, codeOf } from '../wire/http'
import type { MistakesOver } from '../wire/types.gen'

/** Which known mistakes a class has made over its lessons. */
export function Mistaken({ of }: { of: string }) {
  const { t, i18n } = useTranslation()
  const { data, error } = useQuery({
    queryKey: ['mistakes', of],
    queryFn: () => call<MistakesOver>('GET', `/classes/${of}/mistakes`),
  })
  if (error) return <Refusal code={codeOf(error)} />
  if (!data || data.mistakes.length === 0) return null
  const when = new Intl.DateTimeFormat(i18n.language, { day: 'numeric', month: 'short' })
  return (
    <section aria-labelledby="mistaken" className="mb-6">
      <h2 id="mistaken" className="mb-1 text-lg font-semibold">
        {t('mistaken.title')}
      </h2>
      <p className="mb-2 text-slate">{t('mistaken.text', { count: data.lessons })}</p>
      <ul className="divide-y divide-line rounded-xl border border-line bg-paper">
        {data.mistakes.map((m) => (
          <li key={m.name} className="flex flex-wrap items-baseline gap-x-3 px-4 py-2">
            <span dir="auto" className="font-semibold">
              {m.name}
            </span>
            <span className="text-sm text-slate">{t('mistaken.in', { count: m.lessons.length })}</span>
            <span className="ms-auto flex flex-wrap gap-x-3 text-sm">
              {m.lessons.map((l) => (
                <Link
                  key={l.session}
                  to={`/records/${l.session}`}
                  title={l.title}
                  className="text-dusk underline underline-offset-4"
                >
                  {t('mistaken.lesson', { when: when.format(l.at), count: l.count, of: l.of })}
                </Link>
              ))}
            </span>
          </li>
        ))}
      </ul>
    </section>
  )
}
