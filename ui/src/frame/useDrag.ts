import { useRef, type PointerEvent } from 'react'

type Drag = {
  /** Shows the way so far, in frame units. */
  onMove: (dx: number, dy: number) => void
  /** Ends the drag; not called for a mere tap. */
  onDrop: (dx: number, dy: number) => void
}

/** Drags something with mouse, finger or pen. A tap moves nothing. */
export function useDrag(scale: number, { onMove, onDrop }: Drag) {
  const from = useRef<{ x: number; y: number; moved: boolean } | null>(null)
  const way = (e: PointerEvent) =>
    [(e.clientX - from.current!.x) / scale, (e.clientY - from.current!.y) / scale] as const
  return {
    onPointerDown(e: PointerEvent) {
      if (e.button !== 0) return
      from.current = { x: e.clientX, y: e.clientY, moved: false }
      e.currentTarget.setPointerCapture(e.pointerId)
    },
    onPointerMove(e: PointerEvent) {
      if (!from.current) return
      const [dx, dy] = way(e)
      if (!from.current.moved && Math.hypot(dx, dy) * scale < 4) return
      from.current.moved = true
      onMove(dx, dy)
    },
    onPointerUp(e: PointerEvent) {
      if (from.current?.moved) onDrop(...way(e))
      from.current = null
    },
    onPointerCancel() {
      if (from.current?.moved) onMove(0, 0)
      from.current = null
    },
  }
}
