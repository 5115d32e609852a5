import { Component, type ReactNode } from 'react'
import { useTranslation } from 'react-i18next'
import { Logo } from './Logo'

/**
 * Catches what breaks while a screen is shown. A library for it would be a tenth
 * of what a student's device may still load.
 */
export class Careful extends Component<{ children: ReactNode }, { broken: boolean }> {
  override state = { broken: false }
  static getDerivedStateFromError = () => ({ broken: true })
  override render = () => (this.state.broken ? <Stumbled /> : this.props.children)
}

/** What is shown when a screen breaks: nothing is lost, and one press goes on. */
function Stumbled() {
  const { t } = useTranslation()
  return (
    <main className="grid min-h-full place-items-center p-6 text-center">
      <div role="alert" className="flex max-w-md flex-col items-center gap-3">
        <Logo className="h-12" />
        <h1 className="text-2xl">{t('broken.title')}</h1>
        <p className="text-slate">{t('broken.text')}</p>
        <button
          type="button"
          className="rounded-lg bg-dusk px-4 py-2 font-semibold text-paper"
          onClick={() => location.reload()}
        >
          {t('broken.reload')}
        </button>
      </div>
    </main>
  )
}
