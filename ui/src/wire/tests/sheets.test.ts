// The device's own picture of sheets: whatever order the server's words arrive in, it ends as the server's.
import { expect, test } from 'vitest'
import { answersIn } from '../../rules/answers'
import { add, id, mark, move, sheet, view } from '../../rules/tests/samples'
import { Sheets } from '../sheets'
import type { Change, Element, Op } from '../types.gen'

const shown = (sheets: Sheets) => sheets.all()[0]!.marks.map((m) => `${m.id}@${m.x}`)

/** A small random number generator with a seed (mulberry32). */
function random(seed: number) {
  return () => {
    seed = (seed + 0x6d2b79f5) | 0
    let t = Math.imul(seed ^ (seed >>> 15), 1 | seed)
    t = (t + Math.imul(t ^ (t >>> 7), 61 | t)) ^ t
    return ((t ^ (t >>> 14)) >>> 0) / 4294967296
  }
}

test('changes in any order, twice and late give the same picture', () => {
  for (let seed = 1; seed <= 200; seed++) {
    const next = random(seed)
    const changes: Change[] = []
    const truth = new Map<string, Element>()
    for (let seq = 1; seq <= 20; seq++) {
      const name = `m${Math.floor(next() * 5)}`
      if (truth.has(name) && next() < 0.3) {
        truth.delete(name)
        changes.push({ seq, op: id(seq), by: 'kenji', at: 1, gone: [name] })
      } else if (next() < 0.1) {
        changes.push({ seq }) // something that is not for this reader
      } else {
        truth.set(name, mark(name, seq))
        changes.push({ seq, op: id(seq), by: 'kenji', at: 1, put: [mark(name, seq)] })
      }
    }
    const sheets = new Sheets('noor', { mayChange: () => true })
    sheets.expect('f')
    const shuffled = [...changes, ...changes].map((c) => [next(), c] as const).sort((a, b) => a[0] - b[0])
    const opened = Math.floor(next() * 10)
    shuffled.forEach(([, change], i) => {
      // The sheet itself arrives in the middle of its news.
      if (i === opened) sheets.load(view(0))
      sheets.take({ sheet, frame: 'f', changes: [change] })
    })
    sheets.take({ sheet, frame: 'f', changes }) // what a question for the missing ones brings
    const expected = [...truth.values()].sort((a, b) => a.z - b.z).map((m) => `${m.id}@${m.x}`)
    expect(shown(sheets), `seed ${seed}`).toEqual(expected)
    expect(sheets.at(sheet)).toEqual({ seq: 20 })
    expect(sheets.lacks(sheet)).toBe(false)
  }
})

test('a hole is noticed, and an older picture does not undo a newer one', () => {
  const sheets = new Sheets('noor', { mayChange: () => true })
  sheets.load(view(1, mark('a', 1)))
  expect(sheets.take({ sheet, frame: 'f', changes: [{ seq: 3, put: [mark('c', 3)] }] })).toBe(false)
  expect(shown(sheets)).toEqual(['a@1'])
  expect(sheets.take({ sheet, frame: 'f', changes: [{ seq: 2, put: [mark('b', 2)] }] })).toBe(true)
  expect(shown(sheets)).toEqual(['a@1', 'b@2', 'c@3'])
  sheets.load(view(2, mark('a', 1), mark('b', 2)))
  expect(shown(sheets)).toEqual(['a@1', 'b@2', 'c@3'])
})

test('a sheet comes in parts, while more is done on it', () => {
  const sheets = new Sheets('noor', { mayChange: () => true })
  sheets.load({ ...view(0, mark('a', 1)), to: { seq: 4, after: 'a' }, more: true })
  expect(sheets.lacks(sheet)).toBe(true)
  // What is heard meanwhile waits for the rest; an answer to an older question is left.
  expect(sheets.take({ sheet, frame: 'f', changes: [{ seq: 6, put: [mark('d', 6)] }] })).toBe(false)
  sheets.fill(sheet, { seq: 0 }, { to: { seq: 1 }, put: [mark('z', 99)] })
  expect(shown(sheets)).toEqual(['a@1'])
  sheets.fill(sheet, { seq: 4, after: 'a' }, { to: { seq: 5 }, put: [mark('b', 2), mark('c', 3)] })
  expect(shown(sheets)).toEqual(['a@1', 'b@2', 'c@3', 'd@6'])
  expect(sheets.lacks(sheet)).toBe(false)
  // News that was too long to be told is asked for.
  expect(sheets.take({ sheet, frame: 'f', seq: 8, changes: [] })).toBe(false)
  sheets.fill(sheet, { seq: 6 }, { to: { seq: 8 }, put: [mark('e', 8)], gone: ['a'] })
  expect(shown(sheets)).toEqual(['b@2', 'c@3', 'd@6', 'e@8'])
})

test('a line that only moved comes without its points and keeps them', () => {
  const line = (x: number, points: number[]): Element =>
    ({ ...mark('l', x), x, kind: 'stroke', stroke: { points, ink: 'night', width: 4 } }) as Element
  const sheets = new Sheets('noor', { mayChange: () => true })
  sheets.load(view(1, line(5, [0, 0, 1, 50, 0, 1])))
  sheets.take({ sheet, frame: 'f', changes: [{ seq: 2, put: [line(80, [])] }] })
  const now = sheets.all()[0]!.marks[0]!
  expect(now.kind === 'stroke' && [now.x, now.stroke.points.length]).toEqual([80, 6])
  // Points that are not here: the sheet is asked for anew.
  const bare = new Sheets('noor', { mayChange: () => true })
  bare.load(view(1))
  expect(bare.take({ sheet, frame: 'f', changes: [{ seq: 2, put: [line(80, [])] }] })).toBe(false)
  expect(bare.at(sheet)).toEqual({ seq: 0 })
})

test('a reconnect leaves what is the same as it was', () => {
  const sheets = new Sheets('noor', { mayChange: () => true })
  sheets.load(view(2, mark('a', 1), mark('b', 2)))
  const before = sheets.all()[0]!.marks
  sheets.load(view(3, { ...mark('a', 1) }, { ...mark('b', 2) }, mark('c', 3)))
  const after = sheets.all()[0]!.marks
  expect([after[0] === before[0], after[1] === before[1], after.length]).toEqual([true, true, 3])
})

test('what is on its way shows at once and is never shown twice', () => {
  for (const order of ['answer first', 'news first'] as const) {
    const sheets = new Sheets('noor', { mayChange: () => true })
    sheets.load(view(0))
    const op = add(1, 'a', 10)
    const news: Change = { seq: 1, op: op.id, by: 'noor', at: 1, put: [mark('a', 10)] }
    sheets.begin(op)
    expect(shown(sheets)).toEqual(['a@10'])
    if (order === 'answer first') sheets.saved(op, 1)
    else sheets.take({ sheet, frame: 'f', changes: [news] })
    expect(shown(sheets)).toEqual(['a@10'])
    if (order === 'answer first') sheets.take({ sheet, frame: 'f', changes: [news] })
    else sheets.saved(op, 1)
    expect(shown(sheets)).toEqual(['a@10'])
    // The preview is gone: what the server says next is what shows.
    sheets.take({ sheet, frame: 'f', changes: [{ seq: 2, put: [mark('a', 77)] }] })
    expect(shown(sheets)).toEqual(['a@77'])
  }
})

test('what others do meanwhile does not take away what is on its way', () => {
  const sheets = new Sheets('noor', { mayChange: () => true })
  sheets.load(view(1, mark('a', 1)))
  sheets.begin(move(1, 'a', 50))
  sheets.take({ sheet, frame: 'f', changes: [{ seq: 2, put: [mark('b', 2, 'kenji')] }] })
  expect(shown(sheets)).toEqual(['a@50', 'b@2'])
  sheets.abandon(move(1, 'a', 50)) // refused
  expect(shown(sheets)).toEqual(['a@1', 'b@2'])
})

test('removing and bringing back without a network', () => {
  const sheets = new Sheets('noor', { mayChange: () => true })
  sheets.load(view(1, mark('a', 1)))
  sheets.begin({ id: id(1), sheet, kind: 'remove', remove: { mark: 'a' } })
  expect(shown(sheets)).toEqual([])
  sheets.begin({ id: id(2), sheet, kind: 'restore', restore: { mark: 'a' } })
  expect(shown(sheets)).toEqual(['a@1'])
})

test('an answer may change and be taken back', () => {
  const sheets = new Sheets('noor', { mayChange: () => true })
  sheets.load(view(0))
  const answer = (n: number, choice: string): Op => ({
    id: id(n),
    sheet,
    kind: 'answer',
    answer: { poll: 'p', round: 1, value: choice ? { kind: 'choice', choice: { option: choice } } : undefined },
  })
  const chosen = (round = 1) =>
    answersIn(sheets.all()[0]!.marks, 'p', round).map(({ value }) => value.kind === 'choice' && value.choice.option)
  sheets.begin(answer(1, 'week'))
  sheets.begin(answer(2, 'month'))
  expect(chosen()).toEqual(['month'])
  const later = answer(4, 'year')
  if (later.kind === 'answer') later.answer.round = 2
  sheets.begin(later)
  expect([chosen(), chosen(2)]).toEqual([['month'], ['year']])
  sheets.begin(answer(3, ''))
  expect([chosen(), chosen(2)]).toEqual([[], ['year']])
})

test('who comes back takes what has changed, and begins anew where the server says so', () => {
  const sheets = new Sheets('noor', { mayChange: () => true })
  sheets.load(view(3, mark('a', 1), mark('b', 2)))
  expect(sheets.have()).toEqual({ [sheet]: { seq: 3 } })
  const since = { sheet, frame: 'f', owner: 'class' }
  sheets.load({ ...since, to: { seq: 6 }, put: [mark('c', 3)], gone: ['a'] })
  expect(shown(sheets)).toEqual(['b@2', 'c@3'])
  sheets.load({ ...since, to: { seq: 5 }, put: [mark('late', 9)] })
  expect(shown(sheets)).toEqual(['b@2', 'c@3'])
  sheets.fill(sheet, { seq: 6 }, { to: { seq: 9 }, anew: true, put: [mark('d', 4)] })
  expect(shown(sheets)).toEqual(['d@4'])
  expect(sheets.have()).toEqual({ [sheet]: { seq: 9 } })
})
