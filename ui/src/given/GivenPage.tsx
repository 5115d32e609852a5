import { Printer } from 'lucide-react'
import { useEffect } from 'react'
import { useTranslation } from 'react-i18next'
import { Link, useParams } from 'react-router'
import { Button } from '../kit/Button'
import { Logo } from '../kit/Logo'
import { useTitle } from '../kit/hooks/useTitle'
import { call } from '../wire/http'
import { useAsked } from '../wire/hooks/useAsked'
import type { Back } from '../wire/types.gen'
import '../words/windows'
import { speak } from '../words/words'
import { Letter } from '../letter/Letter'

/** What a student got back of a lesson, on the device on which they were there or came with their card. */
export function GivenPage() {
  const { t } = useTranslation()
  const { session = '' } = useParams()
  useTitle(t('given.title'))
  const { data, problem } = useAsked(() => call<Back>('GET', `/sessions/${session}/given`), session)
  useEffect(() => {
    if (data) void speak(data.language)
  }, [data])
  return (
    <div className="min-h-full">
      <header className="flex items-center gap-3 border-b border-line bg-paper px-4 py-3 print:hidden">
        <Link to="/" aria-label={t('app')} className="rounded-lg">
          <Logo />
        </Link>
        <span className="grow font-semibold">{t('given.title')}</span>
        {data && (
          <Button onClick={() => print()}>
            <Printer size={17} aria-hidden="true" />
            {t('given.print')}
          </Button>
        )}
      </header>
      <main className="mx-auto max-w-3xl p-4 sm:p-6">
        {data ? (
          <Letter letter={data} />
        ) : (
          <div className="py-10 text-center">
            <h1 className="mb-2 text-2xl">{t('given.title')}</h1>
            <p role="status" className="text-slate">
              {problem ? t(`refusal.${problem}`) : t('loading')}
            </p>
          </div>
        )}
      </main>
    </div>
  )
}
