import { v7 as uuidv7 } from 'uuid'
import type { Element, Step } from '../../wire/types.gen'
import { around, boundsOf, centre, FRAME, inside, tenth, turned, type Box } from '../paint/geometry'

const set = (mark: Element, to: Omit<(Step & { kind: 'set' })['set'], 'mark'>): Step => ({
  kind: 'set',
  set: { mark: mark.id, ...to },
})

/** How far marks may move together so that all stay on the frame. */
export function within(marks: Element[], dx: number, dy: number): [number, number] {
  const box = around(marks.map((m) => ({ x: m.x, y: m.y, w: m.w, h: m.h })))
  if (!box) return [0, 0]
  return [
    Math.max(-box.x, Math.min(dx, FRAME.width - box.x - box.w)),
    Math.max(-box.y, Math.min(dy, FRAME.height - box.y - box.h)),
  ]
}

/** Moves marks together, as far as the frame reaches. */
export function moved(marks: Element[], dx: number, dy: number): Step[] {
  const [x, y] = within(marks, dx, dy)
  return x === 0 && y === 0 ? [] : marks.map((m) => set(m, { x: tenth(m.x + x), y: tenth(m.y + y) }))
}

/** Turns marks together about the middle of them all. */
export function turnedBy(marks: Element[], degrees: number): Step[] {
  const box = around(marks.map(boundsOf))
  if (!box) return []
  const middle = centre(box)
  return marks.flatMap((m) => {
    if (m.kind === 'connector') return []
    const c = turned({ x: m.x + m.w / 2, y: m.y + m.h / 2 }, middle, degrees)
    const place = inside(c.x - m.w / 2, c.y - m.h / 2, m.w, m.h)
    return [set(m, { ...place, turn: ((((m.turn ?? 0) + degrees) % 360) + 360) % 360 })]
  })
}

/** Fits marks that fill one box into another. What has words keeps the size of its letters. */
export function resized(marks: Element[], from: Box, to: Box): Step[] {
  const [sx, sy] = [from.w > 0 ? to.w / from.w : 1, from.h > 0 ? to.h / from.h : 1]
  return marks.flatMap((m) => {
    if (m.kind === 'connector') {
      const shift = (a: typeof m.connector.from) => ({
        ...a,
        x: tenth(to.x + (a.x - from.x) * sx),
        y: tenth(to.y + (a.y - from.y) * sy),
      })
      return [set(m, { from: shift(m.connector.from), to: shift(m.connector.to) })]
    }
    const least = m.kind === 'note' || m.kind === 'text' ? 100 : m.kind === 'stroke' ? 0 : 16
    // A turned mark would shear; it grows evenly instead.
    const even = m.turn || m.kind === 'stamp' || m.kind === 'picture' ? Math.sqrt(sx * sy) : null
    const flat = (n: number, s: number) => (n === 0 ? 0 : Math.max(least, Math.min(n * s, 1590)))
    const w = tenth(Math.min(FRAME.width, flat(m.w, even ?? sx)))
    const h = tenth(Math.min(FRAME.height, flat(m.h, even ?? sy)))
    return [set(m, { ...inside(to.x + (m.x - from.x) * sx, to.y + (m.y - from.y) * sy, w, h), w, h })]
  })
}

export type Edge = 'left' | 'middle' | 'right' | 'top' | 'centre' | 'bottom'

/** Lines marks up at an edge or at the middle of them all. */
export function aligned(marks: Element[], edge: Edge): Step[] {
  const all = around(marks.map(boundsOf))
  if (!all || marks.length < 2) return []
  return marks.map((m) => {
    const b = boundsOf(m)
    const [dx, dy] = [m.x - b.x, m.y - b.y] // a turned mark's own box begins elsewhere
    switch (edge) {
      case 'left':
        return set(m, { x: tenth(all.x + dx) })
      case 'middle':
        return set(m, { x: tenth(all.x + (all.w - b.w) / 2 + dx) })
      case 'right':
        return set(m, { x: tenth(all.x + all.w - b.w + dx) })
      case 'top':
        return set(m, { y: tenth(all.y + dy) })
      case 'centre':
        return set(m, { y: tenth(all.y + (all.h - b.h) / 2 + dy) })
      case 'bottom':
        return set(m, { y: tenth(all.y + all.h - b.h + dy) })
    }
  })
}

/** Leaves the same gap between marks, the outer ones staying where they are. */
export function spaced(marks: Element[], way: 'across' | 'down'): Step[] {
  if (marks.length < 3) return []
  const [at, size] = way === 'across' ? (['x', 'w'] as const) : (['y', 'h'] as const)
  const boxes = marks.map((m) => ({ m, b: boundsOf(m) })).sort((p, q) => p.b[at] - q.b[at])
  const first = boxes[0]!.b
  const last = boxes.at(-1)!.b
  const gap = (last[at] + last[size] - first[at] - boxes.reduce((sum, { b }) => sum + b[size], 0)) / (boxes.length - 1)
  let next = first[at]
  return boxes.map(({ m, b }) => {
    const to = tenth(next + m[at] - b[at])
    next += b[size] + gap
    return set(m, { [at]: to })
  })
}

/** Puts marks above or below everything else, in the order they have among themselves. */
export function stacked(marks: Element[], all: readonly Element[], where: 'front' | 'back'): Step[] {
  // What the server has not yet placed stands at a provisional height.
  const heights = all.map((m) => m.z).filter((z) => Math.abs(z) < 2 ** 39)
  const start = where === 'front' ? Math.max(0, ...heights) + 1 : Math.min(0, ...heights) - marks.length
  return [...marks].sort((a, b) => a.z - b.z).map((m, i) => set(m, { z: start + i }))
}

/** Makes one group of marks; groups they had end. */
export function grouped(marks: Element[]): Step[] {
  const group = uuidv7()
  return marks.map((m) => set(m, { group }))
}

export const ungrouped = (marks: Element[]): Step[] => marks.filter((m) => m.group).map((m) => set(m, { group: '' }))

export const removed = (marks: Element[]): Step[] => marks.map((m) => ({ kind: 'remove', remove: { mark: m.id } }))

/** Copies of marks with ids of their own, moved a little; groups and connections among them stay among them. */
export function copies(marks: Element[], dx: number, dy: number): { steps: Step[]; ids: string[] } {
  const ids = new Map(marks.map((m) => [m.id, uuidv7()]))
  const groups = new Map<string, string>()
  const [x, y] = within(marks, dx, dy)
  const steps = [...marks]
    .sort((a, b) => a.z - b.z)
    .map((m): Step => {
      const { id, author: _a, at: _t, z: _z, by: _b, agreed: _g, standing: _s, group, ...rest } = m
      if (group && !groups.has(group)) groups.set(group, uuidv7())
      const add = {
        ...rest,
        mark: ids.get(id)!,
        group: group ? groups.get(group) : undefined,
        x: tenth(m.x + x),
        y: tenth(m.y + y),
      }
      if (add.kind === 'connector') {
        const end = (a: typeof add.connector.from) => {
          const mark = a.mark ? ids.get(a.mark) : undefined
          return { x: tenth(a.x + x), y: tenth(a.y + y), ...(mark ? { mark } : {}) }
        }
        add.connector = { ...add.connector, from: end(add.connector.from), to: end(add.connector.to) }
      }
      return { kind: 'add', add } as Step
    })
  return { steps, ids: [...ids.values()] }
}

/** Several steps as one. */
export const asOne = (steps: Step[]): Step[] => (steps.length < 2 ? steps : [{ kind: 'many', many: { steps } }])

/** A guide line that shows what a moving box is in line with. */
export type Guide = { way: 'across' | 'down'; at: number; from: number; to: number }

/** Draws a moving box to the edges and middles of others that it comes near, and says along which lines. */
export function snapped(box: Box, others: Box[], reach: number): { dx: number; dy: number; guides: Guide[] } {
  const guides: Guide[] = []
  const near = (mine: number[], all: Array<[number, Box]>) => {
    let best: { off: number; line: number; other: Box } | null = null
    for (const [line, other] of all)
      for (const at of mine) {
        const off = line - at
        if (Math.abs(off) <= reach && (!best || Math.abs(off) < Math.abs(best.off))) best = { off, line, other }
      }
    return best as { off: number; line: number; other: Box } | null
  }
  const frame: Box = { x: 0, y: 0, w: FRAME.width, h: FRAME.height }
  const xs = others.flatMap((b) => [b.x, b.x + b.w / 2, b.x + b.w].map((v): [number, Box] => [v, b]))
  const ys = others.flatMap((b) => [b.y, b.y + b.h / 2, b.y + b.h].map((v): [number, Box] => [v, b]))
  const x = near([box.x, box.x + box.w / 2, box.x + box.w], [...xs, [FRAME.width / 2, frame]])
  const y = near([box.y, box.y + box.h / 2, box.y + box.h], [...ys, [FRAME.height / 2, frame]])
  const [dx, dy] = [x?.off ?? 0, y?.off ?? 0]
  if (x)
    guides.push({
      way: 'down',
      at: x.line,
      from: Math.min(box.y + dy, x.other.y),
      to: Math.max(box.y + dy + box.h, x.other.y + x.other.h),
    })
  if (y)
    guides.push({
      way: 'across',
      at: y.line,
      from: Math.min(box.x + dx, y.other.x),
      to: Math.max(box.x + dx + box.w, y.other.x + y.other.w),
    })
  return { dx, dy, guides }
}
