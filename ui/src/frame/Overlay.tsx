import { useEffect, useState } from 'react'
import { hueOf } from '../kit/people'
import { useBench } from '../wire/hooks/useLesson'
import type { Element, Nib } from '../wire/types.gen'
import { inkFill } from './paint/colours'
import { boundsOf, FRAME } from './paint/geometry'
import { useHand, useHandState } from './hand/useHand'
import { OthersLines } from './OthersLines'
import { ShapeMark } from './marks/ShapeMark'
import { StampMark } from './marks/SmallMarks'
import { Line } from './marks/ConnectorMark'

const shines = (nib: Nib | undefined) => (nib === 'highlighter' ? 'shines' : '')

/** What lies over the marks while a hand works: the growing line, the new shape, boxes and guides, what others do. */
export function Overlay({ sheet, marks }: { sheet: string | null; marks: readonly Element[] }) {
  return (
    <>
      {sheet !== null && <OthersLines sheet={sheet} />}
      <svg
        aria-hidden="true"
        className="pointer-events-none absolute inset-0 overflow-visible"
        width={FRAME.width}
        height={FRAME.height}
      >
        <OwnLine />
        <Catching />
        <Guides />
      </svg>
      <Names marks={marks} />
      <Sketch />
      {sheet !== null && <Pointers sheet={sheet} />}
      <Eraser />
      <Cursor />
    </>
  )
}

/** The line under the hand; the drawing gesture writes its path. */
function OwnLine() {
  const tool = useHandState((s) => s.tool)
  const settings = useHandState((s) => s.settings)
  const drawing = tool === 'pen' || tool === 'marker' || tool === 'highlighter' || tool === 'brush' ? tool : 'pen'
  return <path data-part="live-line" className={`${inkFill[settings[drawing].ink]} ${shines(drawing as Nib)}`} />
}

/** The box or lasso that catches marks. */
function Catching() {
  const box = useHandState((s) => s.box)
  const lasso = useHandState((s) => s.lasso)
  const look = { className: 'fill-dusk/10 stroke-dusk', style: { strokeWidth: 'calc(var(--u) * 1.5px)' } }
  if (box) return <rect x={box.x} y={box.y} width={box.w} height={box.h} {...look} />
  if (lasso) return <path d={`M${lasso.map((p) => `${p.x} ${p.y}`).join('L')}Z`} {...look} strokeDasharray="10 6" />
  return null
}

function Guides() {
  const guides = useHandState((s) => s.guides)
  return guides.map(({ way, at, from, to }) => (
    <path
      key={`${way}${at}`}
      d={way === 'down' ? `M${at} ${from}V${to}` : `M${from} ${at}H${to}`}
      className="stroke-glow"
      style={{ strokeWidth: 'calc(var(--u) * 1px)' }}
    />
  ))
}

/** Whose is what: a tab on everything that has none of its own, when names are shown. */
function Names({ marks }: { marks: readonly Element[] }) {
  const hand = useHand()
  const names = useHandState((s) => s.names)
  const only = useHandState((s) => s.only)
  if (!names) return null
  return marks
    .filter(
      (m) => m.author && !['note', 'text', 'answer', 'handed'].includes(m.kind) && (only === null || m.author === only),
    )
    .map((m) => {
      const box = boundsOf(m)
      return (
        <span
          key={m.id}
          aria-hidden="true"
          data-part="name"
          className={`pointer-events-none absolute max-w-52 truncate rounded-md px-2 text-[18px] font-semibold text-paper ${hueOf(m.author!)}`}
          style={{ left: box.x, top: Math.max(0, box.y - 26) }}
        >
          {hand.nameOf(m.author)}
        </span>
      )
    })
}

/** The shape, arrow or stamp that is being laid down. */
function Sketch() {
  const sketch = useHandState((s) => s.sketch)
  const { ground } = useHand()
  if (!sketch) return null
  if (sketch.kind === 'shape') return <ShapeMark mark={sketch} fixed />
  if (sketch.kind === 'stamp') return <StampMark mark={sketch} fixed />
  if (sketch.kind !== 'connector') return null
  return (
    <svg aria-hidden="true" className="pointer-events-none absolute inset-0 overflow-visible" width="1" height="1">
      <Line mark={sketch} all={ground.marks} />
    </svg>
  )
}

/** The round eraser, as large as what it takes. */
function Eraser() {
  const erasing = useHandState((s) => s.erasing)
  if (!erasing) return null
  const [x, y] = erasing.path.slice(-2)
  const r = erasing.radius
  return (
    <span
      aria-hidden="true"
      data-part="eraser"
      className="pointer-events-none absolute rounded-full border-2 border-night bg-paper/60"
      style={{ left: x! - r, top: y! - r, width: 2 * r, height: 2 * r }}
    />
  )
}

/** Where the keyboard, or one's own pointer, points. */
function Cursor() {
  const cursor = useHandState((s) => s.cursor)
  const tool = useHandState((s) => s.tool)
  if (!cursor || tool === 'select') return null
  return tool === 'pointer' ? (
    <Glow x={cursor.x} y={cursor.y} />
  ) : (
    <svg
      aria-hidden="true"
      className="pointer-events-none absolute stroke-glow"
      style={{ left: cursor.x - 30, top: cursor.y - 30 }}
      width="60"
      height="60"
      strokeWidth="4"
    >
      <path d="M30 0v22M30 38v22M0 30h22M38 30h22" />
    </svg>
  )
}

const Glow = ({ x, y }: { x: number; y: number }) => (
  <span
    aria-hidden="true"
    className="pointer-events-none absolute size-11 rounded-full border-4 border-paper bg-glow shadow-[0_0_24px] shadow-glow"
    style={{ left: x - 22, top: y - 22 }}
  />
)

/** Others' pointers, each with a name; they fade when they rest. */
function Pointers({ sheet }: { sheet: string }) {
  const { passing } = useBench()
  const hand = useHand()
  const [pointers, setPointers] = useState<Array<{ by: string; x: number; y: number }>>([])
  useEffect(
    () =>
      passing.listen(() => {
        const here = [...passing.pointers.values()].filter((p) => p.sheet === sheet)
        setPointers((before) =>
          before.length === here.length && before.every((p, i) => p.x === here[i]!.x && p.y === here[i]!.y)
            ? before
            : here.map(({ by, x, y }) => ({ by, x, y })),
        )
      }),
    [passing, sheet],
  )
  return pointers.map(({ by, x, y }) => (
    <span
      key={by}
      aria-hidden="true"
      data-part="pointer"
      className="pointer-events-none absolute z-10 motion-safe:animate-[fade_1.8s_ease-in_forwards]"
      style={{ left: 0, top: 0, transform: `translate(${x}px, ${y}px)` }}
      ref={(at) => void at?.getAnimations().forEach((a) => (a.currentTime = 0))}
    >
      <Glow x={0} y={0} />
      <span
        className={`absolute top-5 left-5 rounded-lg px-2.5 text-[22px] font-semibold whitespace-nowrap text-paper ${hueOf(by)}`}
      >
        {hand.nameOf(by)}
      </span>
    </span>
  ))
}
