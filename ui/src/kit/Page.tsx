import type { ReactNode } from 'react'
import { useTranslation } from 'react-i18next'
import { Link } from 'react-router'
import { Logo } from './Logo'

type Props = {
  title: string
  /** Stands beside the title. */
  action?: ReactNode
  children: ReactNode
}

/** A page of the teachers' beside the boards: the way back, and what it is about. */
export function Page({ title, action, children }: Props) {
  const { t } = useTranslation()
  return (
    <div className="min-h-full">
      <header className="flex items-center gap-3 border-b border-line bg-paper px-5 py-3">
        <Logo />
        <Link to="/boards" className="font-semibold text-dusk underline underline-offset-4">
          {t('boards.title')}
        </Link>
      </header>
      <main className="mx-auto flex max-w-4xl flex-col gap-6 p-5">
        <div className="flex flex-wrap items-center gap-3">
          <h1 className="grow text-3xl">{title}</h1>
          {action}
        </div>
        {children}
      </main>
    </div>
  )
}
