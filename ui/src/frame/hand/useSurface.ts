import { useEffect, type RefObject } from 'react'
import { markAt, type Gesture } from './gesture'
import { start } from './gestures'
import { useHand } from './useHand'
import type { Hand } from './hand'

/** After a pen was seen, single fingers rest this long: a palm does not draw. */
const PALM_MS = 2500

/** Catches mouse, finger and pen over the frame, and the wheel. */
export function useSurface(viewport: RefObject<HTMLDivElement | null>) {
  const hand = useHand()
  useEffect(() => {
    const at = viewport.current
    return at ? listen(at, hand) : undefined
  }, [hand, viewport])
}

/** Parts of the frame that look after themselves. */
const keepsItself = (target: EventTarget | null) =>
  target instanceof Element && target.closest('[data-own-hand], input, textarea, a[href], label') !== null

function listen(at: HTMLDivElement, hand: Hand) {
  const touches = new Map<number, { x: number; y: number }>()
  let gesture: Gesture | null = null
  let pointer: number | null = null
  /** With what the gesture that is under way is made: mouse, touch or pen. */
  let kind = ''
  let pinch: { distance: number; zoom: number } | null = null
  let pan: { id: number; x: number; y: number } | null = null
  let penSeen = -PALM_MS
  let space = false

  const cancel = () => {
    gesture?.cancel()
    gesture = null
    pointer = null
  }

  function down(e: PointerEvent) {
    if (e.pointerType === 'pen') {
      penSeen = e.timeStamp
      // The palm may have come first: what it began is not meant.
      if (pointer !== null && kind === 'touch') cancel()
      pinch = null
      touches.clear()
    }
    if (e.pointerType === 'touch') {
      // While a pen draws, and for a while after, touches are a palm.
      if ((pointer !== null && kind === 'pen') || e.timeStamp - penSeen < PALM_MS) return
      touches.set(e.pointerId, { x: e.clientX, y: e.clientY })
      if (touches.size === 2) {
        cancel()
        pan = null
        pinch = { distance: spread(), zoom: hand.now.view.zoom }
        return
      }
      if (touches.size > 2) return
    }
    if (pointer !== null || pan) return
    if (e.button === 1 || (e.button === 0 && space)) {
      e.preventDefault()
      pan = { id: e.pointerId, x: e.clientX, y: e.clientY }
      at.setPointerCapture(e.pointerId)
      return
    }
    if (e.button !== 0 || keepsItself(e.target)) return
    if (e.pointerType === 'touch' && hand.now.tool === 'select' && !hand.now.settings.select.lasso) {
      // A finger beside everything moves what is seen, where not all of it is.
      if (hand.now.view.zoom > 1 && !markAt(hand, e.clientX, e.clientY)) {
        pan = { id: e.pointerId, x: e.clientX, y: e.clientY }
        at.setPointerCapture(e.pointerId)
        return
      }
    }
    const begun = start(hand, e)
    if (!begun) return
    // The browser would move the focus, or begin to select words.
    e.preventDefault()
    if (!at.contains(document.activeElement) || document.activeElement instanceof HTMLTextAreaElement)
      at.closest<HTMLElement>('[data-part="workplace"]')?.focus({ preventScroll: true })
    gesture = begun
    pointer = e.pointerId
    kind = e.pointerType
    at.setPointerCapture(e.pointerId)
  }

  const middle = () => {
    const all = [...touches.values()]
    return { x: all.reduce((s, p) => s + p.x, 0) / all.length, y: all.reduce((s, p) => s + p.y, 0) / all.length }
  }
  const spread = () => {
    const [a, b] = [...touches.values()]
    return a && b ? Math.hypot(a.x - b.x, a.y - b.y) : 0
  }
  const panBy = (dx: number, dy: number) => {
    const { x, y } = hand.now.view
    hand.look({ x: x - dx / hand.scale, y: y - dy / hand.scale })
  }

  function move(e: PointerEvent) {
    if (e.pointerType === 'pen') penSeen = e.timeStamp
    const touch = touches.get(e.pointerId)
    if (touch && pinch) {
      const before = middle()
      touches.set(e.pointerId, { x: e.clientX, y: e.clientY })
      const after = middle()
      panBy(after.x - before.x, after.y - before.y)
      if (touches.size === 2 && pinch.distance > 0)
        hand.zoomAt((pinch.zoom * spread()) / pinch.distance, hand.toFrame(after.x, after.y))
      return
    }
    if (touch) touches.set(e.pointerId, { x: e.clientX, y: e.clientY })
    if (pan?.id === e.pointerId) {
      panBy(e.clientX - pan.x, e.clientY - pan.y)
      pan = { ...pan, x: e.clientX, y: e.clientY }
    } else if (pointer === e.pointerId && gesture) {
      const steps = e.getCoalescedEvents?.() ?? []
      gesture.move(steps.length > 0 ? steps : [e])
    }
  }

  function up(e: PointerEvent) {
    touches.delete(e.pointerId)
    if (pinch && touches.size < 2) pinch = null
    if (pan?.id === e.pointerId) pan = null
    if (pointer !== e.pointerId) return
    const done = gesture
    gesture = null
    pointer = null
    if (e.type === 'pointercancel') done?.cancel()
    else done?.up(e)
  }

  function wheel(e: WheelEvent) {
    e.preventDefault()
    const step = e.deltaMode === WheelEvent.DOM_DELTA_LINE ? 16 : 1
    if (e.ctrlKey || e.metaKey || hand.now.view.zoom <= 1) {
      if (e.shiftKey) return
      hand.zoomAt(hand.now.view.zoom * Math.exp((-e.deltaY * step) / 400), hand.toFrame(e.clientX, e.clientY))
    } else panBy(-(e.shiftKey ? e.deltaY : e.deltaX) * step, -(e.shiftKey ? 0 : e.deltaY) * step)
  }

  const key = (e: KeyboardEvent) => {
    if (e.key !== ' ' || keepsItself(e.target)) return
    const here = at.closest('[data-part="workplace"]')
    space = e.type === 'keydown' && (document.activeElement === here || document.activeElement === document.body)
    at.style.cursor = space ? 'grab' : ''
  }

  // A finger that rests asks whose a mark is; the browser's own menu would cover it.
  const menu = (e: Event) => touches.size > 0 && e.preventDefault()

  const passive = { passive: false }
  at.addEventListener('pointerdown', down)
  at.addEventListener('pointermove', move)
  at.addEventListener('pointerup', up)
  at.addEventListener('pointercancel', up)
  at.addEventListener('wheel', wheel, passive)
  at.addEventListener('contextmenu', menu)
  document.addEventListener('keydown', key)
  document.addEventListener('keyup', key)
  return () => {
    cancel()
    at.removeEventListener('pointerdown', down)
    at.removeEventListener('pointermove', move)
    at.removeEventListener('pointerup', up)
    at.removeEventListener('pointercancel', up)
    at.removeEventListener('wheel', wheel)
    at.removeEventListener('contextmenu', menu)
    document.removeEventListener('keydown', key)
    document.removeEventListener('keyup', key)
  }
}
