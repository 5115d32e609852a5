import type { Step } from '../../wire/types.gen'
import type { Lying } from '../../rules/pieces'
import type { Head } from '../paint/columns'
import type { Ground } from './state'

/** The column that stands at a place across the frame, or the nearest; none where notes lie free. */
export const headAt = (heads: readonly Head[], x: number): Head | undefined =>
  [...heads].sort((a, b) => Math.abs(a.x + a.w / 2 - x) - Math.abs(b.x + b.w / 2 - x))[0]

const rankOf = (m: Lying) => (m.kind === 'note' ? m.note.rank || m.at : 0)

/** The notes that stand in a column, as they are read, without one. */
const others = ({ marks, columns }: Ground, head: Head, but: Lying) =>
  marks
    .filter((m) => m.kind === 'note' && m.id !== but.id && headAt(columns?.heads ?? [], m.x + m.w / 2)?.id === head.id)
    .sort((a, b) => rankOf(a) - rankOf(b))

/** Between two others, or before or after all. */
function rankBetween(before: Lying | undefined, after: Lying | undefined): number | undefined {
  if (before && after) return (rankOf(before) + rankOf(after)) / 2
  if (before) return rankOf(before) + 1000
  return after && rankOf(after) - 1000
}

const into = (mark: Lying, head: Head, rank: number | undefined): Step[] => [
  { kind: 'set', set: { mark: mark.id, column: head.id, ...(rank === undefined ? {} : { rank }) } },
]

/** Puts a note into the column, and by hand between the notes, where it was dropped. */
export function between(ground: Ground, mark: Lying, x: number, y: number): Step[] {
  const head = headAt(ground.columns?.heads ?? [], x + mark.w / 2)
  if (!head) return []
  if (ground.frame.layout.order !== 'hand') return into(mark, head, undefined)
  const all = others(ground, head, mark)
  const at = all.findIndex((m) => m.y > y || (Math.abs(m.y - y) < 1 && m.x > x))
  return into(mark, head, at < 0 ? rankBetween(all.at(-1), undefined) : rankBetween(all[at - 1], all[at]))
}

/** With keys: into the column beside, or by hand past the note before or after. */
export function nextTo(ground: Ground, mark: Lying, dx: number, dy: number): Step[] {
  const heads = ground.columns?.heads ?? []
  const now = heads.findIndex((h) => h.id === headAt(heads, mark.x + mark.w / 2)?.id)
  const head = heads[now + dx]
  if (!head) return []
  if (dx !== 0) return into(mark, head, undefined)
  if (ground.frame.layout.order !== 'hand') return []
  const all = others(ground, head, mark)
  const place = all.filter((m) => rankOf(m) < rankOf(mark)).length + dy
  if (place < 0 || place > all.length) return []
  return into(mark, head, rankBetween(all[place - 1], all[place]))
}
