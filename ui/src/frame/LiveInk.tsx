import { useRef, type PointerEvent } from 'react'
import type { Stroke } from '../wire/types.gen'
import { inkFill } from './colours'
import { FRAME, outlinePath } from './geometry'

type Props = {
  scale: number
  pen: { ink: Stroke['ink']; width: number }
  onStroke: (place: { x: number; y: number; w: number; h: number }, stroke: Stroke) => void
}

/** Points closer than this add nothing (frame units). */
const APART = 1.6
/** A longer line goes on in a new stroke, so that one message can hold each. */
const MAX_POINTS = 1200
/** After a pen was seen, fingers rest this long: a palm does not draw. */
const PALM_MS = 3000

/** Catches mouse, finger and pen over the frame and shows the line under the hand at once. */
export function LiveInk({ scale, pen, onStroke }: Props) {
  const path = useRef<SVGPathElement>(null)
  const points = useRef<number[]>([])
  const drawing = useRef<number | null>(null)
  const penSeen = useRef(-PALM_MS)

  const round = (n: number) => Math.round(n * 10) / 10
  const clamp = (n: number, max: number) => Math.max(0, Math.min(max, n))

  function add(e: globalThis.PointerEvent, box: DOMRect) {
    const x = clamp((e.clientX - box.left) / scale, FRAME.width)
    const y = clamp((e.clientY - box.top) / scale, FRAME.height)
    const all = points.current
    const [lastX, lastY] = all.slice(-3)
    if (lastX !== undefined && Math.hypot(x - lastX, y - lastY!) < APART) return
    // Mice and fingers press with 0.5 or with nothing at all.
    const pressure = e.pointerType === 'pen' ? e.pressure : 0.5
    all.push(round(x), round(y), Math.round(clamp(pressure, 1) * 100) / 100)
  }

  function finish() {
    const all = points.current
    if (all.length > 0) {
      let [x, y, right, bottom] = [Infinity, Infinity, 0, 0]
      for (let i = 0; i < all.length; i += 3) {
        x = Math.min(x, all[i]!)
        y = Math.min(y, all[i + 1]!)
        right = Math.max(right, all[i]!)
        bottom = Math.max(bottom, all[i + 1]!)
      }
      const own = all.map((n, i) => (i % 3 === 0 ? round(n - x) : i % 3 === 1 ? round(n - y) : n))
      onStroke({ x, y, w: round(right - x), h: round(bottom - y) }, { points: own, ...pen })
    }
    points.current = []
    path.current?.setAttribute('d', '')
  }

  const show = () => path.current?.setAttribute('d', outlinePath(points.current, pen.width, false))

  function down(e: PointerEvent<HTMLDivElement>) {
    if (e.pointerType === 'pen') penSeen.current = e.timeStamp
    const palm = e.pointerType === 'touch' && e.timeStamp - penSeen.current < PALM_MS
    if (drawing.current !== null || e.button !== 0 || palm) return
    drawing.current = e.pointerId
    e.currentTarget.setPointerCapture(e.pointerId)
    points.current = []
    add(e.nativeEvent, e.currentTarget.getBoundingClientRect())
    show()
  }

  function move(e: PointerEvent<HTMLDivElement>) {
    if (e.pointerType === 'pen') penSeen.current = e.timeStamp
    if (drawing.current !== e.pointerId) return
    const box = e.currentTarget.getBoundingClientRect()
    const steps = e.nativeEvent.getCoalescedEvents?.() ?? []
    for (const step of steps.length > 0 ? steps : [e.nativeEvent]) add(step, box)
    if (points.current.length >= 3 * MAX_POINTS) {
      const last = points.current.slice(-3)
      finish()
      points.current = last
    }
    show()
  }

  function up(e: PointerEvent<HTMLDivElement>) {
    if (drawing.current !== e.pointerId) return
    drawing.current = null
    finish()
  }

  return (
    <div
      className="absolute inset-0 cursor-crosshair"
      style={{ touchAction: 'none' }}
      data-part="ink"
      onPointerDown={down}
      onPointerMove={move}
      onPointerUp={up}
      onPointerCancel={up}
    >
      <svg
        aria-hidden="true"
        className="pointer-events-none absolute inset-0 overflow-visible"
        width={FRAME.width}
        height={FRAME.height}
      >
        <path ref={path} className={inkFill[pen.ink]} />
      </svg>
    </div>
  )
}
