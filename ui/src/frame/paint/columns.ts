import { columnOf, columnWidth, GAP, HEADING, inOrder, layColumns, roomOf, type Note } from '../../rules/columns'
import { fixedOn, isPiece, type Lying } from '../../rules/pieces'
import { isHidden } from '../../rules/standing'
import type { Column, Element, Frame } from '../../wire/types.gen'
import { boundsOf, FRAME, LINE, NOTE, PROMPT } from './geometry'
import { lines } from './lines'

/** A column as it stands on a frame: its heading's place, and how many notes lie in it and are beyond. */
export type Head = Column & { x: number; y: number; w: number; h: number; on: number; beyond: number }

/** From which note on each column is shown, by its id. */
export type From = Readonly<Record<string, number>>

const probe = document.createElement('canvas').getContext('2d')!
const sans = () => getComputedStyle(document.documentElement).getPropertyValue('--font-sans')

/** How high a note's card is in a size and width. */
function tall(note: Note, letters: number, width: number): number {
  probe.font = `400 ${letters}px ${sans()}`
  const hidden = isHidden(note) ? 20 * LINE : 0
  return lines(probe, note.note.text, width - 2 * NOTE.rim).length * letters * LINE + 2 * NOTE.rim + hidden
}

/** Where notes may stand: below the prompt, clear of what was prepared. */
function roomOn(frame: Frame) {
  const y = frame.prompt ? PROMPT.y + 2 * PROMPT.size : 20
  const prepared = [...fixedOn(frame), ...frame.prepared.filter((m) => m.layer && !m.tray)]
  const taken = prepared
    .filter((m) => m.kind !== 'connector' && m.kind !== 'stroke')
    .map(boundsOf)
    .map(({ x, y, w, h }) => ({ x: x - GAP, y: y - GAP, w: w + 2 * GAP, h: h + 2 * GAP }))
  return roomOf({ x: 20, y, w: FRAME.width - 40, h: FRAME.height - 20 - y }, taken)
}

/** The same note at the same place stays the same mark, so that it is not painted anew. */
const stood = new WeakMap<Element, Lying>()

function standing(note: Note, x: number, y: number, w: number, size: number): Lying {
  const before = stood.get(note) as Note | undefined
  if (before && before.x === x && before.y === y && before.w === w && before.note.size === size) return before
  const now: Lying = { ...note, x, y, w, h: 60, turn: 0, note: { ...note.note, size } }
  stood.set(note, now)
  return now
}

/**
 * The marks of a frame with its notes in columns, and the columns. Marks that are
 * no notes lie where they lie.
 */
export function inColumns(
  frame: Frame,
  marks: readonly Lying[],
  from: From = {},
  nameOf: (author: string | undefined) => string = () => '',
): { marks: Lying[]; heads: Head[] } {
  const columns = frame.layout.columns ?? []
  const isOurs = (m: Lying): m is Note => m.kind === 'note' && !isPiece(m) && !m.of
  const notes = inOrder(frame.layout, marks.filter(isOurs), nameOf)
  const room = roomOn(frame)
  const prompts = columns.some((c) => c.prompt)
  const laid = layColumns(
    room,
    columns.length,
    prompts,
    notes.map((note) => ({ column: columnOf(columns, note), tall: (l, w) => tall(note, l, w) })),
    columns.map((c) => from[c.id] ?? 0),
  )
  const standingNotes = notes.flatMap((note, i) => {
    const { x, y, w, beyond } = laid.spots[i]!
    return beyond ? [] : [standing(note, x, y, w, laid.letters)]
  })
  const w = columnWidth(room, columns.length)
  const heads = columns.map((c, i) => ({
    ...c,
    x: room.x + i * (w + (columns.length > 1 ? (room.w - columns.length * w) / (columns.length - 1) : 0)),
    y: room.y,
    w,
    h: room.h,
    on: laid.on[i]!,
    beyond: laid.beyond[i]!,
  }))
  return { marks: [...marks.filter((m) => !isOurs(m)), ...standingNotes], heads }
}

/** The letters of a heading, in frame units. */
export const HEAD = { size: 32, prompt: 24, rule: HEADING - 8 }
