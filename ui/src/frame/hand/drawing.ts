import { v7 as uuidv7 } from 'uuid'
import type { Nib } from '../../wire/types.gen'
import { boxed } from '../../rules/erase'
import { onFrame, type Gesture } from './gesture'
import type { Hand } from './hand'
import { outlinePath } from '../paint/outline'

/** Points closer than this add nothing (frame units). */
const APART = 1.6
/** A longer line goes on in a new stroke, so that one message can hold each. */
const MAX_POINTS = 1200
/** How often the others are told how the line grows. */
const TELL_EVERY_MS = 45

/** Draws with an ink tool: the line shows at once under the hand, and to the others while it grows. */
export function drawGesture(hand: Hand, e: PointerEvent): Gesture {
  const { tool, settings } = hand.now
  if (tool !== 'pen' && tool !== 'marker' && tool !== 'highlighter' && tool !== 'brush')
    throw new Error(`${tool} does not draw`)
  const nib: Nib = tool === 'pen' ? '' : tool
  const { ink, width } = settings[tool]
  const path = document.querySelector<SVGPathElement>('[data-part="live-line"]')
  path?.setAttribute('data-ink', ink)
  path?.setAttribute('data-nib', nib)
  let id = uuidv7()
  let points: number[] = []
  let told = 0
  let toldAt = e.timeStamp

  const add = (at: PointerEvent) => {
    const { x, y } = onFrame(hand, at)
    const [lastX, lastY] = points.slice(-3)
    if (lastX !== undefined && Math.hypot(x - lastX, y - lastY!) < APART) return
    // Mice and fingers press with 0.5 or with nothing at all.
    const pressure = at.pointerType === 'pen' ? Math.max(0, Math.min(1, at.pressure)) : 0.5
    points.push(x, y, Math.round(pressure * 100) / 100)
  }
  const show = () => path?.setAttribute('d', points.length > 0 ? outlinePath(points, width, nib) : '')
  const tell = (now: number) => {
    const { sheet } = hand.ground
    if (sheet === null || now - toldAt < TELL_EVERY_MS || points.length === told) return
    hand.bench.passing.draw(sheet, { stroke: id, points: points.slice(told).slice(-600), ink, width, nib })
    told = points.length
    toldAt = now
  }
  const keep = () => {
    if (points.length === 0) return
    const { place, own } = boxed(points)
    void hand.drew(id, place, { points: own, ink, width, ...(nib ? { nib } : {}) })
  }
  add(e)
  show()
  return {
    move(steps) {
      for (const step of steps) add(step)
      if (points.length >= 3 * MAX_POINTS) {
        const last = points.slice(-3)
        keep()
        id = uuidv7()
        points = last
        told = 0
      }
      tell(steps.at(-1)!.timeStamp)
      show()
    },
    up() {
      keep()
      points = []
      show()
    },
    cancel() {
      points = []
      show()
    },
  }
}
