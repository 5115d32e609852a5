import { isAnswer } from '../../rules/answers'
import { v7 as uuidv7 } from 'uuid'
import type { Anchor, Element } from '../../wire/types.gen'
import { drawGesture } from './drawing'
import { inside, overlaps, tenth, boundsOf, caught, inPolygon, centre, type Box, type Point } from '../paint/geometry'
import { isDraft } from './draft'
import { markAt, onFrame, type Gesture } from './gesture'
import { isInk } from './state'
import type { Hand } from './hand'
import { drawn } from '../../rules/erase'
import { moveGesture } from './moving'
import { isRemoved } from '../../rules/standing'

/** Begins what the hand's tool does where it comes down; null for nothing. */
export function start(hand: Hand, e: PointerEvent): Gesture | null {
  const { tool } = hand.now
  if (hand.now.editing) hand.edit(null)
  if (tool === 'pointer') return pointGesture(hand, e)
  if (tool === 'select') {
    const mark = markAt(hand, e.clientX, e.clientY)
    return mark ? moveGesture(hand, mark, e) : catchGesture(hand, e)
  }
  if (!hand.ground.works) return null
  if (isInk(tool)) return drawGesture(hand, e)
  if (tool === 'eraser') return eraseGesture(hand, e)
  if (tool === 'shape') return shapeGesture(hand, e)
  if (tool === 'connector') return connectGesture(hand, e)
  if (tool === 'stamp') return stampGesture(hand, e)
  return null
}

const nothing = { z: Number.MAX_SAFE_INTEGER, at: 0 }

/** Catches marks with a box or a lasso drawn around them. */
function catchGesture(hand: Hand, e: PointerEvent): Gesture {
  const from = onFrame(hand, e)
  const before = e.shiftKey ? [...hand.now.selected] : []
  const { lasso } = hand.now.settings.select
  const way: Point[] = [from]
  if (!e.shiftKey) hand.select([])
  const end = () => hand.set({ box: null, lasso: null })
  return {
    move(steps) {
      for (const step of steps) way.push(onFrame(hand, step))
      const to = way.at(-1)!
      if (Math.hypot(to.x - from.x, to.y - from.y) * hand.scale < 4 && way.length < 4) return
      if (lasso) hand.set({ lasso: [...way] })
      else hand.set({ box: boxBetween(from, to) })
    },
    up() {
      const { box } = hand.now
      const marks = hand.ground.marks.filter((m) => !isAnswer(m) && !isRemoved(m))
      if (box) hand.select([...before, ...marks.filter((m) => overlaps(boundsOf(m), box)).map((m) => m.id)])
      else if (hand.now.lasso) hand.select([...before, ...marks.filter((m) => caughtBy(m, way)).map((m) => m.id)])
      end()
    },
    cancel: end,
  }
}

const caughtBy = (mark: Element, lasso: Point[]) =>
  mark.kind === 'stroke' ? caught(drawn(mark), lasso) : inPolygon(lasso, centre(boundsOf(mark)))

const boxBetween = (a: Point, b: Point): Box => ({
  x: tenth(Math.min(a.x, b.x)),
  y: tenth(Math.min(a.y, b.y)),
  w: tenth(Math.abs(a.x - b.x)),
  h: tenth(Math.abs(a.y - b.y)),
})

/** How many numbers of an eraser's way go into one operation. */
const MAX_WAY = 600

/** Takes ink away under the eraser. */
function eraseGesture(hand: Hand, e: PointerEvent): Gesture {
  const { radius, part } = hand.now.settings.eraser
  const from = onFrame(hand, e)
  let path = [from.x, from.y]
  const show = () => hand.set({ erasing: { path, radius, part }, cursor: null })
  show()
  return {
    move(steps) {
      const next = [...path]
      for (const step of steps) {
        const p = onFrame(hand, step)
        const [x, y] = next.slice(-2)
        if (Math.hypot(p.x - x!, p.y - y!) >= 2) next.push(p.x, p.y)
      }
      path = next
      if (path.length >= MAX_WAY) {
        // A long way is taken in parts.
        hand.erase({ path, radius, part })
        path = path.slice(-2)
      }
      show()
    },
    up() {
      hand.erase({ path, radius, part })
    },
    cancel: () => hand.set({ erasing: null }),
  }
}

/** Draws a shape from corner to corner; a tap lays one of a usual size. */
function shapeGesture(hand: Hand, e: PointerEvent): Gesture {
  const from = onFrame(hand, e)
  const id = uuidv7()
  const shape = { ...hand.now.settings.shape }
  const sketch = (box: Box): Element => ({ ...nothing, ...box, id, author: hand.ground.me, kind: 'shape', shape })
  return {
    move(steps) {
      const step = steps.at(-1)!
      const box = boxBetween(from, onFrame(hand, step))
      if (step.shiftKey) {
        // Even sides, growing away from where it began.
        const side = Math.min(box.w, box.h)
        const to = onFrame(hand, step)
        box.x = to.x < from.x ? from.x - side : from.x
        box.y = to.y < from.y ? from.y - side : from.y
        box.w = box.h = side
      }
      hand.set({ sketch: sketch(box) })
    },
    up() {
      const drawn = hand.now.sketch
      const small = !drawn || Math.max(drawn.w, drawn.h) < 16
      const box = small
        ? { ...inside(from.x - 110, from.y - 80, 220, 160), w: 220, h: 160 }
        : { ...drawn, w: Math.max(8, drawn.w), h: Math.max(8, drawn.h) }
      hand.set({ sketch: null })
      hand.put(sketch({ ...inside(box.x, box.y, box.w, box.h), w: box.w, h: box.h }))
      hand.set({ tool: 'select', selected: new Set([id]) })
    },
    cancel: () => hand.set({ sketch: null }),
  }
}

/** Where an end of a connector comes to lie: on the frame, and attached to what is there. */
export function anchorAt(hand: Hand, at: { clientX: number; clientY: number }): Anchor {
  const mark = markAt(hand, at.clientX, at.clientY)
  const attaches = mark && mark.kind !== 'connector' && mark.kind !== 'stroke' && !isAnswer(mark) && !isDraft(mark)
  return { ...onFrame(hand, at), ...(attaches ? { mark: mark.id } : {}) }
}

/** Draws a line or an arrow, attached to the marks that it begins and ends on. */
function connectGesture(hand: Hand, e: PointerEvent): Gesture {
  const id = uuidv7()
  const from = anchorAt(hand, e)
  const sketch = (to: Anchor): Element => ({
    ...nothing,
    ...boxBetween(from, to),
    id,
    author: hand.ground.me,
    kind: 'connector',
    connector: { from, to, ...hand.now.settings.connector },
  })
  return {
    move(steps) {
      const to = anchorAt(hand, steps.at(-1)!)
      if (to.mark && to.mark === from.mark) delete to.mark
      hand.set({ sketch: sketch(to) })
    },
    up() {
      const drawn = hand.now.sketch
      hand.set({ sketch: null })
      if (drawn && Math.hypot(drawn.w, drawn.h) >= 12) hand.put(drawn)
    },
    cancel: () => hand.set({ sketch: null }),
  }
}

export const STAMP = 96

function stampGesture(hand: Hand, e: PointerEvent): Gesture {
  let at = onFrame(hand, e)
  const id = uuidv7()
  const stamp = (p: Point): Element => ({
    ...nothing,
    ...inside(p.x - STAMP / 2, p.y - STAMP / 2, STAMP, STAMP),
    w: STAMP,
    h: STAMP,
    id,
    author: hand.ground.me,
    kind: 'stamp',
    stamp: { ...hand.now.settings.stamp },
  })
  hand.set({ sketch: stamp(at) })
  return {
    move(steps) {
      at = onFrame(hand, steps.at(-1)!)
      hand.set({ sketch: stamp(at) })
    },
    up() {
      hand.set({ sketch: null })
      hand.put(stamp(at))
    },
    cancel: () => hand.set({ sketch: null }),
  }
}

const POINT_EVERY_MS = 40

/** Shows the others where this hand points. */
function pointGesture(hand: Hand, e: PointerEvent): Gesture {
  let told = -POINT_EVERY_MS
  const tell = (at: PointerEvent) => {
    const p = onFrame(hand, at)
    hand.set({ cursor: p })
    if (at.timeStamp - told < POINT_EVERY_MS || hand.ground.sheet === null) return
    told = at.timeStamp
    hand.bench.passing.point(hand.ground.sheet, p.x, p.y)
  }
  tell(e)
  const end = () => hand.set({ cursor: null })
  return { move: (steps) => tell(steps.at(-1)!), up: end, cancel: end }
}
