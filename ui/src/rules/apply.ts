import { answerID, isAnswer } from './answers'
import { cutBy, drawn, drawnAt, sweepsNear, touches, type Sweep } from './erase'
import type { Element, InStack, Op, Set as SetProperties, Spot, Stack, Step } from '../wire/types.gen'
import { isRemoved } from './standing'

/** An operation without its id, as it lies on the undo pile. */
export type Deed = { sheet: string; back?: boolean } & Step

/** A deed that is about one mark as a whole. */
export function onMark(kind: 'hide' | 'show' | 'remove' | 'restore', mark: string): Step {
  switch (kind) {
    case 'hide':
      return { kind, hide: { mark } }
    case 'show':
      return { kind, show: { mark } }
    case 'remove':
      return { kind, remove: { mark } }
    case 'restore':
      return { kind, restore: { mark } }
  }
}

export type Marks = Map<string, Element>

/** What a preview needs to know besides the marks. */
export type Hands = {
  author: string
  /** Marks that were removed, so that they can be brought back. */
  kept: Marks
  /** Whether the author may change a mark; asked for what an eraser goes over. */
  mayChange: (mark: Element) => boolean
  /** The pieces that were prepared, by their ids. */
  piece?: (id: string) => Element | undefined
}

/**
 * Shows an operation on the device's own picture before the server has decided.
 * The server's answer replaces whatever this makes of it.
 */
export function preview(marks: Marks, hands: Hands, op: Op) {
  step(marks, hands, op, op.id)
}

function step(marks: Marks, hands: Hands, s: Step, op: string) {
  const take = (mark: Element) => {
    hands.kept.set(mark.id, {
      ...mark,
      standing: { is: 'removed', by: hands.author, at: Date.now(), in: op, was: mark.standing },
    })
    marks.delete(mark.id)
  }
  switch (s.kind) {
    case 'add': {
      const { mark, free: _free, ...rest } = s.add
      const size = s.add.kind === 'connector' ? boxOfEnds(s.add.connector.from, s.add.connector.to) : {}
      marks.set(mark, { ...rest, ...size, id: mark, author: hands.author, z: newest++, at: Date.now() } as Element)
      return
    }
    case 'set': {
      const old = marks.get(s.set.mark) ?? fromPiece(hands, s.set.mark)
      if (old) marks.set(old.id, withProperties(old, s.set))
      return
    }
    case 'remove': {
      const old = marks.get(s.remove.mark)
      if (old) take(old)
      return
    }
    case 'restore': {
      const { mark, in: all } = s.restore
      const back = all
        ? [...hands.kept.values()].filter((m) => m.standing?.in === all)
        : [hands.kept.get(mark ?? '') ?? marks.get(mark ?? '')]
      for (const m of back) if (m) marks.set(m.id, isRemoved(m) ? { ...m, standing: m.standing?.was } : m)
      return
    }
    case 'erase':
      for (const { mark, pieces } of underEraser(marks, hands.mayChange, s, op)) {
        take(mark)
        for (const piece of pieces) marks.set(piece.id, piece)
      }
      return
    case 'agree': {
      const old = marks.get(s.agree.mark)
      if (!old) return
      const others = (old.agreed ?? []).filter((id) => id !== hands.author)
      marks.set(old.id, { ...old, agreed: s.agree.yes ? [...others, hands.author] : others })
      return
    }
    case 'many':
      for (const one of s.many.steps) step(marks, hands, one, op)
      return
    case 'hide':
    case 'hold':
    case 'show': {
      const id = s.kind === 'hide' ? s.hide.mark : s.kind === 'hold' ? s.hold.mark : s.show.mark
      const is = s.kind === 'hide' ? 'hidden' : 'held'
      const standing = s.kind === 'show' ? undefined : ({ is, by: hands.author, at: Date.now() } as const)
      const old = marks.get(id)
      if (old) marks.set(id, { ...old, standing })
      return
    }
    case 'clear':
      for (const mark of [...marks.values()])
        if (!isAnswer(mark) && (!s.clear.author || mark.author === s.clear.author) && mark.at >= (s.clear.since ?? 0))
          take(mark)
      return
    case 'spread': // where notes will lie, the server finds; only taking it back is known
      for (const { mark, size, margin, ...place } of s.spread.to ?? []) {
        const old = marks.get(mark)
        if (old?.kind === 'note') marks.set(mark, { ...old, ...place, note: { ...old.note, size, margin } })
      }
      return
    case 'stack': // where notes that are taken off will lie, the server finds
      for (const { mark, size, margin, stack, ...place } of stackSpots(marks, s.stack)) {
        const old = marks.get(mark)
        if (old?.kind === 'note') marks.set(mark, { ...old, ...place, note: { ...old.note, size, margin, stack } })
      }
      return
    case 'handIn': // whether it was still time, the server says
      return
    case 'answer': {
      const { poll, round, value, sure } = s.answer
      const id = answerID(poll, round)
      if (!value) marks.delete(id)
      else
        marks.set(id, {
          ...nowhere,
          id,
          author: hands.author,
          at: Date.now(),
          kind: 'answer',
          answer: { poll, round, value, ...(sure && { sure }) },
        })
    }
  }
}

const nowhere = { x: 0, y: 0, w: 0, h: 0, z: 0 }

/** What is new lies on top until the server says where. */
let newest = 2 ** 40

/** A piece that is moved for the first time: the mark on the sheet holds its place alone. */
function fromPiece({ author, piece }: Hands, id: string): Element | undefined {
  const found = piece?.(id)
  if (found?.layer !== 'piece') return undefined
  const { x, y, w, h, turn } = found
  return { id, author, z: newest++, at: Date.now(), x, y, w, h, turn, kind: 'placed', placed: { piece: id } }
}

type Box = { left: number; top: number; right: number; bottom: number }

function wayBox(path: number[]): Box {
  const box = { left: Infinity, top: Infinity, right: -Infinity, bottom: -Infinity }
  for (let i = 0; i + 1 < path.length; i += 2) {
    box.left = Math.min(box.left, path[i]!)
    box.right = Math.max(box.right, path[i]!)
    box.top = Math.min(box.top, path[i + 1]!)
    box.bottom = Math.max(box.bottom, path[i + 1]!)
  }
  return box
}

/** Whether a line, turned as it may be, can lie within reach of an eraser's way. */
function nearWay(mark: Element, way: Box, reach: number): boolean {
  const rim = reach + (mark.turn ? Math.hypot(mark.w, mark.h) : 0)
  const { x, y, w, h } = mark
  return x - rim <= way.right && x + w + rim >= way.left && y - rim <= way.bottom && y + h + rim >= way.top
}

/** What an eraser left of a line while it is moved, by the sweeps that can have reached the line. */
const shown = new WeakMap<Element, { of: string; pieces: Element[] | null }>()

const nameOf = (sweeps: Sweep[], radius: number) => `${radius} ${sweeps.length} ${sweeps[0]} ${sweeps.at(-1)}`

/**
 * What an eraser takes and leaves, with the ids that the server gives the
 * pieces. Without an operation it is just shown: a line that the eraser has not
 * come nearer to since leaves the very same pieces.
 */
export function underEraser(
  marks: Marks,
  mayChange: (mark: Element) => boolean,
  s: Step & { kind: 'erase' },
  op: string,
) {
  const { path, radius, part } = s.erase
  const found: Array<{ mark: Element; pieces: Element[] }> = []
  const way = wayBox(path)
  for (const mark of marks.values()) {
    if (mark.kind !== 'stroke' || isRemoved(mark) || !mayChange(mark)) continue
    if (!nearWay(mark, way, radius + mark.stroke.width / 2)) continue
    const eraser = { path, radius: radius + mark.stroke.width / 2 }
    const line = drawn(mark)
    const sweeps = sweepsNear(eraser, line)
    if (!part) {
      if (touches(sweeps, eraser.radius, line)) found.push({ mark, pieces: [] })
      continue
    }
    const of = nameOf(sweeps, eraser.radius)
    const before = op === '' ? shown.get(mark) : undefined
    const pieces =
      before?.of === of
        ? before.pieces
        : (cutBy(sweeps, eraser.radius, line)?.map((points, i) => drawnAt(mark, points, op, i)) ?? null)
    if (op === '') shown.set(mark, { of, pieces })
    if (pieces) found.push({ mark, pieces })
  }
  return found
}

const reversed = (steps: Array<Step | null>): Step | null => {
  const back = steps.filter((s) => s !== null).reverse()
  return back.length === 0 ? null : back.length === 1 ? back[0]! : { kind: 'many', many: { steps: back } }
}

/** What finding the way back needs to know. */
export type Knows = Pick<Hands, 'mayChange' | 'piece'> & { removedIn?: (op: string) => string[] }

/** The step that would take an operation back, as far as the device can tell. */
export function inverse(marks: Marks, hands: Knows, op: Op): Step | null {
  return inverseStep(marks, hands, op, op.id)
}

function inverseStep(marks: Marks, hands: Knows, s: Step, op: string): Step | null {
  switch (s.kind) {
    case 'add':
      return onMark('remove', s.add.mark)
    case 'remove':
      return onMark('restore', s.remove.mark)
    case 'restore':
      return reversed(
        (s.restore.mark ? [s.restore.mark] : (hands.removedIn?.(s.restore.in ?? '') ?? [])).map((id) =>
          onMark('remove', id),
        ),
      )
    case 'hide':
      return onMark('show', s.hide.mark)
    case 'hold':
      return onMark('show', s.hold.mark)
    case 'show':
      return onMark('hide', s.show.mark)
    case 'clear':
      return { kind: 'restore', restore: { in: op } }
    case 'erase':
      return reversed(
        underEraser(marks, hands.mayChange, s, op).flatMap(({ mark, pieces }) => [
          onMark('restore', mark.id),
          ...pieces.map((p) => onMark('remove', p.id)),
        ]),
      )
    case 'agree':
      return { kind: 'agree', agree: { ...s.agree, yes: !s.agree.yes } }
    case 'set': {
      const old = marks.get(s.set.mark)
      if (!old) return hands.piece?.(s.set.mark) ? onMark('remove', s.set.mark) : null
      return { kind: 'set', set: properties(old, s.set) }
    }
    case 'many':
      return reversed(s.many.steps.map((one) => inverseStep(marks, hands, one, op)))
    case 'setBack': // how it was, the server knows
      return { kind: 'setBack', setBack: { of: op } }
    case 'spread':
      return { kind: 'spread', spread: { to: spotsOf(marks, s.spread.to) } }
    case 'stack': {
      const some = s.stack.to ?? s.stack.marks?.map((mark) => ({ mark }))
      return { kind: 'stack', stack: { to: inStacks(marks, some ?? []) } }
    }
    case 'answer':
    case 'handIn': // stays
      return null
  }
}

/** Where notes lie now, all or some. */
function spotsOf(marks: Marks, some?: Spot[]): Spot[] {
  const all = some ? some.map(({ mark }) => marks.get(mark)) : [...marks.values()].filter((m) => !m.group)
  return all.flatMap((m) =>
    m?.kind === 'note'
      ? [{ mark: m.id, x: m.x, y: m.y, w: m.w, h: m.h, size: m.note.size, margin: m.note.margin }]
      : [],
  )
}

/** Where some notes lie now, and in which stack. */
const inStacks = (marks: Marks, some: Array<{ mark: string }>): InStack[] =>
  some.flatMap(({ mark }) => {
    const m = marks.get(mark)
    const { x, y, w, h } = m ?? { x: 0, y: 0, w: 0, h: 0 }
    return m?.kind === 'note'
      ? [{ mark, x, y, w, h, size: m.note.size, margin: m.note.margin, stack: m.note.stack }]
      : []
  })

/** Where notes lie once they are stacked, as far as a device knows. */
function stackSpots(marks: Marks, { stack, marks: some, to }: Stack): InStack[] {
  if (to) return to
  const now = inStacks(
    marks,
    (some ?? []).map((mark) => ({ mark })),
  )
  return now.map((spot) => (stack ? { ...now[0]!, mark: spot.mark, stack } : { ...spot, stack: undefined }))
}

/** The part of a mark that its kind names. */
const bodyOf = (mark: Element): object =>
  mark.kind === 'note' ? mark.note
  : mark.kind === 'text' ? mark.text
  : mark.kind === 'stroke' ? mark.stroke
  : mark.kind === 'shape' ? mark.shape
  : mark.kind === 'connector' ? mark.connector
  : mark.kind === 'picture' ? mark.picture
  : mark.kind === 'link' ? { ...mark.link, text: mark.link.title }
  : mark.kind === 'table' ? mark.table
  : mark.kind === 'cover' ? mark.cover
  : mark.kind === 'poll' ? { poll: mark.poll }
  : {} // oxfmt-ignore

/** The mark with properties changed, as the server will have it. */
export function withProperties(old: Element, set: SetProperties): Element {
  const { mark: _mark, x, y, w, h, turn, z, group, layer, tray, stroke, poll, ...style } = set
  const place = {
    x: x ?? old.x,
    y: y ?? old.y,
    w: w ?? old.w,
    h: h ?? old.h,
    turn: turn ?? old.turn,
    z: z ?? old.z,
    group: group ?? old.group,
    layer: layer ?? old.layer,
    tray: tray ?? old.tray,
  }
  if (old.kind === 'poll') return { ...old, ...place, poll: poll ?? old.poll }
  if (old.kind === 'placed' || old.kind === 'stamp') return { ...old, ...place }
  if (old.kind === 'connector') {
    const shift = (a: typeof old.connector.from) => ({
      ...a,
      x: a.x + (x ?? old.x) - old.x,
      y: a.y + (y ?? old.y) - old.y,
    })
    const connector = { ...old.connector, from: shift(old.connector.from), to: shift(old.connector.to), ...style }
    return { ...old, ...place, connector, ...boxOfEnds(connector.from, connector.to) } as Element
  }
  if (old.kind === 'link') {
    const { text, ...rest } = style
    return {
      ...old,
      ...place,
      link: { ...old.link, ...rest, ...(text === undefined ? {} : { title: text }) },
    } as Element
  }
  if (old.kind === 'stroke') return { ...old, ...place, stroke: { ...(stroke ?? old.stroke), ...style } } as Element
  return { ...old, ...place, [old.kind]: { ...bodyOf(old), ...style } } as Element
}

const boxOfEnds = (a: { x: number; y: number }, b: { x: number; y: number }) => ({
  x: Math.min(a.x, b.x),
  y: Math.min(a.y, b.y),
  w: Math.abs(a.x - b.x),
  h: Math.abs(a.y - b.y),
})

/** What properties are when a mark does not have them written down. */
const unsaid: Record<string, unknown> = {
  turn: 0, group: '', size: 0, bold: false, align: '', list: '', fill: '', dash: false, heads: '', alt: '', text: '', nib: '', layer: '', tray: false,
} // oxfmt-ignore

/** The values that a mark has now of those properties that `like` names. */
function properties(mark: Element, like: SetProperties): SetProperties {
  const all: Record<string, unknown> = { ...unsaid, ...bodyOf(mark) }
  for (const name of ['x', 'y', 'w', 'h', 'turn', 'z', 'group', 'layer', 'tray'] as const)
    all[name] = mark[name] ?? unsaid[name]
  if (mark.kind === 'stroke') all.stroke = mark.stroke
  const named = Object.keys(like).filter((name) => name !== 'mark')
  if (mark.kind === 'connector' && (like.x !== undefined || like.y !== undefined)) {
    const { from, to } = mark.connector
    return { mark: mark.id, from, to }
  }
  return { mark: mark.id, ...Object.fromEntries(named.map((name) => [name, all[name]])) }
}
