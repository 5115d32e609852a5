import { useEffect } from 'react'
import { useTranslation } from 'react-i18next'
import { Button } from '../kit/Button'

const SHOWN_MS = 8000

/** Says that frames were deleted, and brings them back. */
export function Deleted({ count, onUndo, onDone }: { count: number; onUndo: () => void; onDone: () => void }) {
  const { t } = useTranslation()
  useEffect(() => {
    if (count === 0) return
    const timer = setTimeout(onDone, SHOWN_MS)
    return () => clearTimeout(timer)
  }, [count, onDone])
  return (
    <div role="status" className="pointer-events-none fixed inset-x-0 bottom-28 z-30 flex justify-center px-4">
      {count > 0 && (
        <p className="pointer-events-auto flex items-center gap-3 rounded-xl border border-line bg-paper px-4 py-2 font-semibold shadow-lg">
          {t('prepare.dropped', { count })}
          <Button
            onClick={() => {
              onUndo()
              onDone()
            }}
          >
            {t('prepare.bringBack')}
          </Button>
        </p>
      )}
    </div>
  )
}
