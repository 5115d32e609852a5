import { memo, useEffect, useRef } from 'react'
import type { Element, Frame } from '../../wire/types.gen'
import { paint } from './canvas'
import { FRAME } from './geometry'
import { paintSoon, watch } from './paintQueue'

type Props = { frame: Frame; marks: readonly Element[]; label: string; width: number }

/** A small picture of a frame, painted anew soon after something has changed. */
export const Thumbnail = memo(function Thumbnail({ frame, marks, label, width }: Props) {
  const canvas = useRef<HTMLCanvasElement>(null)
  const height = (width * FRAME.height) / FRAME.width
  useEffect(() => watch(canvas.current!), [])
  useEffect(() => {
    const to = canvas.current!
    let there = true
    const draw = () => there && paintSoon(to, () => paint(to, frame, marks, width, devicePixelRatio, draw))
    draw()
    // Text is measured with the house's fonts once they are there.
    if (document.fonts.status !== 'loaded') void document.fonts.ready.then(draw)
    return () => {
      there = false
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
})
