import { isAnswer } from '../../rules/answers'
import type { Element } from '../../wire/types.gen'
import { snapped, within } from './arrange'
import { around, boundsOf } from '../paint/geometry'
import type { Gesture } from './gesture'
import type { Hand } from './hand'

/** How long a finger rests on a mark to ask whose it is. */
const LONG_PRESS_MS = 450

/** On the screen, how near a moving thing comes to a line before it is drawn to it. */
const SNAP_PX = 7

let lastTap: { mark: string; at: number } | null = null
const TWICE_MS = 400

/** Picks up a mark, with all that is selected with it, and moves it. A tap selects, a second one writes. */
export function moveGesture(hand: Hand, mark: Element, e: PointerEvent): Gesture {
  // From where on the screen: bringing a mark into focus may move the view under the pointer.
  const from = { x: e.clientX, y: e.clientY }
  const wasSelected = hand.now.selected.has(mark.id)
  if (!wasSelected && !e.shiftKey) hand.select([mark.id])
  document.querySelector<HTMLElement>(`[data-mark="${mark.id}"]`)?.focus({ preventScroll: true })
  let moving = false
  let gone = false
  const shows = setTimeout(() => {
    if (!moving && e.pointerType === 'touch') hand.state.setState({ asked: mark.id })
  }, LONG_PRESS_MS)
  // Pulling at a mark that is not selected takes that one alone.
  const marks = () => (e.shiftKey && !wasSelected ? [mark].filter(hand.mayMove) : hand.movable())
  const end = () => {
    clearTimeout(shows)
    gone = true
    hand.set({ shift: null, guides: [] })
  }
  return {
    move(steps) {
      const step = steps.at(-1)!
      let [dx, dy] = [(step.clientX - from.x) / hand.scale, (step.clientY - from.y) / hand.scale]
      if (gone || (!moving && Math.hypot(dx, dy) * hand.scale < 5)) return
      moving = true
      clearTimeout(shows)
      const mine = marks()
      const box = around(mine.map(boundsOf))
      if (!box) return
      // Shift keeps to one direction, Alt leaves the guides out.
      if (step.shiftKey) [dx, dy] = Math.abs(dx) > Math.abs(dy) ? [dx, 0] : [0, dy]
      const ids = new Set(mine.map((m) => m.id))
      let guides: ReturnType<typeof snapped>['guides'] = []
      if (!step.altKey) {
        const others = hand.ground.marks.filter(
          (m) => !ids.has(m.id) && m.kind !== 'stroke' && m.kind !== 'connector' && !isAnswer(m),
        )
        const drawnTo = snapped({ ...box, x: box.x + dx, y: box.y + dy }, others.map(boundsOf), SNAP_PX / hand.scale)
        dx += drawnTo.dx
        dy += drawnTo.dy
        guides = drawnTo.guides
      }
      ;[dx, dy] = within(mine, dx, dy)
      hand.set({ shift: { ids, dx, dy }, guides })
    },
    up(up) {
      const { shift } = hand.now
      end()
      if (shift) {
        hand.shift(marks(), shift.dx, shift.dy)
        return
      }
      if (moving) return
      if (e.shiftKey) hand.toggle(mark.id)
      else if (wasSelected && hand.now.selected.size > 1) hand.select([mark.id])
      if (lastTap?.mark === mark.id && up.timeStamp - lastTap.at < TWICE_MS) hand.open(mark)
      lastTap = { mark: mark.id, at: up.timeStamp }
    },
    cancel: end,
  }
}
