import type { Column, Element, Layout, Tint } from '../wire/types.gen'

// Notes that lie by themselves, as core/columns lays them. A test holds both
// against the same cases.

type Box = { x: number; y: number; w: number; h: number }

/** Units kept between columns and notes; what a note's name, a heading and its prompt take; what is left below. */
export const GAP = 16
const TAB = 30
export const HEADING = 52
export const COLUMN_PROMPT = 66
export const BOTTOM = 30

/** The sizes of notes in columns: of their letters, and how wide a card is at most. */
const sizes = [
  { letters: 34, width: 380 },
  { letters: 28, width: 300 },
  { letters: 25, width: 260 },
]

export type ToLay = { column: number; tall: (letters: number, width: number) => number }
export type Spot = { x: number; y: number; w: number; beyond?: boolean }
export type Laid = { letters: number; spots: Spot[]; on: number[]; beyond: number[] }

/** Lays notes in columns of a room, in their order, in the largest letters in which all find room. */
export function layColumns(room: Box, count: number, prompts: boolean, notes: ToLay[], from: number[]): Laid {
  let laid: Laid | null = null
  for (const size of sizes) {
    laid = laySize(room, count, prompts, notes, from, size)
    if (laid.beyond.every((n) => n === 0)) break
  }
  return laid!
}

/** How wide each of so many columns is. */
export const columnWidth = (room: Box, count: number) => (room.w - (count - 1) * GAP) / count

function laySize(
  room: Box,
  count: number,
  prompts: boolean,
  notes: ToLay[],
  from: number[],
  size: { letters: number; width: number },
): Laid {
  const wide = columnWidth(room, count)
  const lanes = Math.max(1, Math.floor((wide + GAP) / (size.width + GAP)))
  const card = (wide - (lanes - 1) * GAP) / lanes
  const top = room.y + HEADING + (prompts ? COLUMN_PROMPT : 0)
  const bottom = room.y + room.h - BOTTOM
  const none = () => new Array<number>(count).fill(0)
  const ends = Array.from({ length: count }, () => new Array<number>(lanes).fill(top))
  const laid: Laid = { letters: size.letters, spots: [], on: none(), beyond: none() }
  const [seen, full] = [none(), new Set<number>()]
  const beyond = (c: number) => {
    laid.spots.push({ x: 0, y: 0, w: 0, beyond: true })
    laid.beyond[c]!++
  }
  for (const note of notes) {
    const c = note.column
    seen[c]!++
    if (full.has(c) || seen[c]! <= (from[c] ?? 0)) {
      beyond(c)
      continue
    }
    const lane = ends[c]!.indexOf(Math.min(...ends[c]!))
    const y = ends[c]![lane]! + TAB
    const tall = note.tall(size.letters, card)
    if (y + tall > bottom && laid.on[c]! > 0) {
      full.add(c)
      beyond(c)
      continue
    }
    laid.spots.push({ x: room.x + c * (wide + GAP) + lane * (card + GAP), y, w: card })
    laid.on[c]!++
    ends[c]![lane] = y + tall + GAP
  }
  return laid
}

const STEP = 20

/** The largest upright box of a frame that keeps clear of what is taken, looked at in squares of 20 units. */
export function roomOf(frame: Box, taken: Box[]): Box {
  const [cols, rows] = [Math.floor(frame.w / STEP), Math.floor(frame.h / STEP)]
  const free = new Array<number>(cols).fill(0)
  let [best, most] = [frame, 0]
  for (let row = 0; row < rows; row++) {
    for (let col = 0; col < cols; col++) {
      const square = { x: frame.x + col * STEP, y: frame.y + row * STEP, w: STEP, h: STEP }
      free[col] = taken.some((t) => meet(square, t)) ? 0 : free[col]! + 1
    }
    for (let col = 0; col < cols; col++) {
      let tall = free[col]!
      for (let end = col; end < cols && free[end]! > 0; end++) {
        tall = Math.min(tall, free[end]!)
        const wide = end - col + 1
        if (wide * tall <= most) continue
        most = wide * tall
        const [x, y] = [frame.x + col * STEP, frame.y + (row + 1 - tall) * STEP]
        best = { x, y, w: wide * STEP, h: tall * STEP }
      }
    }
  }
  return best
}

const meet = (a: Box, b: Box) => a.x < b.x + b.w && b.x < a.x + a.w && a.y < b.y + b.h && b.y < a.y + a.h

export type Note = Element & { kind: 'note' }

/** A note's place by hand; one that nobody has put anywhere stands where it came. */
export const rankOf = (note: Note) => note.note.rank || note.at

/** In which of the columns a note stands: the first, where its own is not there any more. */
export const columnOf = (columns: readonly Column[], note: Note) =>
  Math.max(
    0,
    columns.findIndex((c) => c.id === note.note.column),
  )

const tints: Tint[] = ['snow', 'apricot', 'rose', 'lilac', 'glacier', 'moss']
const plainly = (a: string, b: string) => (a < b ? -1 : a > b ? 1 : 0)

/** Notes in the order of a layout; of those that come out alike the older stands first. */
export function inOrder(
  layout: Layout,
  notes: readonly Note[],
  nameOf: (author: string | undefined) => string,
): Note[] {
  const by: Record<NonNullable<Layout['order']>, (a: Note, b: Note) => number> = {
    '': () => 0,
    agreed: (a, b) => (b.agreed?.length ?? 0) - (a.agreed?.length ?? 0),
    name: (a, b) => nameOf(a.author).localeCompare(nameOf(b.author)),
    tint: (a, b) => tints.indexOf(a.note.tint) - tints.indexOf(b.note.tint),
    hand: (a, b) => rankOf(a) - rankOf(b),
  }
  const order = by[layout.order ?? '']
  return [...notes].sort((a, b) => order(a, b) || a.at - b.at || plainly(a.id, b.id))
}
