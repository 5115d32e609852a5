import type { Alike, AlikeNote, Band } from '../../wire/types.gen'

/** A group in the making: a name and its notes, by id. */
export type Group = { key: string; name: string; notes: string[]; unsure: boolean }

/** By what notes are sorted. */
export type By = 'alike' | 'tint' | 'author' | 'agreed' | 'time'

/** The ways to sort. */
export const ways: By[] = ['alike', 'tint', 'author', 'agreed', 'time']

/** How many columns a frame has at most (core/lesson). */
export const MOST = 6

/** The groups that are offered; what is in none of them is the rest. */
export function offered({ groups, agreed, times, notes }: Alike, by: By, nameOf: (key: string) => string): Group[] {
  if (by === 'alike')
    return groups.map((g, i) => ({ key: `${i}`, name: g.name, notes: g.texts, unsure: g.unsure ?? false }))
  if (by === 'time') return banded(times, nameOf)
  if (by === 'agreed') return banded(agreed, nameOf)
  const found = new Map<string, Group>()
  for (const note of notes) {
    const key = by === 'tint' ? note.tint : note.author
    const group = found.get(key) ?? { key, name: nameOf(key), notes: [], unsure: false }
    group.notes.push(note.id)
    found.set(key, group)
  }
  return [...found.values()].sort((a, b) => b.notes.length - a.notes.length)
}

/** Bands of numbers as groups; a band is called by its bounds. */
const banded = (bands: Band[], nameOf: (key: string) => string): Group[] =>
  bands.map(({ from, to, texts }) => ({ key: `${from}`, name: nameOf(`${from}-${to}`), notes: texts, unsure: false }))

/** The notes that are in no group. */
export const restOf = (notes: AlikeNote[], groups: Group[]) =>
  notes.filter((n) => !groups.some((g) => g.notes.includes(n.id)))

/** A note in another group, or in none; a group without notes is gone. */
export const moved = (groups: Group[], note: string, to: string | null): Group[] =>
  groups
    .map((g) => ({ ...g, notes: [...g.notes.filter((n) => n !== note), ...(g.key === to ? [note] : [])] }))
    .filter((g) => g.notes.length > 0)

/** One group of two. */
export const merged = (groups: Group[], from: string, into: string): Group[] => {
  const notes = groups.find((g) => g.key === from)?.notes ?? []
  return groups
    .filter((g) => g.key !== from)
    .map((g) => (g.key === into ? { ...g, notes: [...g.notes, ...notes], unsure: false } : g))
}

/** What becomes columns: the groups as far as there may be columns, and behind them all the rest. */
export function asColumns(
  groups: Group[],
  notes: AlikeNote[],
  rest: string,
): Array<{ title: string; notes: string[] }> {
  const left = restOf(notes, groups)
  const room = left.length > 0 || groups.length > MOST ? MOST - 1 : MOST
  const columns = groups.slice(0, room).map((g) => ({ title: g.name.slice(0, 60), notes: g.notes }))
  const others = [...groups.slice(room).flatMap((g) => g.notes), ...left.map((n) => n.id)]
  return others.length > 0 ? [...columns, { title: rest, notes: others }] : columns
}
