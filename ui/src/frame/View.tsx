import { Maximize, Minus, Plus } from 'lucide-react'
import { memo } from 'react'
import { useTranslation } from 'react-i18next'
import type { Element } from '../wire/types.gen'
import { boundsOf, FRAME } from './geometry'
import { useHand, useHandState, ZOOM } from './hand'

/** How close one looks, and, once zoomed in, where on the frame one is. */
export function ViewControls({ marks }: { marks: readonly Element[] }) {
  const { t } = useTranslation()
  const hand = useHand()
  const zoom = useHandState((s) => s.view.zoom)
  const look = 'grid h-9 min-w-9 place-items-center text-slate hover:bg-mist hover:text-night disabled:text-edge'
  return (
    <div className="absolute end-3 bottom-3 z-10 flex flex-col items-end gap-2">
      {zoom > 1.05 && <Overview marks={marks} />}
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

/** The whole frame, small, with what is seen of it. A tap goes there. */
function Overview({ marks }: { marks: readonly Element[] }) {
  const hand = useHand()
  const { zoom, x, y } = useHandState((s) => s.view)
  const [w, h] = [FRAME.width / zoom, FRAME.height / zoom]
  return (
    <svg
      aria-hidden="true"
      data-part="overview"
      viewBox={`0 0 ${FRAME.width} ${FRAME.height}`}
      className="hidden w-40 cursor-pointer rounded border border-edge bg-paper sm:block"
      onClick={(e) => {
        const box = e.currentTarget.getBoundingClientRect()
        hand.look({
          x: ((e.clientX - box.left) / box.width) * FRAME.width,
          y: ((e.clientY - box.top) / box.height) * FRAME.height,
        })
      }}
    >
      <Places marks={marks} />
      <rect x={x - w / 2} y={y - h / 2} width={w} height={h} className="fill-dusk/10 stroke-dusk" strokeWidth="18" />
    </svg>
  )
}

/** Where something lies; painted anew only when that changes. */
const Places = memo(function Places({ marks }: { marks: readonly Element[] }) {
  let d = ''
  for (const m of marks) {
    if (m.kind === 'answer') continue
    const b = boundsOf(m)
    d += `M${b.x} ${b.y}h${Math.max(12, b.w)}v${Math.max(12, b.h)}h${-Math.max(12, b.w)}z`
  }
  return <path d={d} className="fill-edge/50" />
})
