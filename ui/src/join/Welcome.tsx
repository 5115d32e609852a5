import type { ReactNode } from 'react'
import { useTranslation } from 'react-i18next'
import { Link } from 'react-router'
import { Logo } from '../kit/Logo'
import { Ridge } from './Ridge'

/** The first page that people see: the way in, above the ridge. */
export function Welcome({ title, children }: { title: string; children: ReactNode }) {
  const { t } = useTranslation()
  return (
    <div className="relative flex min-h-full flex-col overflow-hidden bg-linear-to-b from-mist via-snow via-60% to-glow-soft">
      <header className="z-10 flex items-center justify-between p-4 sm:px-9 sm:py-6">
        <Link to="/" className="flex items-center gap-2.5 rounded-lg font-display text-xl font-semibold">
          <Logo />
          {t('app')}
        </Link>
        <Link to="/sign-in" className="rounded-lg border border-edge bg-paper px-3.5 py-2 font-semibold hover:bg-mist">
          {t('join.teach')}
        </Link>
      </header>
      <main className="z-10 mx-auto flex w-full max-w-md grow flex-col px-5 pt-[7vh] pb-[34vh] text-center">
        <h1 className="mb-6 text-4xl">{title}</h1>
        {children}
      </main>
      <Ridge />
    </div>
  )
}
