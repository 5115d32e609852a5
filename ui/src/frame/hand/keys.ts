import type { KeyboardEvent as ReactKeyboardEvent } from 'react'
import type { Element } from '../../wire/types.gen'
import { focusBehind } from './focus'
import type { Gesture } from './gesture'
import { start } from './gestures'
import { FRAME } from '../paint/geometry'
import { tools, type Tool } from './state'
import type { Hand } from './hand'

/** The keys of the tools: they are numbered as they lie on the ledge. */
export const toolKeys: Array<{ key: string; does: Tool | 'note' | 'text' | 'picture' }> = [
  { key: '1', does: 'select' },
  { key: '2', does: 'pen' },
  { key: '3', does: 'eraser' },
  { key: '4', does: 'note' },
  { key: '5', does: 'text' },
  { key: '6', does: 'shape' },
  { key: '7', does: 'connector' },
  { key: '8', does: 'stamp' },
  { key: '9', does: 'picture' },
  { key: '0', does: 'pointer' },
]

export const keyOf = (does: string) => toolKeys.find((k) => k.does === does)?.key

const arrows: Record<string, [number, number]> = {
  ArrowLeft: [-1, 0],
  ArrowRight: [1, 0],
  ArrowUp: [0, -1],
  ArrowDown: [0, 1],
}

const command = (e: { ctrlKey: boolean; metaKey: boolean }) => e.ctrlKey || e.metaKey

/** The keys on a focused mark. */
export function keyOnMark(hand: Hand, mark: Element, e: ReactKeyboardEvent) {
  if (hand.now.tool !== 'select' || command(e)) return
  const take = () => {
    e.preventDefault()
    e.stopPropagation()
  }
  if (e.key === ' ') {
    take()
    if (e.shiftKey) hand.toggle(mark.id)
    else hand.select([mark.id])
  } else if (e.key === 'Enter') {
    take()
    if (hand.mayChange(mark)) hand.open(mark)
    else hand.select([mark.id])
  } else if (e.key === 'Delete' || e.key === 'Backspace') {
    take()
    ownUp(hand, mark)
    focusBehind(hand.now.selected, () => hand.remove())
  } else if (arrows[e.key]) {
    take()
    ownUp(hand, mark)
    const [x, y] = arrows[e.key]!
    const step = e.shiftKey ? 50 : 10
    if (e.altKey) stretch(hand, x * step, y * step)
    else hand.nudge(x * step, y * step)
  }
}

/** A key on a mark that is not selected is about that mark alone. */
function ownUp(hand: Hand, mark: Element) {
  if (!hand.now.selected.has(mark.id)) hand.select([mark.id])
}

function stretch(hand: Hand, dw: number, dh: number) {
  hand.style((m) =>
    m.kind === 'connector'
      ? null
      : {
          w: Math.max(m.kind === 'stroke' ? 0 : 24, Math.min(FRAME.width - m.x, m.w + (m.w === 0 ? 0 : dw))),
          h: Math.max(m.kind === 'stroke' ? 0 : 24, Math.min(FRAME.height - m.y, m.h + (m.h === 0 ? 0 : dh))),
        },
  )
}

/** A gesture that the keyboard has begun: Space puts the tool down and lifts it. */
let down: { hand: Hand; gesture: Gesture } | null = null

/** Gives up what the keyboard has begun: the frame that it was begun on goes. */
export function leaveKeys(hand: Hand) {
  if (down?.hand !== hand) return
  down.gesture.cancel()
  down = null
  hand.set({ cursor: null })
}

/** What the keyboard does with a point of the frame, as a pointer would. */
function pointerAt(hand: Hand, e: KeyboardEvent): PointerEvent {
  const frame = document.querySelector('[data-part="frame"]')!.getBoundingClientRect()
  const { x, y } = hand.now.cursor ?? hand.middle()
  const clientX = frame.left + x * hand.scale
  const clientY = frame.top + y * hand.scale
  return new PointerEvent('pointermove', { clientX, clientY, pointerType: 'mouse', shiftKey: e.shiftKey })
}

/** The keys on the workplace as a whole; other parts have had theirs before. Returns whether the key was taken. */
export function keyOnFrame(hand: Hand, e: KeyboardEvent, more: { picture: () => void; help: () => void }): boolean {
  if (e.target instanceof HTMLInputElement || e.target instanceof HTMLTextAreaElement) return false
  const { tool } = hand.now
  if (command(e)) return keyWithCommand(hand, e)
  // Buttons and menus keep the keys that move and press.
  const control =
    e.target instanceof HTMLElement ? e.target.closest('button, a, select, [role="menu"], [data-mark]') : null
  const onControl = control !== null && !control.hasAttribute('data-mark')
  const found = toolKeys.find((k) => k.key === e.key)
  if (found && !e.altKey) {
    if (!hand.ground.works && !['select', 'pointer'].includes(found.does)) return false
    if (found.does === 'note' || found.does === 'text') hand.begin(found.does)
    else if (found.does === 'picture') more.picture()
    else hand.hold(found.does)
    return true
  }
  switch (e.key) {
    case '+':
    case '=':
      hand.look({ zoom: hand.now.view.zoom * 1.25 })
      return true
    case '-':
      hand.look({ zoom: hand.now.view.zoom / 1.25 })
      return true
    case '.':
      hand.fit()
      return true
    case '?':
      more.help()
      return true
    case '[':
      hand.turn(e.altKey ? -1 : -15)
      return true
    case ']':
      hand.turn(e.altKey ? 1 : 15)
      return true
    case 'Escape':
      leaveKeys(hand)
      hand.set({ cursor: null, offer: null, asked: null })
      if (tool !== 'select') hand.hold('select')
      else hand.select([])
      return true
    case 'Delete':
    case 'Backspace':
      if (onControl || hand.now.selected.size === 0) return false
      focusBehind(hand.now.selected, () => hand.remove())
      return true
  }
  if (onControl) return false
  if (arrows[e.key]) {
    const [x, y] = arrows[e.key]!
    const step = e.altKey ? 1 : e.shiftKey ? 50 : 10
    if (tool === 'select') {
      if (hand.now.selected.size > 0) hand.nudge(x * step, y * step)
      else hand.look({ x: hand.now.view.x + x * 60, y: hand.now.view.y + y * 60 })
      return true
    }
    const at = hand.now.cursor ?? hand.middle()
    const clamp = (n: number, most: number) => Math.max(0, Math.min(most, n))
    hand.set({ cursor: { x: clamp(at.x + x * step, FRAME.width), y: clamp(at.y + y * step, FRAME.height) } })
    down?.gesture.move([pointerAt(hand, e)])
    return true
  }
  if (e.key === 'Enter' && tool === 'select') {
    const [one, more] = hand.picked()
    if (!one || more) return false
    hand.open(one)
    return true
  }
  if ((e.key === ' ' || e.key === 'Enter') && tool !== 'select' && tools.includes(tool)) {
    if (!hand.now.cursor) hand.set({ cursor: hand.middle() })
    if (down) {
      down.gesture.up(pointerAt(hand, e))
      down = null
    } else {
      const gesture = start(hand, pointerAt(hand, e))
      if (gesture && tool === 'stamp') gesture.up(pointerAt(hand, e))
      else if (gesture) down = { hand, gesture }
    }
    return true
  }
  return false
}

function keyWithCommand(hand: Hand, e: KeyboardEvent): boolean {
  switch (e.key.toLowerCase()) {
    case 'z':
      if (e.shiftKey) hand.redo()
      else hand.undo()
      return true
    case 'y':
      hand.redo()
      return true
    case 'a':
      hand.selectAll()
      return true
    case 'd':
      hand.duplicate()
      return true
    case 'g':
      hand.group()
      return true
    case 'arrowup':
      hand.stack('front')
      return true
    case 'arrowdown':
      hand.stack('back')
      return true
  }
  return false
}
