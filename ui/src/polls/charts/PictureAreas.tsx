import type { PlaceArea } from '../../wire/types.gen'

/** Areas over a picture: right ones green and whole, others amber and dashed. */
export function PictureAreas({ areas }: { areas: PlaceArea[] }) {
  return (
    <svg
      viewBox="0 0 100 100"
      preserveAspectRatio="none"
      aria-hidden="true"
      className="pointer-events-none absolute inset-0 size-full"
    >
      {areas.map((a) => (
        <polygon
          key={a.id}
          points={a.corners.map((p) => `${p.x * 100},${p.y * 100}`).join(' ')}
          vectorEffect="non-scaling-stroke"
          strokeWidth={3}
          strokeDasharray={a.right ? undefined : '6 4'}
          className={a.right ? 'fill-fern/20 stroke-fern' : 'fill-amber/15 stroke-amber'}
        />
      ))}
    </svg>
  )
}
