import { isAnswer } from '../../rules/answers'
import type { TFunction } from 'i18next'
import { groupOwner, type Shown } from '../../wire/sheets'
import type { Arrangement, Element, Person } from '../../wire/types.gen'
import { isRemoved } from '../../rules/standing'

/** One copy of a frame that the teacher can look into: a student's part of it, or a group's. */
export type Part = {
  key: string
  name: string
  /** Under the name: who is in a group. */
  members: string
  here: boolean
  owner: string
  authors: string[]
}

type People = ReadonlyMap<string, Person>
export type Marks = ReadonlyMap<string, readonly Element[]>

/**
 * The marks on a frame by who made them or on whose copy they lie. A list is the
 * same object as before as long as its marks are the same.
 */
export function marksBy(sheets: Shown[], frame: string, by: 'author' | 'owner'): Marks {
  const found = new Map<string, Element[]>()
  for (const sheet of sheets) {
    if (sheet.frame !== frame) continue
    for (const mark of sheet.marks) {
      const key = by === 'author' ? mark.author : sheet.owner
      if (isRemoved(mark) || !key) continue
      const list = found.get(key)
      if (list) list.push(mark)
      else found.set(key, [mark])
    }
  }
  const before = last.by === by && last.frame === frame ? last.marks : undefined
  const marks = new Map([...found].map(([key, list]) => [key, sameList(list, before?.get(key))]))
  last = { frame, by, marks }
  return marks
}

/** What was found last: the screen shows one frame at a time. */
let last: { frame: string; by: string; marks: Marks } = { frame: '', by: '', marks: new Map() }

function sameList(now: readonly Element[], before: readonly Element[] | undefined) {
  return before && before.length === now.length && now.every((mark, i) => mark === before[i]) ? before : now
}

const byName = new Intl.Collator(undefined, { numeric: true })

/** A part for each student, by name. */
export function studentParts(people: People, arrangement: Arrangement): Part[] {
  return [...people.values()]
    .sort((a, b) => byName.compare(a.name, b.name))
    .map((p) => ({
      key: p.id,
      name: p.name,
      members: '',
      here: p.here ?? false,
      owner: arrangement === 'individual' ? p.id : 'class',
      authors: [p.id],
    }))
}

/**
 * A part for each group; behind them what was done on the frame before: by the
 * whole class, by groups that are no more, by students on copies of their own.
 */
export function groupParts(groups: string[][], people: People, byOwner: Marks, t: TFunction): Part[] {
  const parts = groups.map((ids, i) => part(groupOwner(i + 1), t('groups.name', { n: i + 1 }), ids, people))
  const now = new Set(parts.map((p) => p.owner))
  for (const [owner, marks] of byOwner) {
    if (now.has(owner) || marks.every((m) => isAnswer(m))) continue
    const group = /^group-(\d+)$/.exec(owner)
    const name = group ? t('groups.name', { n: group[1] }) : (people.get(owner)?.name ?? t('sharing.class_short'))
    parts.push({ ...part(owner, name, [], people), members: t('groups.before') })
  }
  return parts
}

function part(owner: string, name: string, ids: string[], people: People): Part {
  const members = ids.flatMap((id) => people.get(id) ?? [])
  return {
    key: owner,
    name,
    members: members.map((p) => p.name).join(', '),
    here: members.some((p) => p.here),
    owner,
    authors: ids,
  }
}
