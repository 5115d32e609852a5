import type { Element } from '../../wire/types.gen'
import { FRAME, tenth, type Point } from '../paint/geometry'
import type { Hand } from './hand'

/** A hand that is down on the frame. */
export type Gesture = {
  move: (steps: PointerEvent[]) => void
  up: (e: PointerEvent) => void
  /** Ends it as if it had never begun. */
  cancel: () => void
}

/** A place on the frame, kept inside it. */
export const onFrame = (hand: Hand, e: { clientX: number; clientY: number }): Point => {
  const p = hand.toFrame(e.clientX, e.clientY)
  return { x: tenth(Math.max(0, Math.min(FRAME.width, p.x))), y: tenth(Math.max(0, Math.min(FRAME.height, p.y))) }
}

/** The mark under a point of the screen, if there is one. */
export function markAt(hand: Hand, clientX: number, clientY: number): Element | undefined {
  for (const part of document.elementsFromPoint(clientX, clientY)) {
    const id = part.closest('[data-mark]')?.getAttribute('data-mark')
    const mark = id ? hand.ground.marks.find((m) => m.id === id) : undefined
    if (mark) return mark
  }
  return undefined
}
