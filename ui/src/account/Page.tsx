import type { ReactNode } from 'react'
import { useTranslation } from 'react-i18next'
import { Link } from 'react-router'
import { Logo } from '../kit/Logo'

/** A page about accounts: the way back, and what it is about. */
export function Page({ title, children }: { title: string; children: ReactNode }) {
  const { t } = useTranslation()
  return (
    <div className="min-h-full">
      <header className="flex items-center gap-3 border-b border-line bg-paper px-5 py-3">
        <Logo />
        <Link to="/boards" className="font-semibold text-dusk underline underline-offset-4">
          {t('boards.title')}
        </Link>
      </header>
      <main className="mx-auto flex max-w-3xl flex-col gap-8 p-5">
        <h1 className="text-3xl">{title}</h1>
        {children}
      </main>
    </div>
  )
}
