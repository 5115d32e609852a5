import { memo, Suspense, useMemo, type ReactNode } from 'react'
import { part } from '../kit/part'
import type { Element } from '../wire/types.gen'
import { boundsOf, overlaps, type Box } from './paint/geometry'
import { CoverMark } from './marks/CoverMark'
import { ConnectorMark } from './marks/ConnectorMark'
import { ShapeMark } from './marks/ShapeMark'
import { StrokeMark } from './marks/StrokeMark'
import { LinkMark, PictureMark, StampMark } from './marks/SmallMarks'
import { TableMark } from './marks/TableMark'
import { WrittenMark } from './marks/WrittenMark'

// Only where boards are prepared are these picked up.
const PreparedMark = part(() => import('./marks/PreparedMark'))

type Props = {
  marks: readonly Element[]
  /** All marks that connectors may be attached to. */
  all: readonly Element[]
  poll?: (mark: Element & { kind: 'poll' }) => ReactNode
  cover?: (mark: Element & { kind: 'cover' }) => ReactNode
  /** What was prepared: nobody picks it up. */
  fixed?: boolean
}

type Drawn = Element & { kind: 'stroke' | 'connector' }
const isDrawn = (m: Element): m is Drawn => m.kind === 'stroke' || m.kind === 'connector'

/** One part of the page: a mark of its own, or lines that share one SVG. */
type Part = { mark: Element } | { nth: number; run: Drawn[]; above: Box[] }

/**
 * Marks from the lowest to the highest. Lines share one SVG with those before
 * them where nothing that lies between would be painted in another order.
 */
function partsOf(marks: readonly Element[]): Part[] {
  const parts: Part[] = []
  let last: { nth: number; run: Drawn[]; above: Box[] } | null = null
  let runs = 0
  for (const mark of marks) {
    if (!isDrawn(mark)) {
      parts.push({ mark })
      last?.above.push(boundsOf(mark))
      continue
    }
    // A connector may come to lie anywhere; what it is attached to moves.
    const box = mark.kind === 'connector' ? null : boundsOf(mark)
    const free: boolean =
      last !== null && (last.above.length === 0 || (box !== null && !last.above.some((b) => overlaps(b, box))))
    if (!free) {
      last = { nth: runs++, run: [], above: [] }
      parts.push(last)
    }
    last!.run.push(mark)
  }
  return parts
}

/** All marks of a frame. */
export function Marks({ marks, all, poll, cover, fixed = false }: Props) {
  const parts = useMemo(() => partsOf(marks), [marks])
  return (
    <>
      {parts.map((part) =>
        'mark' in part ? (
          <One key={part.mark.id} mark={part.mark} poll={poll} cover={cover} fixed={fixed} />
        ) : (
          // A run stays the same part when its first line goes.
          <Run key={`run ${part.nth}`} run={part.run} all={all} fixed={fixed} />
        ),
      )}
    </>
  )
}

type OneProps = Pick<Props, 'poll' | 'cover'> & { mark: Element; fixed: boolean }

const One = memo(function One({ mark, poll, cover, fixed }: OneProps) {
  if (!fixed && (mark.kind === 'table' || mark.kind === 'poll' || mark.kind === 'cover'))
    return (
      <Suspense fallback={null}>
        <PreparedMark mark={mark} />
      </Suspense>
    )
  switch (mark.kind) {
    case 'note':
    case 'text':
      return <WrittenMark mark={mark} fixed={fixed} />
    case 'shape':
      return <ShapeMark mark={mark} fixed={fixed} />
    case 'stamp':
      return <StampMark mark={mark} fixed={fixed} />
    case 'picture':
      return <PictureMark mark={mark} fixed={fixed} />
    case 'link':
      return <LinkMark mark={mark} fixed={fixed} />
    case 'table':
      return <TableMark mark={mark} />
    case 'cover':
      return cover ? cover(mark) : <CoverMark mark={mark} />
    case 'poll':
      return poll ? (
        <div
          className="absolute"
          data-own-hand
          style={{ left: mark.x, top: mark.y, width: mark.w, minHeight: mark.h, pointerEvents: 'auto' }}
        >
          {poll(mark)}
        </div>
      ) : null
    default:
      return null
  }
})

const Run = memo(function Run({ run, all, fixed }: { run: Drawn[]; all: readonly Element[]; fixed: boolean }) {
  return (
    <svg className="pointer-events-none absolute top-0 left-0 overflow-visible" width="1" height="1">
      {run.map((mark) =>
        mark.kind === 'stroke' ? (
          <StrokeMark key={mark.id} mark={mark} fixed={fixed} />
        ) : (
          <ConnectorMark key={mark.id} mark={mark} all={all} fixed={fixed} />
        ),
      )}
    </svg>
  )
}, sameRun)

/** A run is painted anew when one of its marks, or what its connectors hold on to, has changed. */
function sameRun(a: { run: Drawn[]; all: readonly Element[] }, b: { run: Drawn[]; all: readonly Element[] }) {
  if (a.run.length !== b.run.length || a.run.some((m, i) => m !== b.run[i])) return false
  return a.all === b.all || a.run.every((m) => m.kind === 'stroke')
}
