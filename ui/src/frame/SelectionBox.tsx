import { RotateCw } from 'lucide-react'
import { useRef, useState, type PointerEvent } from 'react'
import type { Anchor, Element } from '../wire/types.gen'
import { resized, turnedBy } from './hand/arrange'
import { around, boundsOf, boxOf, centre, endsOf, type Box } from './paint/geometry'
import { anchorAt } from './hand/gestures'
import { useHand, useHandState } from './hand/useHand'

type Pull = { from: Box; to: Box; degrees: number }

/** The handles around what is selected: a corner resizes, the round one turns. */
export default function SelectionBox({ marks }: { marks: readonly Element[] }) {
  const hand = useHand()
  const selected = useHandState((s) => s.selected)
  const shift = useHandState((s) => s.shift)
  const editing = useHandState((s) => s.editing)
  const tool = useHandState((s) => s.tool)
  const [pull, setPull] = useState<Pull | null>(null)
  const start = useRef<{ x: number; y: number } | null>(null)
  const mine = marks.filter((m) => selected.has(m.id) && hand.mayMove(m))
  // Notes in columns lie by themselves. Pieces keep their size, and what bears a table or a poll stands upright.
  const stands = hand.ground.columns !== null && mine.some((m) => m.kind === 'note' && !hand.isPiece(m))
  const resizes = !stands && mine.every(hand.mayChange)
  const turns = !stands && mine.every((m) => !['cover', 'poll', 'table'].includes(m.kind))
  if (tool !== 'select' || editing || shift || mine.length === 0) return null
  const single = mine.length === 1 ? mine[0]! : null
  if (single?.kind === 'connector') return <Ends mark={single} marks={marks} />
  const turn = single?.turn ?? 0
  const box = single ? boxOf(single) : around(mine.map(boundsOf))
  if (!box) return null
  const shown = pull?.to ?? box
  const even = mine.some((m) => m.kind === 'stamp' || m.kind === 'picture' || (m.turn && mine.length > 1))

  const corner = {
    onPointerDown(e: PointerEvent) {
      e.stopPropagation()
      e.currentTarget.setPointerCapture(e.pointerId)
      start.current = hand.toFrame(e.clientX, e.clientY)
      setPull({ from: box, to: box, degrees: 0 })
    },
    onPointerMove(e: PointerEvent) {
      if (!start.current || !pull) return
      const p = hand.toFrame(e.clientX, e.clientY)
      const a = (-turn * Math.PI) / 180
      const [dx, dy] = [p.x - start.current.x, p.y - start.current.y]
      const wide = dx * Math.cos(a) - dy * Math.sin(a)
      const tall = dx * Math.sin(a) + dy * Math.cos(a)
      let w = Math.max(24, Math.min(1600 - box.x, box.w + wide))
      let h = Math.max(24, Math.min(1000 - box.y, box.h + tall))
      if (even || e.shiftKey) {
        const k = Math.max(w / (box.w || 1), h / (box.h || 1))
        w = Math.min(box.w * k, 1600 - box.x)
        h = Math.min(box.h * k, 1000 - box.y)
      }
      if (box.w === 0) w = 0
      if (box.h === 0) h = 0
      setPull({ from: box, to: { ...box, w, h }, degrees: 0 })
    },
    onPointerUp() {
      if (pull && (pull.to.w !== box.w || pull.to.h !== box.h)) hand.do(resized(mine, pull.from, pull.to))
      start.current = null
      setPull(null)
    },
    onPointerCancel() {
      start.current = null
      setPull(null)
    },
  }
  const knob = {
    onPointerDown(e: PointerEvent) {
      e.stopPropagation()
      e.currentTarget.setPointerCapture(e.pointerId)
      start.current = hand.toFrame(e.clientX, e.clientY)
      setPull({ from: box, to: box, degrees: 0 })
    },
    onPointerMove(e: PointerEvent) {
      if (!start.current || !pull) return
      const c = centre(box)
      const p = hand.toFrame(e.clientX, e.clientY)
      const at = (q: { x: number; y: number }) => Math.atan2(q.y - c.y, q.x - c.x)
      let degrees = ((at(p) - at(start.current)) * 180) / Math.PI
      // It snaps to fifteen degrees; Alt turns freely.
      if (!e.altKey) degrees = Math.round((turn + degrees) / 15) * 15 - turn
      setPull({ from: box, to: box, degrees: Math.round(degrees) })
    },
    onPointerUp() {
      if (pull?.degrees) hand.do(turnedBy(mine, pull.degrees))
      start.current = null
      setPull(null)
    },
    onPointerCancel: corner.onPointerCancel,
  }
  // A finger's width around a grip catches it.
  const grip =
    'absolute touch-none rounded-full border-dusk bg-paper pointer-events-auto before:absolute before:inset-[calc(var(--u)*-6px)] before:rounded-full'
  const size = 'calc(var(--u) * 24px)'
  return (
    <div
      aria-hidden="true"
      data-part="selection"
      data-own-hand
      className="pointer-events-none absolute border-dusk"
      style={{
        left: shown.x,
        top: shown.y,
        width: shown.w,
        height: shown.h,
        rotate: `${turn + (pull?.degrees ?? 0)}deg`,
        borderWidth: 'calc(var(--u) * 1.5px)',
        borderStyle: pull || mine.length > 1 ? 'dashed' : 'solid',
      }}
    >
      {resizes && (
        <span
          {...corner}
          data-part="resize"
          className={`${grip} cursor-nwse-resize`}
          style={{
            right: `calc(var(--u) * -12px)`,
            bottom: `calc(var(--u) * -12px)`,
            width: size,
            height: size,
            borderWidth: 'calc(var(--u) * 3px)',
          }}
        />
      )}
      {turns && (
        <span
          {...knob}
          data-part="turn"
          className={`${grip} grid cursor-grab place-items-center text-dusk`}
          style={{
            left: `calc(50% - var(--u) * 13px)`,
            bottom: `calc(var(--u) * -42px)`,
            width: 'calc(var(--u) * 26px)',
            height: 'calc(var(--u) * 26px)',
            borderWidth: 'calc(var(--u) * 2px)',
          }}
        >
          <RotateCw style={{ width: 'calc(var(--u) * 14px)', height: 'calc(var(--u) * 14px)' }} />
        </span>
      )}
      {!!pull?.degrees && (
        <span
          className="absolute top-full left-1/2 rounded bg-night px-1 text-paper"
          style={{ fontSize: 'calc(var(--u) * 13px)', marginTop: 'calc(var(--u) * 46px)' }}
        >
          {pull.degrees}°
        </span>
      )}
    </div>
  )
}

/** The handles of a line or arrow: each end can be taken somewhere else, on to another mark or off it. */
function Ends({ mark, marks }: { mark: Element & { kind: 'connector' }; marks: readonly Element[] }) {
  const hand = useHand()
  const [pulled, setPulled] = useState<{ end: 'from' | 'to'; to: Anchor } | null>(null)
  const { connector } = mark
  const shown = pulled ? { ...connector, [pulled.end]: pulled.to } : connector
  const ends = endsOf(shown, (id) => marks.find((m) => m.id === id))
  return (['from', 'to'] as const).map((end, i) => (
    <span
      key={end}
      aria-hidden="true"
      data-part={`end-${end}`}
      data-own-hand
      className="pointer-events-auto absolute cursor-grab touch-none rounded-full border-dusk bg-paper"
      style={{
        left: `calc(${ends[i]!.x}px - var(--u) * 12px)`,
        top: `calc(${ends[i]!.y}px - var(--u) * 12px)`,
        width: 'calc(var(--u) * 24px)',
        height: 'calc(var(--u) * 24px)',
        borderWidth: 'calc(var(--u) * 3px)',
      }}
      onPointerDown={(e) => {
        e.stopPropagation()
        e.currentTarget.setPointerCapture(e.pointerId)
        setPulled({ end, to: connector[end] })
      }}
      onPointerMove={(e) => {
        if (!pulled) return
        const to = anchorAt(hand, e)
        const other = connector[end === 'from' ? 'to' : 'from']
        if (to.mark && to.mark === other.mark) delete to.mark
        setPulled({ end, to })
        hand.set({ sketch: { ...mark, connector: { ...connector, [end]: to } } })
      }}
      onPointerUp={() => {
        hand.set({ sketch: null })
        if (pulled && pulled.to !== connector[end]) hand.style(() => ({ [end]: pulled.to }))
        setPulled(null)
      }}
      onPointerCancel={() => {
        hand.set({ sketch: null })
        setPulled(null)
      }}
    />
  ))
}
