import { useEffect, useRef } from 'react'
import type { Growing } from '../wire/passing'
import { useBench } from '../wire/hooks/useLesson'
import { token } from './paint/colours'
import { FRAME } from './paint/geometry'

/**
 * Lines that others are drawing. Only what has grown is painted, on a canvas of
 * its own, so that thirty hands at once cost little; when a line has arrived
 * for good, the canvas is painted anew without it.
 */
export function OthersLines({ sheet }: { sheet: string }) {
  const { passing } = useBench()
  const canvas = useRef<HTMLCanvasElement>(null)
  useEffect(() => {
    const at = canvas.current
    const to = at?.getContext('2d')
    if (!at || !to) return
    let waiting = 0
    /** How many numbers of each line are painted. */
    let painted = new Map<string, number>()
    const colours = new Map<string, string>()
    const colourOf = (ink: string) => {
      if (!colours.has(ink)) colours.set(ink, token(`ink-${ink}`))
      return colours.get(ink)!
    }
    const paint = () => {
      waiting = 0
      const here = [...passing.strokes].filter(([, s]) => s.sheet === sheet)
      const ids = new Set(here.map(([id]) => id))
      // A highlighter would darken itself where pieces of it meet.
      const anew = [...painted.keys()].some((id) => !ids.has(id)) || here.some(([, s]) => s.draw.nib === 'highlighter')
      if (anew) {
        to.clearRect(0, 0, FRAME.width, FRAME.height)
        painted = new Map()
      }
      for (const [id, stroke] of here) {
        grow(to, stroke, painted.get(id) ?? 0, colourOf(stroke.draw.ink))
        painted.set(id, stroke.draw.points.length)
      }
      at.dataset.lines = String(here.length)
    }
    const stop = passing.listen(() => (waiting ||= requestAnimationFrame(paint)))
    return () => {
      stop()
      cancelAnimationFrame(waiting)
    }
  }, [passing, sheet])
  return (
    <canvas
      ref={canvas}
      aria-hidden="true"
      data-part="others-lines"
      data-lines="0"
      width={FRAME.width}
      height={FRAME.height}
      className="pointer-events-none absolute inset-0"
    />
  )
}

/** Paints a line from the number of its points on that are new. */
function grow(to: CanvasRenderingContext2D, { draw }: Growing, from: number, colour: string) {
  const { points } = draw
  if (points.length === from) return
  to.globalAlpha = draw.nib === 'highlighter' ? 0.4 : 1
  to.strokeStyle = colour
  to.lineWidth = draw.width
  to.lineCap = to.lineJoin = 'round'
  to.beginPath()
  const start = Math.max(0, from - 3)
  to.moveTo(points[start]!, points[start + 1]!)
  for (let i = start + 3; i + 2 < points.length; i += 3) to.lineTo(points[i]!, points[i + 1]!)
  to.stroke()
}
