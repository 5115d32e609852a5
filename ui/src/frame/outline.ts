import { getStroke } from 'perfect-freehand'
import type { Element, Form, Nib } from '../wire/types.gen'

type Stroke = Element & { kind: 'stroke' }

const outlines = new WeakMap<number[], Map<string, string>>()

/** The outline of a stroke as an SVG path inside its own box, kept for strokes that stay. */
export function strokePath(mark: Stroke): string {
  const { points, width, nib = '' } = mark.stroke
  const key = `${mark.w} ${mark.h} ${width} ${nib}`
  const known = outlines.get(points) ?? new Map<string, string>()
  outlines.set(points, known)
  const ready = known.get(key)
  if (ready !== undefined) return ready
  const path = outlinePath(stretched(mark), width, nib, true)
  known.set(key, path)
  return path
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

/** The outline of a stroke that may still grow. */
export function outlinePath(points: number[], width: number, nib: Nib, complete: boolean): string {
  const input: number[][] = []
  let pressed = false
  for (let i = 0; i + 2 < points.length; i += 3) {
    input.push([points[i]!, points[i + 1]!, points[i + 2]!])
    pressed ||= points[i + 2] !== 0.5
  }
  const outline = getStroke(input, {
    size: width * 1.4,
    ...nibs[nib],
    // A brush without pressure follows the speed of the hand.
    simulatePressure: nib === 'brush' && !pressed,
    last: complete,
  })
  if (outline.length === 0) return ''
  const round = (n: number) => Math.round(n * 10) / 10
  let path = ''
  for (let i = 0; i < outline.length; i++) {
    const [x, y] = outline[i] as [number, number]
    const [nx, ny] = outline[(i + 1) % outline.length] as [number, number]
    path += i === 0 ? `M${round((x + nx) / 2)} ${round((y + ny) / 2)}` : ''
    const [mx, my] = outline[(i + 2) % outline.length] as [number, number]
    path += `Q${round(nx)} ${round(ny)} ${round((nx + mx) / 2)} ${round((ny + my) / 2)}`
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
