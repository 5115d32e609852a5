import type { Listed, Person } from '../../wire/types.gen'

/** How many of the class's list are among people: as themselves, or under a name that nobody has tied yet. */
export function onList(expected: readonly Listed[], people: Iterable<Person>): number {
  const students = new Set<string>()
  const names = new Set<string>()
  for (const p of people) {
    if (p.student) students.add(p.student)
    else names.add(p.name.toLocaleLowerCase())
  }
  return expected.filter((s) => students.has(s.id) || names.has(s.name.toLocaleLowerCase())).length
}
