import { memo } from 'react'
import type { Element } from '../../wire/types.gen'
import { inkFill } from '../colours'
import { strokePath } from '../outline'
import { useMark } from './useMark'

type Stroke = Element & { kind: 'stroke' }

const turnOf = (mark: Stroke, x: number, y: number) =>
  `translate(${x}px, ${y}px)${mark.turn ? ` translate(${mark.w / 2}px, ${mark.h / 2}px) rotate(${mark.turn}deg) translate(${-mark.w / 2}px, ${-mark.h / 2}px)` : ''}`

/** A highlighter lets what is under it shine through; in one path it never darkens itself. */
const shines = 'opacity-40 mix-blend-multiply'

/** A drawn line. */
export const StrokeMark = memo(function StrokeMark({ mark, fixed }: { mark: Stroke; fixed: boolean }) {
  return fixed ? (
    <path
      d={strokePath(mark)}
      style={{ transform: turnOf(mark, mark.x, mark.y) }}
      className={`${inkFill[mark.stroke.ink]} ${mark.stroke.nib === 'highlighter' ? shines : ''}`}
    />
  ) : (
    <LiveStroke mark={mark} />
  )
})

function LiveStroke({ mark }: { mark: Stroke }) {
  const { selected, part, x, y, style } = useMark(mark)
  return (
    <path
      {...part}
      d={strokePath(mark)}
      // A wide, invisible edge makes thin lines easy to catch.
      className={`mark-line ${inkFill[mark.stroke.ink]} ${mark.stroke.nib === 'highlighter' ? shines : ''} ${selected ? 'stroke-dusk' : 'stroke-transparent'}`}
      strokeWidth={selected ? 3 : 16}
      style={{ ...style, transform: turnOf(mark, x, y) }}
    />
  )
}
