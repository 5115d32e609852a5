import { memo, type ReactNode } from 'react'
import type { Element } from '../wire/types.gen'
import { ConnectorMark } from './marks/ConnectorMark'
import { ShapeMark } from './marks/ShapeMark'
import { StrokeMark } from './marks/StrokeMark'
import { LinkMark, PictureMark, StampMark } from './marks/SmallMarks'
import { TableMark } from './marks/TableMark'
import { WrittenMark } from './marks/WrittenMark'

type Props = {
  marks: readonly Element[]
  /** All marks that connectors may be attached to. */
  all: readonly Element[]
  poll?: (mark: Element & { kind: 'poll' }) => ReactNode
  /** What was prepared: nobody picks it up. */
  fixed?: boolean
}

type Drawn = Element & { kind: 'stroke' | 'connector' }
const isDrawn = (m: Element): m is Drawn => m.kind === 'stroke' || m.kind === 'connector'

/** Marks from the lowest to the highest. Neighbouring lines share one SVG. */
export function Marks({ marks, all, poll, fixed = false }: Props) {
  const parts: ReactNode[] = []
  for (let i = 0; i < marks.length; i++) {
    const mark = marks[i]!
    if (isDrawn(mark)) {
      const run: Drawn[] = [mark]
      for (let next = marks[i + 1]; next && isDrawn(next); next = marks[++i + 1]) run.push(next)
      parts.push(<Run key={mark.id} run={run} all={all} fixed={fixed} />)
    } else parts.push(<One key={mark.id} mark={mark} poll={poll} fixed={fixed} />)
  }
  return <>{parts}</>
}

const One = memo(function One({ mark, poll, fixed }: { mark: Element; poll: Props['poll']; fixed: boolean }) {
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
