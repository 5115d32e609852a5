import { useEffect, useRef } from 'react'
import type { Element, Frame } from '../wire/types.gen'
import { paint } from './canvas'
import { FRAME } from './geometry'

type Props = { frame: Frame; marks: readonly Element[]; label: string; width: number }

/** A small picture of a frame, painted anew with the next picture of the screen when something changes. */
export function Thumbnail({ frame, marks, label, width }: Props) {
  const canvas = useRef<HTMLCanvasElement>(null)
  const height = (width * FRAME.height) / FRAME.width
  useEffect(() => {
    let there = true
    const draw = () => {
      const to = canvas.current
      if (to && there) paint(to, frame, marks, width, devicePixelRatio, draw)
    }
    const next = requestAnimationFrame(draw)
    // Text is measured with the house's fonts once they are there.
    void document.fonts.ready.then(() => there && draw())
    return () => {
      there = false
      cancelAnimationFrame(next)
    }
  }, [frame, marks, width])
  return (
    <canvas
      ref={canvas}
      dir="ltr" // as a frame is, whatever the language around it
      role="img"
      aria-label={label}
      style={{ width: '100%', aspectRatio: `${width} / ${height}` }}
    />
  )
}
