import { expect, test } from 'vitest'
import file from '../../../../core/lesson/testdata/stacks.json?raw'
import type { Element } from '../../wire/types.gen'
import { beneath } from '../stacks'

test('of each stack one note lies on top, the same as in the core', () => {
  const cases = JSON.parse(file) as Array<{ marks: Element[]; beneath: string[] }>
  expect(cases.length).toBeGreaterThan(10)
  for (const { marks, beneath: want } of cases)
    expect(
      [...beneath(marks).values()]
        .flat()
        .map((m) => m.id)
        .sort(),
    ).toEqual([...want].sort())
})
