import { expect, test } from 'vitest'
import type { Element, Op, Step } from '../../wire/types.gen'
import { inverse, preview } from '../apply'
import { id, mark, sheet } from './samples'

test('what many steps preview, their inverse takes back', () => {
  const stroke = (n: string, x: number): Element =>
    ({
      ...mark(n, x),
      x,
      w: 100,
      h: 0,
      kind: 'stroke',
      stroke: { points: [0, 0, 0.5, 100, 0, 0.5], ink: 'night', width: 4 },
    }) as Element
  const before = new Map([mark('a', 1), mark('b', 2), stroke('s', 300)].map((m) => [m.id, m]))
  const ops: Array<Step> = [
    { kind: 'erase', erase: { path: [350, -50, 350, 50], radius: 8, part: true } },
    { kind: 'erase', erase: { path: [350, -50, 350, 50], radius: 8 } },
    {
      kind: 'many',
      many: {
        steps: [
          { kind: 'set', set: { mark: 'a', x: 50, turn: 30, group: id(7) } },
          { kind: 'remove', remove: { mark: 'b' } },
        ],
      },
    },
    { kind: 'agree', agree: { mark: 'a', yes: true } },
    { kind: 'clear', clear: {} },
  ]
  for (const step of ops) {
    const hands = { author: 'kenji', kept: new Map<string, Element>(), mayChange: () => true }
    const marks = new Map(before)
    const op = { id: id(9), sheet, ...step } as Op
    const back = inverse(marks, hands, op)!
    preview(marks, hands, op)
    expect([...marks.values()], step.kind).not.toEqual([...before.values()])
    preview(marks, hands, { id: id(10), sheet, back: true, ...back } as Op)
    const plain = (m: Element) => ({
      ...m,
      turn: m.turn || undefined,
      group: m.group || undefined,
      agreed: m.agreed?.length ? m.agreed : undefined,
      standing: undefined,
    })
    const sorted = (all: Map<string, Element>) => [...all.values()].map(plain).sort((a, b) => (a.id < b.id ? -1 : 1))
    expect(sorted(marks), step.kind).toEqual(sorted(before))
  }
})
