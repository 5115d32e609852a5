import type { Connector, Element } from '../../wire/types.gen'
import { isNowhere } from '../../rules/pieces'
import { isRemoved } from '../../rules/standing'

/** A frame's fixed size in units. */
export const FRAME = { width: 1600, height: 1000 }

/** The height of a line of text, in letter sizes. */
export const LINE = 1.35

/** A note's rim is its padding and its edge. */
export const NOTE = { size: 28, padding: 18, rim: 19, tab: 30, tabSize: 25, tabLeast: 20, width: 300, height: 120 }
export const PROMPT = { x: 60, y: 48, size: 50, width: 1480 }
export const CELL = { size: 28, line: 1.4 }
/** The letters inside a shape and on a link. */
export const SHAPE_TEXT = 28

/** The widths of a table's columns, by their longest words. */
export function columnWidths(rows: string[][], width: number): number[] {
  const longest: number[] = []
  for (const row of rows) row.forEach((cell, i) => (longest[i] = Math.max(longest[i] ?? 0, cell.length + 3)))
  const all = longest.reduce((sum, n) => sum + n, 0)
  return longest.map((n) => (width * n) / all)
}

/** The words of a mark; empty for one that has none. */
export function textOf(mark: Element): string {
  switch (mark.kind) {
    case 'note':
      return mark.note.text
    case 'text':
      return mark.text.text
    case 'shape':
      return mark.shape.text ?? ''
    case 'picture':
      return mark.picture.alt ?? ''
    case 'link':
      return mark.link.title ?? ''
    case 'cover':
      return mark.cover.text ?? ''
    default:
      return ''
  }
}

/** The host that a link leads to. */
export function hostOf(url: string): string {
  try {
    return new URL(url).host
  } catch {
    return url
  }
}

/** Kinds of marks that words can be written on. */
export const isWritten = (mark: Element) => ['note', 'text', 'shape', 'link', 'picture', 'cover'].includes(mark.kind)

export type Point = { x: number; y: number }
export type Box = { x: number; y: number; w: number; h: number }

/** How high a note's card is besides its words, and how many letters a line holds, about. */
function noteHeight(text: string, w: number, h: number, size: number): number {
  const perLine = Math.max(1, Math.floor((w - 2 * NOTE.rim) / (size * 0.52)))
  const lines = text.split('\n').reduce((sum, line) => sum + Math.max(1, Math.ceil(line.length / perLine)), 0)
  return Math.max(h, lines * size * LINE + 2 * NOTE.rim)
}

/** Heights of notes and texts as they stand on the screen, in frame units, by mark. */
export const measured = new WeakMap<Element, number>()

/** The box of a mark as it stands on the frame, not turned; notes and texts with the height their words take. */
export function boxOf(mark: Element): Box {
  const { x, y, w, h } = mark
  if (mark.kind === 'note')
    return { x, y, w, h: measured.get(mark) ?? noteHeight(mark.note.text, w, h, mark.note.size || NOTE.size) }
  if (mark.kind === 'text')
    return { x, y, w, h: Math.max(h, measured.get(mark) ?? mark.text.text.split('\n').length * mark.text.size * LINE) }
  return { x, y, w, h }
}

/** The upright box around a mark that may be turned. */
export function boundsOf(mark: Element): Box {
  const box = boxOf(mark)
  if (!mark.turn) return box
  const angle = (mark.turn * Math.PI) / 180
  const [sin, cos] = [Math.abs(Math.sin(angle)), Math.abs(Math.cos(angle))]
  const w = box.w * cos + box.h * sin
  const h = box.w * sin + box.h * cos
  return { x: box.x + (box.w - w) / 2, y: box.y + (box.h - h) / 2, w, h }
}

/** The box around many; null for none. */
export function around(boxes: Box[]): Box | null {
  if (boxes.length === 0) return null
  const x = Math.min(...boxes.map((b) => b.x))
  const y = Math.min(...boxes.map((b) => b.y))
  return { x, y, w: Math.max(...boxes.map((b) => b.x + b.w)) - x, h: Math.max(...boxes.map((b) => b.y + b.h)) - y }
}

export const centre = (b: Box): Point => ({ x: b.x + b.w / 2, y: b.y + b.h / 2 })

export function turned(p: Point, about: Point, degrees: number): Point {
  const a = (degrees * Math.PI) / 180
  const [x, y] = [p.x - about.x, p.y - about.y]
  return { x: about.x + x * Math.cos(a) - y * Math.sin(a), y: about.y + x * Math.sin(a) + y * Math.cos(a) }
}

const overlap = (a: Box, b: Box) =>
  Math.max(0, Math.min(a.x + a.w, b.x + b.w) - Math.max(a.x, b.x)) *
  Math.max(0, Math.min(a.y + a.h, b.y + b.h) - Math.max(a.y, b.y))

export const overlaps = (a: Box, b: Box) => overlap(a, b) > 0 || (inBox(a, b) && inBox(b, a))
const inBox = (a: Box, b: Box) => a.x <= b.x + b.w && a.x + a.w >= b.x && a.y <= b.y + b.h && a.y + a.h >= b.y

/**
 * A place for something new of size w x h: the one nearest to (x, y), the
 * middle of what the person sees, that covers the least of what is there. The
 * server has the last word (core/place), because others may begin there too.
 */
export function freePlace(taken: Element[], w: number, h: number, near: Point): Point {
  const step = 40
  const boxes = taken
    .filter((e) => !isNowhere(e) && !e.tray && !isRemoved(e))
    .map((e) => {
      const box = boundsOf(e)
      return e.kind === 'note'
        ? { ...box, y: box.y - NOTE.tab, h: box.h + NOTE.tab }
        : { ...box, h: Math.max(box.h, 16) }
    })
  const prompt: Box = { x: PROMPT.x, y: 0, w: PROMPT.width, h: PROMPT.y + PROMPT.size * 1.6 }
  let best = { x: 0, y: 0 }
  let bestCost = Infinity
  for (let y = step; y + h <= FRAME.height - 20; y += step) {
    for (let x = 20; x + w <= FRAME.width - 20; x += step) {
      const here = { x: x - 10, y: y - NOTE.tab - 4, w: w + 20, h: h + NOTE.tab + 14 }
      let covered = overlap(here, prompt)
      for (const box of boxes) covered += overlap(here, box)
      const cost = covered * 1000 + Math.hypot(x + w / 2 - near.x, y + h / 2 - near.y)
      if (cost < bestCost) {
        best = { x, y }
        bestCost = cost
      }
    }
  }
  return best
}

export const tenth = (n: number) => Math.round(n * 10) / 10

/** Keeps a box inside the frame. */
export function inside(x: number, y: number, w: number, h: number): Point {
  const clamp = (n: number, max: number) => Math.max(0, Math.min(n, Math.max(0, max)))
  return { x: tenth(clamp(x, FRAME.width - w)), y: tenth(clamp(y, FRAME.height - h)) }
}

/** Where the ends of a connector lie now: on the edge of what they are attached to, or where they were. */
export function endsOf(connector: Connector, find: (id: string) => Element | undefined): [Point, Point] {
  const box = (a: Connector['from']) => {
    const mark = a.mark ? find(a.mark) : undefined
    return mark && !isRemoved(mark) ? boundsOf(mark) : null
  }
  const [from, to] = [box(connector.from), box(connector.to)]
  const a = from ? centre(from) : connector.from
  const b = to ? centre(to) : connector.to
  return [from ? edge(from, b) : a, to ? edge(to, a) : b]
}

/** Where the way from the middle of a box to a point leaves it, a little outside. */
function edge(box: Box, towards: Point): Point {
  const c = centre(box)
  const [dx, dy] = [towards.x - c.x, towards.y - c.y]
  if (dx === 0 && dy === 0) return c
  const gap = 8
  const t = Math.min(1, (box.w / 2 + gap) / Math.abs(dx || 1e-9), (box.h / 2 + gap) / Math.abs(dy || 1e-9))
  return { x: c.x + t * dx, y: c.y + t * dy }
}

/** Whether a point lies in a polygon, by the even-odd rule (as core/ink/polygon.go has it). */
export function inPolygon(polygon: Point[], p: Point): boolean {
  let inside = false
  polygon.forEach((a, i) => {
    const b = polygon[(i + 1) % polygon.length]!
    if (a.y > p.y !== b.y > p.y && p.x < a.x + ((p.y - a.y) * (b.x - a.x)) / (b.y - a.y)) inside = !inside
  })
  return inside
}

/** Whether a lasso catches a line, given as flat points on the frame: half of its length or more. */
export function caught(line: number[], lasso: Point[]): boolean {
  if (line.length === 3) return inPolygon(lasso, { x: line[0]!, y: line[1]! })
  let [inLasso, all] = [0, 0]
  for (let i = 3; i < line.length; i += 3) {
    const [ax, ay, bx, by] = [line[i - 3]!, line[i - 2]!, line[i]!, line[i + 1]!]
    const length = Math.hypot(bx - ax, by - ay)
    all += length
    if (inPolygon(lasso, { x: (ax + bx) / 2, y: (ay + by) / 2 })) inLasso += length
  }
  return all > 0 && 2 * inLasso >= all
}
