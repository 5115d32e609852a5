import { memo, useEffect, useRef } from 'react'
import type { Element, Frame } from '../../wire/types.gen'
import { paint } from './canvas'
import { partAround } from './near'
import { FRAME } from './geometry'
import { paintSoon, watch } from './paintQueue'

type Props = {
  frame: Frame
  marks: readonly Element[]
  label: string
  width: number
  /** Shows the part of the frame where the marks lie, as large as can be. */
  near?: boolean
}

/** A small picture of a frame, painted anew soon after something has changed. */
export const Thumbnail = memo(function Thumbnail({ frame, marks, label, width, near = false }: Props) {
  const canvas = useRef<HTMLCanvasElement>(null)
  const height = (width * FRAME.height) / FRAME.width
  useEffect(() => watch(canvas.current!), [])
  useEffect(() => {
    const to = canvas.current!
    let there = true
    const draw = () =>
      there &&
      paintSoon(to, () =>
        paint(to, frame, marks, width, devicePixelRatio, draw, near ? partAround(frame, marks) : undefined),
      )
    draw()
    // Text is measured with the house's fonts once they are there.
    if (document.fonts.status !== 'loaded') void document.fonts.ready.then(draw)
    return () => {
      there = false
    }
  }, [frame, marks, width, near])
  return (
    <canvas
      ref={canvas}
      dir="ltr" // as a frame is, whatever the language around it
      role="img"
      aria-label={label}
      style={{ width: '100%', aspectRatio: `${width} / ${height}` }}
    />
  )
})
