import type { ReactNode } from 'react'
import { useTranslation } from 'react-i18next'
import { Link } from 'react-router'
import { Logo } from './Logo'

type Props = {
  title: string
  /** The way back; to the boards without. */
  back?: { to: string; name: string }
  /** Stands beside the title. */
  action?: ReactNode
  children: ReactNode
}

/** A page of the teachers' beside the boards: the way back, and what it is about. */
export function Page({ title, back, action, children }: Props) {
  const { t } = useTranslation()
  return (
    <div className="min-h-full">
      <header className="flex print:hidden items-center gap-3 border-b border-line bg-paper px-5 py-3">
        <Logo />
        <nav className="flex min-w-0 flex-wrap gap-x-4 font-semibold">
          {[{ to: '/boards', name: t('boards.title') }, ...(back ? [back] : [])].map(({ to, name }) => (
            <Link key={to} to={to} className="truncate text-dusk underline underline-offset-4">
              {name}
            </Link>
          ))}
        </nav>
      </header>
      <main className="mx-auto flex max-w-5xl flex-col gap-6 p-5 print:max-w-none print:p-0">
        <div className="flex print:hidden flex-wrap items-center gap-3">
          <h1 className="grow text-3xl">{title}</h1>
          {action}
        </div>
        {children}
      </main>
    </div>
  )
}
