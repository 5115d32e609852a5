import { memo } from 'react'
import type { Element } from '../../wire/types.gen'
import { inkStroke, tintFill } from '../paint/colours'
import { LINE, SHAPE_TEXT } from '../paint/geometry'
import { useHandState } from '../hand/useHand'
import { shapePath } from '../paint/outline'
import { Writing } from '../hand/Writing'
import { boxStyle, useMark } from './useMark'

type Shape = Element & { kind: 'shape' }

/** A figure with an outline, a fill and words in it. */
export const ShapeMark = memo(function ShapeMark({ mark, fixed }: { mark: Shape; fixed: boolean }) {
  return fixed ? (
    <div className="pointer-events-none absolute" style={boxStyle(mark, mark.x, mark.y, { height: mark.h })}>
      <Figure mark={mark} />
      <Inside mark={mark}>{mark.shape.text}</Inside>
    </div>
  ) : (
    <LiveShape mark={mark} />
  )
})

function LiveShape({ mark }: { mark: Shape }) {
  const { selected, editing, part, x, y, style, may } = useMark(mark)
  const narrow = useHandState((s) => s.writesBelow)
  const writes = editing && !narrow
  return (
    <div
      {...(writes ? { 'data-mark': mark.id, 'data-own-hand': true } : part)}
      className={`mark-shape absolute ${may ? 'cursor-grab' : ''}`}
      style={boxStyle(mark, x, y, { ...style, height: mark.h })}
    >
      <Figure mark={mark} selected={selected} />
      <Inside mark={mark}>{writes ? <Writing mark={mark} /> : mark.shape.text}</Inside>
    </div>
  )
}

function Figure({ mark, selected = false }: { mark: Shape; selected?: boolean }) {
  const { form, ink, fill, width, dash, lean } = mark.shape
  const d = shapePath(form, mark.w, mark.h, lean)
  return (
    <svg
      className="pointer-events-none absolute inset-0 overflow-visible"
      // A level or plumb line has no height or width; without any, nothing would be painted.
      width={Math.max(1, mark.w)}
      height={Math.max(1, mark.h)}
      aria-hidden="true"
    >
      {selected && (
        <path d={d} className="fill-none stroke-dusk-soft" strokeWidth={width + 12} strokeLinejoin="round" />
      )}
      <path
        d={d}
        data-part="figure"
        className={`${inkStroke[ink]} ${fill ? tintFill[fill] : 'fill-none'}`}
        strokeWidth={width}
        strokeLinejoin="round"
        strokeDasharray={dash ? '14 12' : undefined}
        style={{ pointerEvents: fill ? 'all' : 'stroke' }}
      />
      {/* A wide, invisible edge makes thin outlines easy to catch. */}
      <path
        d={d}
        className="fill-none stroke-transparent"
        strokeWidth={Math.max(24, width)}
        style={{ pointerEvents: 'stroke' }}
      />
    </svg>
  )
}

const Inside = ({ mark, children }: { mark: Shape; children: React.ReactNode }) =>
  children ? (
    <div
      className={`mark-words absolute grid place-items-center text-center break-words whitespace-pre-wrap ${mark.shape.fill ? 'text-night' : 'text-ink-night'}`}
      style={{
        inset:
          mark.shape.form === 'triangle'
            ? '45% 18% 4%'
            : mark.shape.form === 'bubble'
              ? '4% 8% 22%'
              : mark.shape.form === 'rect' || mark.shape.form === 'rounded'
                ? '4% 6%'
                : '18% 20%',
        fontSize: SHAPE_TEXT,
        lineHeight: LINE,
      }}
    >
      <div dir="auto" data-part="inside" className="w-full">
        {children}
      </div>
    </div>
  ) : null
