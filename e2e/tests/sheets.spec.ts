// The device's own picture of sheets, without a browser: whatever order the
// server's words arrive in, the picture ends as the server's.
import { expect, test } from '@playwright/test'
import { readFileSync } from 'node:fs'
import { join } from 'node:path'
import type { TFunction } from '../../ui/node_modules/i18next'
import { cut } from '../../ui/src/rules/erase'
import { caught } from '../../ui/src/frame/paint/geometry'
import { inverse, preview } from '../../ui/src/rules/apply'
import { UndoPile } from '../../ui/src/wire/undo'
import { Sheets } from '../../ui/src/wire/sheets'
import { groupParts, marksBy, studentParts } from '../../ui/src/run/monitor/parts'
import { beneath } from '../../ui/src/rules/stacks'
import { layColumns, roomOf, type Laid, type Spot } from '../../ui/src/rules/columns'
import { answersIn } from '../../ui/src/rules/answers'
import { openFrames, placeOf } from '../../ui/src/run/places'
import { Contents } from '../../ui/src/wire/contents'
import type { Board, Change, Element, Op, Stage, State, Step } from '../../ui/src/wire/types.gen'

const sheet = 's'
const id = (n: number) => `0190a0b0-0000-7000-8000-${String(n).padStart(12, '0')}`
const mark = (name: string, x: number, author = 'noor'): Element => ({
  id: name,
  author,
  z: x,
  at: 1,
  x,
  y: 0,
  w: 100,
  h: 100,
  kind: 'note',
  note: { text: name, tint: 'moss' },
})
const add = (n: number, name: string, x: number): Op => ({
  id: id(n),
  sheet,
  kind: 'add',
  add: { mark: name, x, y: 0, w: 100, h: 100, kind: 'note', note: { text: name, tint: 'moss' } },
})
const move = (n: number, name: string, x: number): Op => ({ id: id(n), sheet, kind: 'set', set: { mark: name, x } })
const view = (seq: number, ...marks: Element[]) => ({
  sheet,
  frame: 'f',
  owner: 'class',
  to: { seq },
  anew: true,
  put: marks,
})
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

test('the undo pile keeps 300 steps, the order, and the word of the server', async () => {
  const kept = new Map<string, string>()
  Object.assign(globalThis, {
    sessionStorage: {
      getItem: (key: string) => kept.get(key) ?? null,
      setItem: (key: string, value: string) => void kept.set(key, value),
    },
  })
  const remove = (n: number, mark: string) => ({
    of: id(n),
    deed: { sheet, kind: 'remove' as const, remove: { mark } },
  })
  const pile = new UndoPile('seat')
  for (let i = 0; i < 350; i++) pile.did(sheet, [remove(i, `m${i}`)])
  pile.confirmed(sheet, id(349), remove(0, 'as the server says').deed)
  pile.refused(sheet, id(348))
  await new Promise((resolve) => setTimeout(resolve, 500)) // it is written a moment later
  const reloaded = new UndoPile('seat')
  const first = reloaded.undo(sheet)
  expect(first).toEqual([remove(0, 'as the server says').deed])
  reloaded.undid(sheet, [{ of: id(400), deed: { sheet, kind: 'restore', restore: { mark: 'm349' } } }])
  expect([...reloaded.redoable()]).toEqual([sheet])
  expect(reloaded.undo(sheet)).toEqual([remove(0, 'm347').deed])
  let left = 0
  while (reloaded.undo(sheet)) left++
  expect(left).toBe(297)
  reloaded.did(sheet, [remove(401, 'new')])
  expect(reloaded.redo(sheet)).toBeNull()
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

test('the eraser and the lasso compute what the core computes', () => {
  type Cut = {
    path: number[]
    radius: number
    line: number[]
    touched: boolean
    pieces: number[][] | null
    caught: boolean
  }
  const cuts = JSON.parse(readFileSync(join(import.meta.dirname, '../../core/ink/testdata/cuts.json'), 'utf8')) as Cut[]
  expect(cuts.filter((c) => c.touched).length).toBeGreaterThan(10)
  for (const { path, radius, line, touched, pieces, caught: inLasso } of cuts) {
    const mine = cut({ path, radius }, line)
    expect(mine !== null).toBe(touched)
    if (touched) {
      expect(mine!.map((p) => p.length)).toEqual((pieces ?? []).map((p) => p.length))
      mine!.forEach((piece, i) => piece.forEach((n, k) => expect(n).toBeCloseTo(pieces![i]![k]!, 6)))
    }
    const lasso = Array.from({ length: path.length / 2 }, (_, i) => ({ x: path[2 * i]!, y: path[2 * i + 1]! }))
    expect(caught(line, lasso)).toBe(inLasso)
  }
})

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

test('where students are is what the core says', () => {
  type Place = { state: State; at?: string; place: string; open: string[] }
  const places = JSON.parse(
    readFileSync(join(import.meta.dirname, '../../core/session/testdata/places.json'), 'utf8'),
  ) as Place[]
  expect(new Set(places.map((p) => p.place))).toEqual(new Set(['one', 'two', 'three']))
  const board = { title: '', frames: ['one', 'two', 'three'].map((frame) => ({ id: frame })) } as Board
  for (const { state, at, place, open } of places) {
    expect(placeOf(board, state, { id: 'a', name: 'Noor', at })).toBe(place)
    expect(openFrames(board, state)).toEqual(open)
  }
})

test('of each stack one note lies on top, the same as in the core', () => {
  const cases = JSON.parse(
    readFileSync(join(import.meta.dirname, '../../core/lesson/testdata/stacks.json'), 'utf8'),
  ) as Array<{ marks: Element[]; beneath: string[] }>
  expect(cases.length).toBeGreaterThan(10)
  for (const { marks, beneath: want } of cases)
    expect(
      [...beneath(marks).values()]
        .flat()
        .map((m) => m.id)
        .sort(),
    ).toEqual([...want].sort())
})

test('columns are laid as the core lays them', () => {
  type Upright = { X: number; Y: number; W: number; H: number }
  type Case = {
    room: Upright
    taken: Upright[]
    count: number
    prompts: boolean
    chars: number[]
    in: number[]
    from: number[]
    inside: Upright
    laid: Laid
  }
  const file = join(import.meta.dirname, '../../core/columns/testdata/laid.json')
  const cases = JSON.parse(readFileSync(file, 'utf8')) as Case[]
  const box = ({ X: x, Y: y, W: w, H: h }: Upright) => ({ x, y, w, h })
  expect(cases.some((c) => c.laid.beyond.some((n) => n > 0))).toBe(true)
  for (const { room, taken, count, prompts, chars, in: columns, from, inside, laid } of cases) {
    expect(roomOf(box(room), taken.map(box))).toEqual(box(inside))
    const notes = chars.map((n, i) => ({
      column: columns[i]!,
      tall: (letters: number, width: number) =>
        38 + Math.max(1, Math.ceil((n * letters * 0.5) / (width - 38))) * letters * 1.35,
    }))
    const mine = layColumns(box(inside), count, prompts, notes, from)
    const micro = (n: number) => Math.round(n * 1e6)
    const spot = (s: Spot) => [micro(s.x), micro(s.y), micro(s.w), s.beyond ?? false]
    expect({ ...mine, spots: mine.spots.map(spot) }).toEqual({ ...laid, spots: laid.spots.map(spot) })
  }
})

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
