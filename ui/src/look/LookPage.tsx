import { useTranslation } from 'react-i18next'
import { useParams } from 'react-router'
import { Logo } from '../kit/Logo'
import { useTitle } from '../kit/hooks/useTitle'
import { useAsked } from '../wire/hooks/useAsked'
import { call } from '../wire/http'
import type { Looked } from '../wire/types.gen'
import '../words/windows'

/** Chosen work, to be looked at by whoever has the link. */
export function LookPage() {
  const { t } = useTranslation()
  const { word = '' } = useParams()
  const { data, problem } = useAsked(() => call<Looked>('GET', `/looks/${encodeURIComponent(word)}`), word)
  useTitle(data?.title ?? t('look.title'))
  return (
    <div className="min-h-full">
      {/* On a page of the school's there is no second head. */}
      <header
        hidden={self !== top}
        className="flex items-center gap-3 border-b border-line bg-paper px-4 py-3 print:hidden"
      >
        <Logo />
        <h1 dir="auto" className="min-w-0 grow truncate text-xl">
          {data?.title ?? t('look.title')}
        </h1>
      </header>
      <main className="mx-auto flex max-w-5xl flex-col gap-8 p-4">
        {!data && (
          <p role={problem ? 'alert' : 'status'} className="py-10 text-center text-lg">
            {problem ? t(problem === 'not-found' ? 'look.gone' : `refusal.${problem}`) : t('loading')}
          </p>
        )}
        {data?.pictures.length === 0 && <p className="py-10 text-center text-slate">{t('look.nothing')}</p>}
        {data?.pictures.map((name, n) => (
          <figure key={n} className="break-inside-avoid">
            <figcaption dir="auto" className="mb-1.5 font-semibold">
              {name}
            </figcaption>
            <img
              src={`/api/looks/${encodeURIComponent(word)}/${n}`}
              alt={name}
              loading="lazy"
              width={1600}
              height={1000}
              className="h-auto w-full rounded-lg border border-line bg-paper"
            />
          </figure>
        ))}
      </main>
    </div>
  )
}
