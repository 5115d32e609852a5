import { getStroke } from 'perfect-freehand'
import type { Element, Form, Nib } from '../../wire/types.gen'

type Stroke = Element & { kind: 'stroke' }

const outlines = new WeakMap<number[], Map<string, number[]>>()

/**
 * The outline of a stroke as an SVG path at its place on the frame. Place and
 * turn are in the numbers, not in a transform: hundreds of transforms would
 * each become a layer of the browser's. The outline is kept for strokes that stay.
 */
export function strokePath(mark: Stroke): string {
  const { points, width, nib = '' } = mark.stroke
  const key = `${mark.w} ${mark.h} ${width} ${nib}`
  const known = outlines.get(points) ?? new Map<string, number[]>()
  outlines.set(points, known)
  let outline = known.get(key)
  if (!outline) {
    outline = outlineOf(stretched(mark), width, nib, true)
    known.set(key, outline)
  }
  return asPath(outline, mark)
}

/** A stroke's points, stretched to the size it has now. */
function stretched({ stroke: { points }, w, h }: Stroke): number[] {
  let across = 0
  let down = 0
  for (let i = 0; i < points.length; i += 3) {
    across = Math.max(across, points[i]!)
    down = Math.max(down, points[i + 1]!)
  }
  const x = across > 0 ? w / across : 1
  const y = down > 0 ? h / down : 1
  if (Math.abs(x - 1) < 1e-3 && Math.abs(y - 1) < 1e-3) return points
  return points.map((n, i) => (i % 3 === 0 ? n * x : i % 3 === 1 ? n * y : n))
}

const nibs: Record<Nib, { thinning: number; smoothing: number; streamline: number }> = {
  '': { thinning: 0.35, smoothing: 0.6, streamline: 0.35 },
  marker: { thinning: 0, smoothing: 0.5, streamline: 0.35 },
  highlighter: { thinning: 0, smoothing: 0.5, streamline: 0.5 },
  brush: { thinning: 0.85, smoothing: 0.7, streamline: 0.4 },
}

/** The outline of a stroke that may still grow, given by its points on the frame. */
export const outlinePath = (points: number[], width: number, nib: Nib) => asPath(outlineOf(points, width, nib, false))

/** The corners of an outline as x0, y0, x1, y1, ... */
function outlineOf(points: number[], width: number, nib: Nib, complete: boolean): number[] {
  const input: number[][] = []
  let pressed = false
  for (let i = 0; i + 2 < points.length; i += 3) {
    input.push([points[i]!, points[i + 1]!, points[i + 2]!])
    pressed ||= points[i + 2] !== 0.5
  }
  return getStroke(input, {
    size: width * 1.4,
    ...nibs[nib],
    // A brush without pressure follows the speed of the hand.
    simulatePressure: nib === 'brush' && !pressed,
    last: complete,
  }).flat()
}

/** An outline as a smooth closed path, at the place of a mark and turned as it is. */
function asPath(outline: number[], at?: { x: number; y: number; w: number; h: number; turn?: number }): string {
  const n = outline.length / 2
  if (n === 0) return ''
  const angle = ((at?.turn ?? 0) * Math.PI) / 180
  const [sin, cos] = [Math.sin(angle), Math.cos(angle)]
  const [hw, hh] = at ? [at.w / 2, at.h / 2] : [0, 0]
  const [mx, my] = at ? [at.x + hw, at.y + hh] : [0, 0]
  const placed = new Array<number>(outline.length)
  for (let i = 0; i < n; i++) {
    const [x, y] = [outline[2 * i]! - hw, outline[2 * i + 1]! - hh]
    placed[2 * i] = mx + x * cos - y * sin
    placed[2 * i + 1] = my + x * sin + y * cos
  }
  const round = (v: number) => Math.round(v * 10) / 10
  const between = (i: number) => {
    const [a, b] = [2 * (i % n), 2 * ((i + 1) % n)]
    return `${round((placed[a]! + placed[b]!) / 2)} ${round((placed[a + 1]! + placed[b + 1]!) / 2)}`
  }
  let path = `M${between(0)}`
  for (let i = 1; i <= n; i++) {
    const a = 2 * (i % n)
    path += `Q${round(placed[a]!)} ${round(placed[a + 1]!)} ${between(i)}`
  }
  return path + 'Z'
}

/** The outline of a shape as an SVG path inside a box of w x h. */
export function shapePath(form: Form, w: number, h: number, lean = 0): string {
  switch (form) {
    case 'rect':
      return `M0 0H${w}V${h}H0Z`
    case 'rounded': {
      const r = Math.min(w, h) * 0.2
      return `M${r} 0H${w - r}A${r} ${r} 0 0 1 ${w} ${r}V${h - r}A${r} ${r} 0 0 1 ${w - r} ${h}H${r}A${r} ${r} 0 0 1 0 ${h - r}V${r}A${r} ${r} 0 0 1 ${r} 0Z`
    }
    case 'ellipse':
      return `M0 ${h / 2}A${w / 2} ${h / 2} 0 1 1 ${w} ${h / 2}A${w / 2} ${h / 2} 0 1 1 0 ${h / 2}Z`
    case 'triangle':
      return `M${w * (0.5 + lean)} 0L${w} ${h}H0Z`
    case 'diamond':
      return `M${w / 2} 0L${w} ${h / 2}L${w / 2} ${h}L0 ${h / 2}Z`
    case 'bubble': {
      const r = Math.min(w, h) * 0.2
      const b = h * 0.8
      return `M${r} 0H${w - r}A${r} ${r} 0 0 1 ${w} ${r}V${b - r}A${r} ${r} 0 0 1 ${w - r} ${b}H${w * 0.42}L${w * 0.18} ${h}L${w * 0.22} ${b}H${r}A${r} ${r} 0 0 1 0 ${b - r}V${r}A${r} ${r} 0 0 1 ${r} 0Z`
    }
    case 'star': {
      // Five points on the largest ellipse that the box holds, the upper one plumb.
      const tips: string[] = []
      for (let i = 0; i < 10; i++) {
        const a = -Math.PI / 2 + (i * Math.PI) / 5
        const r = i % 2 === 0 ? 1 : 0.42
        const x = w / 2 + ((w / 2) * r * Math.cos(a)) / 0.951
        const y = (h * (1 + r * Math.sin(a))) / 1.809
        tips.push(`${Math.round(x * 10) / 10} ${Math.round(y * 10) / 10}`)
      }
      return `M${tips.join('L')}Z`
    }
    case 'line':
      return `M0 0L${w} ${h}`
  }
}

/** The head of an arrow whose tip lies at (x, y), coming from (fx, fy). */
export function headPath(fx: number, fy: number, x: number, y: number, width: number): string {
  const length = 14 + 2.6 * width
  const angle = Math.atan2(y - fy, x - fx)
  const barb = (side: number) =>
    `${x - length * Math.cos(angle + side * 0.48)} ${y - length * Math.sin(angle + side * 0.48)}`
  return `M${barb(1)}L${x} ${y}L${barb(-1)}`
}
