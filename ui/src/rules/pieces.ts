import { isAnswer } from './answers'
import type { Element, Frame } from '../wire/types.gen'
import { beneath } from './stacks'
import { isRemoved } from './standing'

/**
 * A mark as it lies on a frame. A piece, wherever people have put it, looks as
 * it was prepared; `of` names the prepared piece once it has been moved or
 * copied.
 */
export type Lying = Element & { of?: string }

/** Whether a mark is a piece: it can be moved, and nothing else. */
export const isPiece = (mark: Lying) => Boolean(mark.layer)

/** Whether a piece is one that has an endless supply and still lies there. */
export const isSupply = (mark: Lying) => mark.layer === 'supply' && !mark.of

/** A short answer under a note. */
export type Reply = Element & { kind: 'reply' }

/** What lies beneath notes that are on top of a stack, by these. */
export type Under = ReadonlyMap<string, readonly Element[]>

/** Whether a mark has no place on the frame: an answer to a poll, a reply to a note, a remark. */
export const isNowhere = (mark: Element) => isAnswer(mark) || mark.kind === 'reply' || mark.kind === 'remark'

/** Whether a note lies beside the frame, because there was no room on it. */
export const isBeside = (mark: Element) => mark.kind === 'note' && mark.note.margin === true

/** What was prepared to stay where it is. */
export const fixedOn = (frame: Frame) => frame.prepared.filter((m) => !m.layer && !isRemoved(m))

/**
 * What lies on a frame, given what is on its sheet: the work, the pieces where
 * people have put them and the others where they were prepared; what still
 * lies in the tray beside it; the notes in the margin, for which there was no room;
 * the replies to notes; and what lies beneath those that are on top of a stack, which
 * lies nowhere else.
 */
export function laid(
  frame: Frame,
  marks: readonly Element[],
): { marks: Lying[]; tray: Lying[]; margin: Element[]; replies: Reply[]; under: Under } {
  const pieces = new Map(frame.prepared.filter((m) => m.layer && !isRemoved(m)).map((m) => [m.id, m]))
  const on: Lying[] = []
  const margin: Element[] = []
  const replies: Reply[] = []
  const under = beneath(marks)
  const hides = new Set([...under.values()].flat().map((m) => m.id))
  const inColumns = (frame.layout.columns?.length ?? 0) > 0
  const taken = new Set<string>()
  for (const mark of marks) {
    if (isRemoved(mark) || hides.has(mark.id)) continue
    if (mark.kind === 'reply') {
      replies.push(mark)
      continue
    }
    if (mark.kind === 'remark') continue
    if (mark.kind !== 'placed') {
      ;(isBeside(mark) && !inColumns ? margin : on).push(mark)
      continue
    }
    const piece = pieces.get(mark.placed.piece)
    if (!piece) continue
    const { x, y, z, at, turn, author, by, standing } = mark
    if (mark.id === piece.id) taken.add(piece.id)
    on.push({ ...piece, id: mark.id, x, y, z, at, turn, author, by, standing, tray: false, of: piece.id })
  }
  const waiting = [...pieces.values()].filter((p) => !taken.has(p.id))
  return {
    marks: [...waiting.filter((p) => !p.tray), ...on],
    tray: waiting.filter((p) => p.tray),
    margin,
    replies,
    under,
  }
}
