import { memo, useRef } from 'react'
import { useTranslation } from 'react-i18next'
import type { Element } from '../wire/types.gen'
import { inkFill } from './colours'
import { inside, strokePath } from './geometry'
import type { MarkActions } from './Marks'
import { useDrag } from './useDrag'
import { useMarkKeys } from './useMarkKeys'

type Props = { mark: Element & { kind: 'stroke' }; scale: number; actions?: MarkActions }

/** A drawn line. Who may change it can pick it up. */
export const StrokeMark = memo(function StrokeMark({ mark, scale, actions }: Props) {
  const { t } = useTranslation()
  const at = useRef<SVGPathElement>(null)
  const shift = (dx: number, dy: number) => `translate(${mark.x + dx} ${mark.y + dy})`
  const drag = useDrag(scale, {
    onMove: (dx, dy) => at.current?.setAttribute('transform', shift(dx, dy)),
    onDrop: (dx, dy) => actions?.onPlace(mark, inside(mark.x + dx, mark.y + dy, mark.w, mark.h)),
  })
  const keys = useMarkKeys(mark, actions)
  const who = actions?.nameOf(mark.author)
  const selected = actions?.selected === mark.id
  const movable = actions?.touchable && actions.mayChange(mark)
  const look = `${inkFill[mark.stroke.ink]} ${mark.hidden ? 'opacity-35' : ''} ${selected ? 'stroke-dusk' : movable ? 'stroke-transparent' : ''}`
  const common = {
    d: strokePath(mark.stroke.points, mark.stroke.width),
    transform: shift(0, 0),
    className: look,
    // A wide, invisible edge makes thin lines easy to catch.
    strokeWidth: selected ? 3 / scale : movable ? 16 : undefined,
    'aria-label': who?.mine ? t('frame.yourStroke') : t('frame.strokeBy', { name: who?.name ?? '' }),
  }
  if (!movable) return <path {...common} role="img" />
  return (
    <path
      {...common}
      {...drag}
      ref={at}
      role="button"
      aria-pressed={selected}
      tabIndex={0}
      onFocus={() => actions?.onSelect(mark.id)}
      onKeyDown={keys}
      onPointerDown={(e) => {
        actions?.onSelect(mark.id)
        drag.onPointerDown(e)
      }}
      style={{ pointerEvents: 'all', touchAction: 'none' }}
    />
  )
})
