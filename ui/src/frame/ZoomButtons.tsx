import { Minus, Plus } from 'lucide-react'
import { useTranslation } from 'react-i18next'

const STEP = 1.5
const MAX = 4

/** Goes into the frame and back out. The frame never gets smaller than its place. */
export function ZoomButtons({ zoom, onZoom }: { zoom: number; onZoom: (zoom: number) => void }) {
  const { t } = useTranslation()
  const look = 'grid size-9 place-items-center text-slate hover:bg-mist hover:text-night disabled:text-edge'
  return (
    <div className="absolute end-3 bottom-3 z-10 flex overflow-hidden rounded-lg border border-edge bg-paper">
      <button
        type="button"
        aria-label={t('ledge.zoomOut')}
        title={t('ledge.zoomOut')}
        disabled={zoom === 1}
        className={look}
        onClick={() => onZoom(Math.max(1, zoom / STEP))}
      >
        <Minus size={18} aria-hidden="true" />
      </button>
      <button
        type="button"
        aria-label={t('ledge.zoomIn')}
        title={t('ledge.zoomIn')}
        disabled={zoom === MAX}
        className={look}
        onClick={() => onZoom(Math.min(MAX, zoom * STEP))}
      >
        <Plus size={18} aria-hidden="true" />
      </button>
    </div>
  )
}
