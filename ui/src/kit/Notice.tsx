import { useEffect, useState } from 'react'
import { useTranslation } from 'react-i18next'
import { useBenchState } from '../wire/useLesson'

/** Tells for a while why something was refused. */
export function RefusalNotice() {
  const { t } = useTranslation()
  const refused = useBenchState((s) => s.refused)
  const [hidden, setHidden] = useState(0)
  useEffect(() => {
    if (!refused) return
    const timer = setTimeout(() => setHidden(refused.count), 7000)
    return () => clearTimeout(timer)
  }, [refused])
  const shows = refused !== null && refused.count > hidden
  return (
    <div role="status" className="pointer-events-none fixed inset-x-0 bottom-28 z-30 flex justify-center px-4">
      {shows && (
        <p className="rounded-xl border-2 border-amber bg-amber-soft px-4 py-2 font-semibold text-night shadow-lg">
          {t(`refusal.${refused.code}`)}
        </p>
      )}
    </div>
  )
}
