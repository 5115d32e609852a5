import { memo, type ReactNode } from 'react'
import type { Element } from '../wire/types.gen'
import { inkStroke, tintFill } from './colours'
import { CELL, columnWidths } from './geometry'
import { StrokeMark } from './StrokeMark'
import { WrittenMark } from './WrittenMark'

/** What a person may do with marks, and what they are doing. */
export type MarkActions = {
  selected: string | null
  editing: string | null
  /** False while a tool draws over the marks. */
  touchable: boolean
  nameOf: (author: string | undefined) => { name: string; mine: boolean }
  mayChange: (mark: Element) => boolean
  onSelect: (id: string | null) => void
  onEdit: (id: string | null) => void
  onPlace: (mark: Element, place: { x?: number; y?: number; w?: number; h?: number }) => void
  onText: (mark: Element, text: string) => void
  onRemove: (mark: Element) => void
  /** True where writing happens on the ledge instead of on the frame. */
  writesElsewhere: boolean
  /** The id of the element that explains the keys. */
  keysHint: string
}

type Props = {
  marks: readonly Element[]
  scale: number
  actions?: MarkActions
  poll?: (mark: Element & { kind: 'poll' }) => ReactNode
}

type Drawn = Element & { kind: 'stroke' | 'shape' }
const isDrawn = (m: Element): m is Drawn => m.kind === 'stroke' || m.kind === 'shape'

/** Marks from the lowest to the highest. Neighbouring lines and shapes share one SVG. */
export function Marks({ marks, scale, actions, poll }: Props) {
  const parts: ReactNode[] = []
  for (let i = 0; i < marks.length; i++) {
    const mark = marks[i]!
    if (isDrawn(mark)) {
      const run: Drawn[] = [mark]
      for (let next = marks[i + 1]; next && isDrawn(next); next = marks[++i + 1]) run.push(next)
      parts.push(<Run key={mark.id} run={run} scale={scale} actions={actions} />)
    } else if (mark.kind === 'note' || mark.kind === 'text') {
      parts.push(<WrittenMark key={mark.id} mark={mark} scale={scale} actions={actions} />)
    } else if (mark.kind === 'table') {
      parts.push(<TableMark key={mark.id} mark={mark} />)
    } else if (mark.kind === 'poll' && poll) {
      parts.push(
        <div key={mark.id} className="absolute" style={{ left: mark.x, top: mark.y, width: mark.w, minHeight: mark.h }}>
          {poll(mark as Element & { kind: 'poll' })}
        </div>,
      )
    }
  }
  return <>{parts}</>
}

function Run({ run, scale, actions }: { run: Drawn[]; scale: number; actions?: MarkActions }) {
  return (
    <svg className="pointer-events-none absolute top-0 left-0 overflow-visible" width="1" height="1">
      {run.map((mark) =>
        mark.kind === 'stroke' ? (
          <StrokeMark key={mark.id} mark={mark as Element & { kind: 'stroke' }} scale={scale} actions={actions} />
        ) : (
          <ShapeMark key={mark.id} mark={mark as Element & { kind: 'shape' }} />
        ),
      )}
    </svg>
  )
}

const ShapeMark = memo(function ShapeMark({ mark }: { mark: Element & { kind: 'shape' } }) {
  const { form, ink, fill, width, dash } = mark.shape
  const look = {
    className: `${inkStroke[ink]} ${fill ? tintFill[fill] : 'fill-none'}`,
    strokeWidth: width,
    strokeDasharray: dash ? '14 12' : undefined,
  }
  const { x, y, w, h } = mark
  if (form === 'rect') return <rect x={x} y={y} width={w} height={h} {...look} />
  if (form === 'ellipse') return <ellipse cx={x + w / 2} cy={y + h / 2} rx={w / 2} ry={h / 2} {...look} />
  return <line x1={x} y1={y} x2={x + w} y2={y + h} {...look} />
})

const TableMark = memo(function TableMark({ mark }: { mark: Element & { kind: 'table' } }) {
  const [head, ...rows] = mark.table.rows
  const cell = 'border-2 border-edge px-3.5 text-start'
  return (
    <table
      className="absolute table-fixed border-collapse bg-paper"
      style={{ left: mark.x, top: mark.y, width: mark.w, height: mark.h, fontSize: CELL.size }}
    >
      <colgroup>
        {columnWidths(mark.table.rows, mark.w).map((width, i) => (
          <col key={i} style={{ width }} />
        ))}
      </colgroup>
      <thead className="bg-mist">
        <tr>
          {head?.map((text, i) => (
            <th key={i} scope="col" className={`${cell} font-semibold whitespace-nowrap`}>
              {text}
            </th>
          ))}
        </tr>
      </thead>
      <tbody>
        {rows.map((row, y) => (
          <tr key={y}>
            {row.map((text, x) =>
              x === 0 ? (
                <th key={x} scope="row" className={`${cell} font-normal`}>
                  {text}
                </th>
              ) : (
                <td key={x} className={`${cell} tabular-nums`}>
                  {text}
                </td>
              ),
            )}
          </tr>
        ))}
      </tbody>
    </table>
  )
})
