import { readsOf } from '../../rules/reads'
import type { NextRow, StudentState } from '../../wire/types.gen'
import type { Marks, Part } from './parts'

/** In which order parts stand. */
export type Order = 'name' | 'next' | 'group' | 'seat'

/** Which parts are shown: those of students in a state, of a group by its number, with a word in what they wrote. */
export type Filter = { state: StudentState | ''; group: number; word: string }

export const everything: Filter = { state: '', group: 0, word: '' }

/** How many parts stand on one page. */
export const PAGE = 40

/** The places of parts in an order; it is asked for once, and they keep their places until it is asked for again. */
export function placed(
  parts: readonly Part[],
  order: Order,
  next: readonly NextRow[],
  groups: string[][],
  /** Who sits where, row by row, by the ids of those who are here. */
  seats: readonly string[],
): string[] {
  if (order === 'name') return parts.map((p) => p.key)
  const at = new Map(next.map((row, i) => [row.student, i]))
  const group = (p: Part) => {
    const n = groups.findIndex((ids) => ids.includes(p.authors[0] ?? ''))
    return n < 0 ? groups.length : n
  }
  const seat = (p: Part) => {
    const at = seats.indexOf(p.authors[0] ?? '')
    return at < 0 ? seats.length : at
  }
  const rank = (p: Part) =>
    order === 'group'
      ? group(p)
      : order === 'seat'
        ? seat(p)
        : Math.min(...p.authors.map((id) => at.get(id) ?? next.length), next.length)
  return [...parts].sort((a, b) => rank(a) - rank(b)).map((p) => p.key)
}

/** The parts in their places, those who came since behind the others. */
export function inPlaces(parts: readonly Part[], places: readonly string[]): Part[] {
  const at = new Map(places.map((key, i) => [key, i]))
  return [...parts].sort((a, b) => (at.get(a.key) ?? places.length) - (at.get(b.key) ?? places.length))
}

/** Whether a part is shown through a filter. */
export function passes(
  part: Part,
  { state, group, word }: Filter,
  states: ReadonlyMap<string, StudentState>,
  groups: string[][],
  marks: Marks,
): boolean {
  if (state && !part.authors.some((id) => states.get(id) === state)) return false
  if (group && !part.authors.some((id) => groups[group - 1]?.includes(id))) return false
  const wanted = fold(word.trim())
  return (
    !wanted ||
    fold(part.name).includes(wanted) ||
    (marks.get(part.key) ?? []).some((m) => fold(readsOf(m) ?? '').includes(wanted))
  )
}

const fold = (text: string) => text.normalize('NFKD').replace(/\p{M}/gu, '').toLocaleLowerCase()
