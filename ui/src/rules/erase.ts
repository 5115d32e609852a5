import { v5 as uuidv5 } from 'uuid'
import type { Element } from '../wire/types.gen'

// The eraser's geometry as the server computes it (core/ink/erase.go), so that
// what is under the eraser goes at once. A test holds both against the same cases.

type Stroke = Element & { kind: 'stroke' }
export type Eraser = { path: number[]; radius: number }
type Span = [number, number]

const lying = new WeakMap<Stroke, number[]>()

/** A stroke's points as they lie on the frame: stretched to its size, turned and at its place. */
export function drawn(mark: Stroke): number[] {
  const known = lying.get(mark) ?? computeDrawn(mark)
  lying.set(mark, known)
  return known
}

function computeDrawn(mark: Stroke): number[] {
  const { points } = mark.stroke
  let w = 0
  let h = 0
  for (let i = 0; i < points.length; i += 3) {
    w = Math.max(w, points[i]!)
    h = Math.max(h, points[i + 1]!)
  }
  const across = w > 0 ? mark.w / w : 1
  const down = h > 0 ? mark.h / h : 1
  const angle = ((mark.turn ?? 0) * Math.PI) / 180
  const [sin, cos] = [Math.sin(angle), Math.cos(angle)]
  const mx = mark.x + mark.w / 2
  const my = mark.y + mark.h / 2
  const out = new Array<number>(points.length)
  for (let i = 0; i < points.length; i += 3) {
    const x = points[i]! * across - mark.w / 2
    const y = points[i + 1]! * down - mark.h / 2
    out[i] = mx + x * cos - y * sin
    out[i + 1] = my + x * sin + y * cos
    out[i + 2] = points[i + 2]!
  }
  return out
}

/** The name space of object identifiers (RFC 9562, appendix A). */
const OID = '6ba7b812-9dad-11d1-80b4-00c04fd430c8'

const tenth = (n: number) => Math.round(n * 10) / 10

/** A piece of a stroke that was cut, with the id that the server gives it; one that is just shown has no operation. */
export function drawnAt(of: Stroke, points: number[], op: string, i: number): Stroke {
  const { place, own } = boxed(points)
  const id = op ? uuidv5(`${op}/${of.id}/${i}`, OID) : `${of.id}/${i}`
  return { ...of, id, ...place, turn: 0, stroke: { ...of.stroke, points: own } }
}

/** Points on the frame as a place and the points inside it, rounded to tenths. */
export function boxed(points: number[]) {
  let [left, top, right, bottom] = [Infinity, Infinity, -Infinity, -Infinity]
  for (let i = 0; i < points.length; i += 3) {
    left = Math.min(left, points[i]!)
    right = Math.max(right, points[i]!)
    top = Math.min(top, points[i + 1]!)
    bottom = Math.max(bottom, points[i + 1]!)
  }
  const x = Math.max(0, Math.floor(left * 10) / 10)
  const y = Math.max(0, Math.floor(top * 10) / 10)
  const own = points.map((n, i) =>
    i % 3 === 0 ? Math.max(0, tenth(n - x)) : i % 3 === 1 ? Math.max(0, tenth(n - y)) : Math.round(n * 100) / 100,
  )
  return { place: { x, y, w: tenth(right - x), h: tenth(bottom - y) }, own }
}

function underDisc(ax: number, ay: number, dx: number, dy: number, cx: number, cy: number, r: number): Span | null {
  const [mx, my] = [ax - cx, ay - cy]
  const dd = dx * dx + dy * dy
  if (dd === 0) return mx * mx + my * my < r * r ? [0, 1] : null
  const half = (mx * dx + my * dy) / dd
  const root = half * half - (mx * mx + my * my - r * r) / dd
  if (root <= 0) return null
  const s = Math.sqrt(root)
  const span: Span = [Math.max(0, -half - s), Math.min(1, -half + s)]
  return span[0] < span[1] ? span : null
}

const join = (a: Span | null, b: Span | null): Span | null =>
  a && b ? [Math.min(a[0], b[0]), Math.max(a[1], b[1])] : (a ?? b)

/** The part of a segment under a disc swept from s to e, from 0 to 1 along it; null for none. */
export function underSweep(a: Span, b: Span, s: Span, e: Span, r: number): Span | null {
  const [dx, dy] = [b[0] - a[0], b[1] - a[1]]
  const start = underDisc(a[0], a[1], dx, dy, s[0], s[1], r)
  const length = Math.hypot(e[0] - s[0], e[1] - s[1])
  if (length === 0) return start
  const under = join(start, underDisc(a[0], a[1], dx, dy, e[0], e[1], r))
  const [ux, uy] = [(e[0] - s[0]) / length, (e[1] - s[1]) / length]
  const [fx, fy] = [a[0] - s[0], a[1] - s[1]]
  let inside: Span | null = [0, 1]
  const clip = (at: number, by: number, low: number, high: number) => {
    if (!inside) return
    if (by === 0) {
      if (at <= low || at >= high) inside = null
      return
    }
    const [t0, t1] = [(low - at) / by, (high - at) / by]
    inside = [Math.max(inside[0], Math.min(t0, t1)), Math.min(inside[1], Math.max(t0, t1))]
    if (!(inside[0] < inside[1])) inside = null
  }
  clip(fx * ux + fy * uy, dx * ux + dy * uy, 0, length)
  clip(ux * fy - uy * fx, ux * dy - uy * dx, -r, r)
  return join(under, inside)
}

/** Where an eraser sweeps from and to. */
export type Sweep = [sx: number, sy: number, ex: number, ey: number]

const within = ([sx, sy, ex, ey]: Sweep, left: number, top: number, right: number, bottom: number) =>
  Math.max(sx, ex) >= left && Math.min(sx, ex) <= right && Math.max(sy, ey) >= top && Math.min(sy, ey) <= bottom

/** The sweeps of an eraser's way that can reach a line. */
export function sweepsNear({ path, radius }: Eraser, line: number[]): Sweep[] {
  let [left, top, right, bottom] = [Infinity, Infinity, -Infinity, -Infinity]
  for (let i = 0; i < line.length; i += 3) {
    left = Math.min(left, line[i]! - radius)
    right = Math.max(right, line[i]! + radius)
    top = Math.min(top, line[i + 1]! - radius)
    bottom = Math.max(bottom, line[i + 1]! + radius)
  }
  const sweeps: Sweep[] = []
  for (let i = 0; i === 0 || i + 2 < path.length; i += 2) {
    const next = Math.min(i + 2, path.length - 2)
    const sweep: Sweep = [path[i]!, path[i + 1]!, path[next]!, path[next + 1]!]
    if (within(sweep, left, top, right, bottom)) sweeps.push(sweep)
  }
  return sweeps
}

/** The parts of a segment under the eraser, in order and apart from each other. */
function over(sweeps: Sweep[], radius: number, a: Span, b: Span): Span[] {
  const parts: Span[] = []
  const [left, right] = [Math.min(a[0], b[0]) - radius, Math.max(a[0], b[0]) + radius]
  const [top, bottom] = [Math.min(a[1], b[1]) - radius, Math.max(a[1], b[1]) + radius]
  for (const sweep of sweeps) {
    if (!within(sweep, left, top, right, bottom)) continue
    const part = underSweep(a, b, [sweep[0], sweep[1]], [sweep[2], sweep[3]], radius)
    if (part) parts.push(part)
  }
  parts.sort((p, q) => p[0] - q[0])
  const joined: Span[] = []
  for (const p of parts) {
    const last = joined.at(-1)
    if (last && p[0] <= last[1]) last[1] = Math.max(last[1], p[1])
    else joined.push(p)
  }
  return joined
}

const pointAt = (line: number[], i: number): Span => [line[3 * i]!, line[3 * i + 1]!]

/** Whether sweeps have come over a line, given as it lies on the frame. */
export function touches(sweeps: Sweep[], radius: number, line: number[]): boolean {
  const n = line.length / 3
  const under = (i: number, j: number) => over(sweeps, radius, pointAt(line, i), pointAt(line, j)).length > 0
  if (sweeps.length === 0) return false
  if (n === 1) return under(0, 0)
  for (let i = 0; i + 1 < n; i++) if (under(i, i + 1)) return true
  return false
}

/** What is left of a line; null when the eraser did not touch it. */
export function cut(eraser: Eraser, line: number[]): number[][] | null {
  return cutBy(sweepsNear(eraser, line), eraser.radius, line)
}

/** The same, with the sweeps that can reach the line. */
export function cutBy(sweeps: Sweep[], radius: number, line: number[]): number[][] | null {
  if (sweeps.length === 0) return null
  if (line.length === 3) return touches(sweeps, radius, line) ? [] : null
  const pieces: number[][] = []
  let piece: number[] | null = null
  let touched = false
  const end = () => {
    if (piece && piece.length > 3) pieces.push(piece)
    piece = null
  }
  for (let i = 0; 3 * i + 3 < line.length; i++) {
    let at = 0
    const add = (t: number) => {
      piece ??= []
      for (let k = 0; k < 3; k++) {
        const from = line[3 * i + k]!
        piece.push(from + t * (line[3 * i + 3 + k]! - from))
      }
    }
    const keep = (to: number) => {
      if (to <= at) return
      if (!piece) add(at)
      add(to)
    }
    for (const gap of over(sweeps, radius, pointAt(line, i), pointAt(line, i + 1))) {
      touched = true
      keep(gap[0])
      end()
      at = gap[1]
    }
    keep(1)
  }
  end()
  return touched ? pieces : null
}
