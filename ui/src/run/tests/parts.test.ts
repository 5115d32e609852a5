import type { TFunction } from 'i18next'
import { expect, test } from 'vitest'
import { mark } from '../../rules/tests/samples'
import type { Element } from '../../wire/types.gen'
import { groupParts, marksBy, studentParts } from '../monitor/parts'

test('groups that are no more, and what was done before there were any, stay in sight', () => {
  const people = new Map([
    ['noor', { id: 'noor', name: 'Noor', here: true }],
    ['kenji', { id: 'kenji', name: 'Kenji' }],
  ])
  const t = ((key: string, of?: { n: unknown }) => `${key} ${of?.n ?? ''}`.trim()) as unknown as TFunction
  const on = (owner: string, ...marks: Element[]) => ({ sheet: owner, frame: 'f', owner, marks })
  const answer = {
    ...mark('a', 1),
    kind: 'answer',
    answer: { poll: 'p', round: 1, value: { kind: 'choice', choice: { option: 'c' } } },
  } as unknown as Element
  const removed: Element = { ...mark('r', 1), standing: { is: 'removed', by: 'staff', at: 1 } }
  const sheets = [
    on('group-1', mark('n', 1)),
    on('group-3', mark('m', 2, 'kenji')),
    on('group-4', removed),
    on('class', mark('c', 3)),
    on('noor', answer),
    { ...on('kenji', mark('k', 4)), frame: 'g' },
  ]
  const parts = groupParts([['noor', 'gone'], []], people, marksBy(sheets, 'f', 'owner'), t)
  expect(parts.map((p) => [p.owner, p.name, p.members, p.here])).toEqual([
    ['group-1', 'groups.name 1', 'Noor', true],
    ['group-2', 'groups.name 2', '', false],
    ['group-3', 'groups.name 3', 'groups.before', false],
    ['class', 'sharing.class_short', 'groups.before', false],
  ])
  const byAuthor = marksBy(sheets, 'f', 'author')
  expect(byAuthor.get('noor')!.map((m) => m.id)).toEqual(['n', 'c', 'a'])
  expect(studentParts(people, 'individual').map((p) => [p.name, p.owner])).toEqual([
    ['Kenji', 'kenji'],
    ['Noor', 'noor'],
  ])
})
