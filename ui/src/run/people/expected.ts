/** How many names of the class's list are among those given. */
export function onList(expected: readonly string[], names: readonly string[]): number {
  const there = new Set(names.map((name) => name.toLocaleLowerCase()))
  return expected.filter((name) => there.has(name.toLocaleLowerCase())).length
}
