import { Pause, Play } from 'lucide-react'
import { useTranslation } from 'react-i18next'
import { useWish } from '../useWish'

/** Lets every student's screen rest, and go on; nothing of their work is lost. */
export function PauseButton({ paused }: { paused: boolean }) {
  const { t } = useTranslation()
  const [rests, set] = useWish(paused, (on) => ({ kind: 'pause', pause: { on } }))
  const Sign = rests ? Play : Pause
  return (
    <button
      type="button"
      data-key="pause"
      aria-keyshortcuts="Alt+P"
      title={t(rests ? 'run.goOnHint' : 'run.pauseHint')}
      className={`inline-flex min-h-10 items-center gap-2 rounded-lg border px-3 font-semibold ${rests ? 'border-glow bg-glow text-paper hover:bg-glow-deep' : 'border-edge bg-paper hover:bg-mist'}`}
      onClick={() => set(!rests)}
    >
      <Sign size={18} aria-hidden="true" />
      <span className="max-sm:sr-only">{t(rests ? 'run.goOn' : 'run.pauseAll')}</span>
    </button>
  )
}
