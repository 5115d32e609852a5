import { useStore } from 'zustand'
import type { Element } from '../../wire/types.gen'
import { inkStroke } from '../paint/colours'
import { endsOf } from '../paint/geometry'
import { useHand } from '../hand/useHand'
import { headPath } from '../paint/outline'
import { useMark } from './useMark'

type Connector = Element & { kind: 'connector' }
type Props = { mark: Connector; all: readonly Element[]; fixed: boolean }

/** A line or arrow that follows what it is attached to. */
export function ConnectorMark({ mark, all, fixed }: Props) {
  return fixed ? <Line mark={mark} all={all} /> : <LiveConnector mark={mark} all={all} />
}

function LiveConnector({ mark, all }: Omit<Props, 'fixed'>) {
  const { selected, part, style } = useMark(mark)
  const hand = useHand()
  const { from, to } = mark.connector
  // It follows at once what is being moved.
  const shift = useStore(hand.state, (s) =>
    s.shift && [mark.id, from.mark, to.mark].some((id) => id && s.shift!.ids.has(id)) ? s.shift : null,
  )
  const moving = shift
    ? all.map((m) => (shift.ids.has(m.id) ? { ...m, x: m.x + shift.dx, y: m.y + shift.dy } : m))
    : all
  const held = shift?.ids.has(mark.id)
  const shown = held
    ? {
        ...mark,
        connector: {
          ...mark.connector,
          from: { ...from, x: from.x + shift!.dx, y: from.y + shift!.dy },
          to: { ...to, x: to.x + shift!.dx, y: to.y + shift!.dy },
        },
      }
    : mark
  return (
    <g {...part} className="mark-line" style={style}>
      <Line mark={shown} all={moving} selected={selected} />
    </g>
  )
}

export function Line({
  mark,
  all,
  selected = false,
}: {
  mark: Connector
  all: readonly Element[]
  selected?: boolean
}) {
  const { connector } = mark
  const [a, b] = endsOf(connector, (id) => all.find((m) => m.id === id))
  const { width, heads = '' } = connector
  const d =
    `M${a.x} ${a.y}L${b.x} ${b.y}` +
    (heads ? headPath(a.x, a.y, b.x, b.y, width) : '') +
    (heads === 'both' ? headPath(b.x, b.y, a.x, a.y, width) : '')
  return (
    <>
      {selected && (
        <path
          d={d}
          className="fill-none stroke-dusk-soft"
          strokeWidth={width + 10}
          strokeLinecap="round"
          strokeLinejoin="round"
        />
      )}
      <path d={d} className="fill-none stroke-transparent" strokeWidth={Math.max(24, width + 12)} />
      <path
        d={d}
        className={`fill-none ${inkStroke[connector.ink]}`}
        strokeWidth={width}
        strokeLinecap="round"
        strokeLinejoin="round"
        strokeDasharray={connector.dash ? `${2.4 * width} ${2.4 * width}` : undefined}
      />
    </>
  )
}
