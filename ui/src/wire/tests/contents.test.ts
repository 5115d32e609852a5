import { expect, test } from 'vitest'
import { mark } from '../../rules/tests/samples'
import { Contents } from '../contents'
import type { Element, Stage } from '../types.gen'

test('what was prepared comes once, and stays the same mark while only others change', () => {
  const frame = { id: 'f', prepared: [] as Element[] } as unknown as Stage['frame']
  const stage = (content: string, more: Partial<Stage>): Stage => ({ rev: 1, content, frame, ...more }) as Stage
  const [a, b, c, d] = ['a', 'b', 'c', 'd'].map((name, i) => mark(name, i)) as [Element, Element, Element, Element]
  const contents = new Contents()
  const first = contents.whole(stage('one', { frame: { ...frame, prepared: [a, b, c] } }))!
  const change = {
    from: 'one',
    gone: ['b'],
    put: [
      { at: 0, mark: d },
      { at: 2, mark: { ...b, x: 9 } },
    ],
  }
  const second = contents.whole(stage('two', { change }))!
  expect(second.frame.prepared.map((m) => `${m.id}${m.x}`)).toEqual(['d3', 'a0', 'b9', 'c2'])
  expect(second.frame.prepared[1]).toBe(first.frame.prepared[0])
  expect(contents.whole(stage('one', { change: { from: 'one' } }))!.frame.prepared).toBe(first.frame.prepared)
  expect(contents.whole(stage('three', { change: { from: 'never had' } }))).toBeNull()
  expect(contents.names()).toEqual(['two', 'one'])
  for (let i = 0; i < 80; i++) contents.whole(stage(`frame ${i}`, {}))
  expect(contents.names()).toHaveLength(64)
})
