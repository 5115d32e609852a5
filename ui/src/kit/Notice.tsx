import { Suspense, useEffect, useState } from 'react'
import { useTranslation } from 'react-i18next'
import { useBenchState } from '../wire/hooks/useLesson'
import { part } from './part'

const Lost = part(() => import('./Lost'))

/** Tells for a while why something was refused, and keeps writing that was not taken. */
export function RefusalNotice() {
  const { t } = useTranslation()
  const refused = useBenchState((s) => s.refused)
  const lost = useBenchState((s) => s.lost)
  const [hidden, setHidden] = useState(0)
  useEffect(() => {
    if (!refused) return
    const timer = setTimeout(() => setHidden(refused.count), 7000)
    return () => clearTimeout(timer)
  }, [refused])
  const shows = refused !== null && refused.count > hidden
  // Where a window is open it stands below it, beside what was pressed there; else above the ledge.
  const told = lost.length > 0 ? 'top-20' : 'bottom-28 [body:has([role=dialog])_&]:bottom-2'
  const place = 'pointer-events-none fixed inset-x-0 flex flex-col items-center px-4'
  return (
    <>
      {/* Above windows: what is refused there is told there, to screen readers too (aria-live stays beside a window). */}
      <div role="status" aria-live="polite" className={`${place} z-60 ${told}`}>
        {shows && (
          <p className="rounded-xl border-2 border-amber bg-amber-soft px-4 py-2 font-semibold text-night shadow-lg">
            {refused.code === 'offline' ? t('notice.offline') : t(`refusal.${refused.code}`)}
          </p>
        )}
      </div>
      {lost.length > 0 && (
        <div className={`${place} bottom-28 z-30`}>
          <Suspense fallback={null}>
            <Lost texts={lost} />
          </Suspense>
        </div>
      )}
    </>
  )
}
