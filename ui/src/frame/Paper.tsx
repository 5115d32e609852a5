import { useId } from 'react'
import type { Frame } from '../wire/types.gen'
import { FRAME, GRID } from './geometry'

/** The ground of a frame. */
export function Paper({ paper }: { paper: Frame['paper'] }) {
  const id = useId()
  const step = GRID[paper]
  return (
    <svg
      aria-hidden="true"
      className="pointer-events-none absolute inset-0 fill-none stroke-grid"
      width={FRAME.width}
      height={FRAME.height}
      strokeWidth="2"
    >
      {step > 0 && (
        <pattern id={id} width={step} height={step} patternUnits="userSpaceOnUse">
          {paper === 'squared' && <path d={`M${step} 0V${step}H0`} />}
          {paper === 'ruled' && <path d={`M0 ${step}H${step}`} />}
          {paper === 'dotted' && <circle cx={step / 2} cy={step / 2} r="2.4" className="fill-line stroke-none" />}
        </pattern>
      )}
      {step > 0 && <rect width="100%" height="100%" fill={`url(#${id})`} stroke="none" />}
    </svg>
  )
}
