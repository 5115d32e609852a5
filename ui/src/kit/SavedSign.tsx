import { CloudOff, RefreshCw } from 'lucide-react'
import { useTranslation } from 'react-i18next'
import { useBenchState } from '../wire/hooks/useLesson'

/** Says whether all that was done here is saved. */
export function SavedSign() {
  const { t } = useTranslation()
  const network = useBenchState((s) => s.network)
  const unsaved = useBenchState((s) => s.unsaved)
  const lasting = useBenchState((s) => s.lasting)
  const word =
    network === 'offline'
      ? unsaved > 0
        ? t('saved.offlineKept', { count: unsaved })
        : t('saved.offline')
      : network === 'connecting'
        ? t('saved.connecting')
        : unsaved > 0
          ? t('saved.saving')
          : t('saved.saved')
  const bad = network === 'offline'
  return (
    <span
      role="status"
      // Spoken when the network goes and comes; not at every stroke.
      aria-live={bad || network === 'connecting' ? 'polite' : 'off'}
      title={lasting ? undefined : t('saved.noStore')}
      className={`inline-flex items-center gap-1.5 text-sm ${bad ? 'rounded-md bg-amber-soft px-2 py-0.5 font-semibold text-amber' : 'text-slate'}`}
    >
      {bad && <CloudOff size={15} className="shrink-0" aria-hidden="true" />}
      {!bad && unsaved > 0 && <RefreshCw size={14} aria-hidden="true" />}
      {word}
      {!lasting && unsaved > 0 && <span className="sr-only">{t('saved.noStore')}</span>}
    </span>
  )
}
