import { memo, useLayoutEffect, useRef } from 'react'
import type { Element } from '../../wire/types.gen'
import { inkFill } from '../paint/colours'
import { strokePath } from '../paint/outline'
import { useMark } from './useMark'

type Stroke = Element & { kind: 'stroke' }

/** A highlighter lets what is under it shine through; in one path it never darkens itself. */
const shines = 'shines'
const GLIDE_MS = 180

/** A drawn line. */
export const StrokeMark = memo(function StrokeMark({ mark, fixed }: { mark: Stroke; fixed: boolean }) {
  return fixed ? (
    <path
      d={strokePath(mark)}
      className={`${inkFill[mark.stroke.ink]} ${mark.stroke.nib === 'highlighter' ? shines : ''}`}
    />
  ) : (
    <LiveStroke mark={mark} />
  )
})

function LiveStroke({ mark }: { mark: Stroke }) {
  const { selected, part, style, shift } = useMark(mark)
  const path = useRef<SVGPathElement>(null)
  const before = useRef({ x: mark.x, y: mark.y })
  const held = useRef<{ dx: number; dy: number } | null>(null)
  useLayoutEffect(() => {
    const [dx, dy] = [before.current.x - mark.x, before.current.y - mark.y]
    before.current = { x: mark.x, y: mark.y }
    // What one's own hand has brought here is here already.
    const own = held.current
    held.current = null
    const still = own && Math.abs(own.dx + dx) < 1 && Math.abs(own.dy + dy) < 1
    if ((dx === 0 && dy === 0) || still || matchMedia('(prefers-reduced-motion: reduce)').matches) return
    path.current?.animate([{ transform: `translate(${dx}px, ${dy}px)` }, { transform: 'none' }], {
      duration: GLIDE_MS,
      easing: 'ease-out',
    })
  }, [mark.x, mark.y])
  useLayoutEffect(() => {
    if (shift) held.current = { dx: shift.dx, dy: shift.dy }
  }, [shift])
  return (
    <path
      {...part}
      ref={path}
      d={strokePath(mark)}
      // A wide, invisible edge makes thin lines easy to catch.
      className={`mark-line ${inkFill[mark.stroke.ink]} ${mark.stroke.nib === 'highlighter' ? shines : ''} ${selected ? 'stroke-dusk' : 'stroke-transparent'}`}
      strokeWidth={selected ? 3 : 16}
      style={{ ...style, transform: shift ? `translate(${shift.dx}px, ${shift.dy}px)` : undefined }}
    />
  )
}
