import type { Drawing, Paper as PaperOf } from '../../wire/types.gen'
import { useGround } from '../../wire/ground'
import { FRAME } from './geometry'
import { pictureURL } from '../pictures/pictures'

const weights: Record<Drawing['lines'][number]['weight'], string> = {
  fine: 'fill-none stroke-grid',
  base: 'fill-none stroke-rule',
  guide: 'fill-none stroke-grid',
  firm: 'fill-none stroke-on-ground',
  dots: 'fill-line stroke-none',
}

/** The ground of a frame; `bold` lines can be told apart in a very small picture. */
export function Paper({ paper, bold = false }: { paper: PaperOf; bold?: boolean }) {
  const drawing = useGround(paper)
  if (paper.kind === 'picture')
    return (
      <img
        src={pictureURL(paper.picture ?? '')}
        alt={paper.alt ?? ''}
        draggable={false}
        className="pointer-events-none absolute inset-0 size-full object-contain"
      />
    )
  return (
    <svg
      aria-hidden={drawing.labels.length === 0}
      role={drawing.labels.length > 0 ? 'img' : undefined}
      aria-label={drawing.labels.length > 0 ? drawing.labels.map((l) => l.text).join(' ') : undefined}
      className="pointer-events-none absolute inset-0"
      width={FRAME.width}
      height={FRAME.height}
      strokeWidth="2"
    >
      {drawing.lines.map((line) => (
        <path
          key={line.weight}
          d={line.path}
          className={bold ? 'fill-none stroke-edge' : weights[line.weight]}
          strokeWidth={(line.weight === 'firm' ? 3 : 2) * (bold ? 6 : 1)}
          strokeDasharray={line.weight === 'guide' ? '14 10' : undefined}
        />
      ))}
      {drawing.labels.map((label, i) => (
        <text
          key={i}
          x={label.x}
          y={label.y}
          fontSize={label.size}
          textAnchor={label.anchor}
          dominantBaseline="central"
          className="fill-on-ground"
        >
          {label.text}
        </text>
      ))}
    </svg>
  )
}
