import type { Person } from '../../wire/types.gen'

/** What a student seems to be doing on a frame; the core's word for it (core/insight). */
export type Doing = 'notBegun' | 'stopped' | 'working' | 'gone' | 'removed'

/** Those first who may need the teacher first. */
export const doings: Doing[] = ['notBegun', 'stopped', 'working', 'gone', 'removed']

/** Who changed nothing for longer than this has stopped. */
const STOPPED_MS = 3 * 60_000

/** What a student has on a frame, and when something of it was changed last. */
export type Done = { marks: number; at: number }

/** What a student seems to be doing; the same rule as the core's. */
export function doingOf(person: Pick<Person, 'here' | 'removed'>, work: Done | undefined, now: number): Doing {
  if (person.removed) return 'removed'
  if (!person.here) return 'gone'
  if (!work || work.marks === 0) return 'notBegun'
  return now - work.at > STOPPED_MS ? 'stopped' : 'working'
}
