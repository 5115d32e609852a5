import type { ReactNode } from 'react'
import { useTranslation } from 'react-i18next'
import { Logo } from '../Logo'

/** A small page before the door: a sign-in, or where a link leads. */
export function Entry({ children }: { children: ReactNode }) {
  const { t } = useTranslation()
  return (
    <main className="grid min-h-full place-items-center bg-linear-to-b from-mist to-glow-soft p-5">
      <div className="flex w-full max-w-sm flex-col gap-4 rounded-2xl border border-line bg-paper p-7">
        <span className="flex items-center gap-2 font-display text-lg font-semibold">
          <Logo />
          {t('app')}
        </span>
        {children}
      </div>
    </main>
  )
}
