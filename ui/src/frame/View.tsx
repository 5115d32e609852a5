import { Maximize, Minus, Plus } from 'lucide-react'
import { Suspense } from 'react'
import { useTranslation } from 'react-i18next'
import type { Element } from '../wire/types.gen'
import { part } from '../kit/part'
import { useHand, useHandState } from './hand/useHand'
import { ZOOM } from './hand/state'

const Overview = part(() => import('./Overview'))

/** How close one looks, and, once zoomed in, where on the frame one is. */
export function ViewControls({ marks }: { marks: readonly Element[] }) {
  const { t } = useTranslation()
  const hand = useHand()
  const zoom = useHandState((s) => s.view.zoom)
  const look = 'grid h-9 min-w-9 place-items-center text-slate hover:bg-mist hover:text-night disabled:text-edge'
  return (
    <div className="absolute end-3 bottom-3 z-10 flex flex-col items-end gap-2">
      {zoom > 1.05 && (
        <Suspense fallback={null}>
          <Overview marks={marks} />
        </Suspense>
      )}
      <div className="flex overflow-hidden rounded-lg border border-edge bg-paper">
        <button
          type="button"
          aria-label={t('view.out')}
          title={`${t('view.out')} (-)`}
          disabled={zoom <= ZOOM.least}
          className={look}
          onClick={() => hand.look({ zoom: zoom / 1.25 })}
        >
          <Minus size={18} aria-hidden="true" />
        </button>
        <button
          type="button"
          aria-label={t('view.fitNow', { percent: Math.round(zoom * 100) })}
          title={`${t('view.fit')} (.)`}
          className={`${look} inline-flex items-center gap-1 px-1.5 text-[13px] font-semibold tabular-nums`}
          onClick={hand.fit}
        >
          {Math.abs(zoom - 1) < 0.01 ? <Maximize size={16} aria-hidden="true" /> : `${Math.round(zoom * 100)}%`}
        </button>
        <button
          type="button"
          aria-label={t('view.in')}
          title={`${t('view.in')} (+)`}
          disabled={zoom >= ZOOM.most}
          className={look}
          onClick={() => hand.look({ zoom: zoom * 1.25 })}
        >
          <Plus size={18} aria-hidden="true" />
        </button>
      </div>
    </div>
  )
}
