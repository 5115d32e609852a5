import { memo } from 'react'
import type { Element } from '../wire/types.gen'
import { boundsOf, FRAME } from './paint/geometry'
import { useHand, useHandState } from './hand/useHand'
import { isNowhere } from '../rules/pieces'

/** The whole frame, small, with what is seen of it. A tap goes there. */
export default function Overview({ marks }: { marks: readonly Element[] }) {
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
    if (isNowhere(m)) continue
    const b = boundsOf(m)
    d += `M${b.x} ${b.y}h${Math.max(12, b.w)}v${Math.max(12, b.h)}h${-Math.max(12, b.w)}z`
  }
  return <path d={d} className="fill-edge/50" />
})
