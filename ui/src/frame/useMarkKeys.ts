import type { KeyboardEvent } from 'react'
import type { Element } from '../wire/types.gen'
import { inside } from './geometry'
import type { MarkActions } from './Marks'

const arrows: Record<string, [number, number]> = {
  ArrowLeft: [-1, 0],
  ArrowRight: [1, 0],
  ArrowUp: [0, -1],
  ArrowDown: [0, 1],
}

/** The keys on a focused mark: Enter writes, arrows move, Delete removes. */
export function useMarkKeys(mark: Element, actions: MarkActions | undefined) {
  return (e: KeyboardEvent) => {
    if (!actions || e.ctrlKey || e.metaKey || e.altKey) return
    if (e.key === ' ') {
      e.preventDefault()
      actions.onSelect(mark.id)
    }
    if (e.key === 'Escape') actions.onSelect(null)
    if (e.key === 'Enter') {
      e.preventDefault()
      actions.onSelect(mark.id)
      if (actions.mayChange(mark) && mark.kind !== 'stroke') actions.onEdit(mark.id)
    }
    if (!actions.mayChange(mark)) return
    if (e.key === 'Delete' || e.key === 'Backspace') {
      e.preventDefault()
      actions.onRemove(mark)
    }
    const arrow = arrows[e.key]
    if (arrow) {
      e.preventDefault()
      const step = e.shiftKey ? 50 : 10
      actions.onPlace(mark, inside(mark.x + arrow[0] * step, mark.y + arrow[1] * step, mark.w, mark.h))
    }
  }
}
