import { getStroke } from 'perfect-freehand'
import type { Element, Frame } from '../wire/types.gen'

/** A frame's fixed size in units. */
export const FRAME = { width: 1600, height: 1000 }

/** The height of a line of text, in letter sizes. */
export const LINE = 1.35

export const NOTE = { size: 28, padding: 18, tab: 26, tabSize: 20, width: 300, height: 120 }
export const PROMPT = { x: 60, y: 48, size: 50, width: 1480 }
export const CELL = { size: 28 }

/** The widths of a table's columns, by their longest words. */
export function columnWidths(rows: string[][], width: number): number[] {
  const longest: number[] = []
  for (const row of rows) row.forEach((cell, i) => (longest[i] = Math.max(longest[i] ?? 0, cell.length + 3)))
  const all = longest.reduce((sum, n) => sum + n, 0)
  return longest.map((n) => (width * n) / all)
}

/** The distance of dots, rules and squares. */
export const GRID: Record<Frame['paper'], number> = { plain: 0, dotted: 40, ruled: 50, squared: 40 }

/** The words of a mark; empty for one that has none. */
export const textOf = (mark: Element) =>
  mark.kind === 'note' ? mark.note.text : mark.kind === 'text' ? mark.text.text : ''

const outlines = new WeakMap<number[], Map<number, string>>()

/** The outline of a stroke as an SVG path in the stroke's own coordinates, kept for strokes that stay. */
export function strokePath(points: number[], width: number): string {
  const byWidth = outlines.get(points) ?? new Map<number, string>()
  outlines.set(points, byWidth)
  const known = byWidth.get(width)
  if (known !== undefined) return known
  const path = outlinePath(points, width, true)
  byWidth.set(width, path)
  return path
}

/** The outline of a stroke that may still grow. */
export function outlinePath(points: number[], width: number, complete: boolean): string {
  const input: number[][] = []
  for (let i = 0; i + 2 < points.length; i += 3) input.push([points[i]!, points[i + 1]!, points[i + 2]!])
  const outline = getStroke(input, {
    size: width * 1.4,
    thinning: 0.35,
    smoothing: 0.6,
    streamline: 0.35,
    simulatePressure: false,
    last: complete,
  })
  if (outline.length === 0) return ''
  const round = (n: number) => Math.round(n * 10) / 10
  let path = ''
  for (let i = 0; i < outline.length; i++) {
    const [x, y] = outline[i] as [number, number]
    const [nx, ny] = outline[(i + 1) % outline.length] as [number, number]
    path += i === 0 ? `M${round((x + nx) / 2)} ${round((y + ny) / 2)}` : ''
    const [mx, my] = outline[(i + 2) % outline.length] as [number, number]
    path += `Q${round(nx)} ${round(ny)} ${round((nx + mx) / 2)} ${round((ny + my) / 2)}`
  }
  return path + 'Z'
}

/** About how high a note stands with its text, for finding room beside it. */
function noteHeight(text: string, w: number, h: number): number {
  const perLine = Math.max(1, Math.floor((w - 2 * NOTE.padding) / (NOTE.size * 0.52)))
  const lines = text.split('\n').reduce((sum, line) => sum + Math.max(1, Math.ceil(line.length / perLine)), 0)
  return Math.max(h, lines * NOTE.size * LINE + 2 * NOTE.padding)
}

type Box = { x: number; y: number; w: number; h: number }

const overlap = (a: Box, b: Box) =>
  Math.max(0, Math.min(a.x + a.w, b.x + b.w) - Math.max(a.x, b.x)) *
  Math.max(0, Math.min(a.y + a.h, b.y + b.h) - Math.max(a.y, b.y))

/**
 * A place for something new of size w x h: the one nearest to (x, y), the
 * middle of what the person sees, that covers the least of what is there.
 */
export function freePlace(
  taken: Element[],
  w: number,
  h: number,
  near: { x: number; y: number },
): { x: number; y: number } {
  const step = 40
  const boxes = taken
    .filter((e) => e.kind !== 'answer')
    .map((e) =>
      e.kind === 'note'
        ? { ...e, y: e.y - NOTE.tab, h: noteHeight(e.note.text, e.w, e.h) + NOTE.tab }
        : { ...e, h: Math.max(e.h, 16) },
    )
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

/** Keeps a box inside the frame. */
export function inside(x: number, y: number, w: number, h: number): { x: number; y: number } {
  const clamp = (n: number, max: number) => Math.max(0, Math.min(n, max))
  const round = (n: number) => Math.round(n * 10) / 10
  return { x: round(clamp(x, FRAME.width - w)), y: round(clamp(y, FRAME.height - h)) }
}
