import { useEffect, useRef, useState, type PointerEvent } from 'react'

type Drag = { what: string; over: string | null }

/** From how far on a press is a drag, in pixels. */
const FAR = 4

/**
 * Drags things by their handles onto places: elements with data-drop and a name, within the list. What is
 * over a place is told while it moves where that is wanted, and where it was let go. There is always another
 * way beside it, by buttons or lists.
 */
export function useDrag(onDrop: (what: string, on: string) => void, onOver?: (what: string, on: string) => void) {
  const [drag, setDrag] = useState<Drag | null>(null)
  const moving = useRef<{ stop: () => void } | null>(null)
  // What is told is always the latest.
  const tell = useRef({ onDrop, onOver })
  useEffect(() => {
    tell.current = { onDrop, onOver }
  })
  useEffect(() => () => moving.current?.stop(), [])

  function begin(e: PointerEvent<HTMLElement>, what: string) {
    if (e.button !== 0 || moving.current) return
    const handle = e.currentTarget
    const piece = handle.closest<HTMLElement>('[data-drag]')
    const list = handle.closest<HTMLElement>('[data-drags]')
    if (!piece || !list) return
    e.preventDefault()
    const from = { x: e.clientX, y: e.clientY }
    const { pointerId } = e
    let far = false
    let over: string | null = null
    handle.setPointerCapture(pointerId)
    const move = (at: globalThis.PointerEvent) => {
      if (at.pointerId !== pointerId) return
      const [x, y] = [at.clientX - from.x, at.clientY - from.y]
      far ||= Math.hypot(x, y) > FAR
      if (!far) return
      // On a frame that is shown smaller, or larger, a pixel of the screen is more than one of it, or less.
      const scale = piece.getBoundingClientRect().width / piece.offsetWidth || 1
      if (!tell.current.onOver) piece.style.transform = `translate(${x / scale}px, ${y / scale}px)`
      const on = document
        .elementsFromPoint(at.clientX, at.clientY)
        .map((el) => el.closest<HTMLElement>('[data-drop]'))
        .find((el) => el && list.contains(el) && el.dataset.drop !== what)
      over = on?.dataset.drop ?? null
      setDrag({ what, over })
      if (over) tell.current.onOver?.(what, over)
    }
    const stop = () => {
      removeEventListener('pointermove', move)
      removeEventListener('pointerup', drop)
      removeEventListener('pointercancel', stop)
      piece.style.transform = ''
      moving.current = null
      setDrag(null)
    }
    const drop = (at: globalThis.PointerEvent) => {
      if (at.pointerId !== pointerId) return
      const on = over
      stop()
      if (far && on) tell.current.onDrop(what, on)
    }
    addEventListener('pointermove', move)
    addEventListener('pointerup', drop)
    addEventListener('pointercancel', stop)
    moving.current = { stop }
  }

  /** What makes an element the handle of a thing. */
  const handle = (what: string) => ({
    'data-own-hand': true,
    onPointerDown: (e: PointerEvent<HTMLElement>) => begin(e, what),
    style: { touchAction: 'none' as const },
  })
  return { handle, dragged: drag?.what ?? null, over: drag?.over ?? null }
}
