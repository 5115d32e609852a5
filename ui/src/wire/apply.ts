import type { Element, Op, Set as SetProperties } from './types.gen'

/** An operation without its id, as it lies on the undo pile. */
export type Deed = Op extends infer O ? (O extends Op ? Omit<O, 'id'> : never) : never

/** A deed on a sheet that is understood. */
export type DeedHere = Deed extends infer D ? (D extends Deed ? Omit<D, 'sheet'> : never) : never

/** A deed that is about one mark as a whole. */
export function onMark(kind: 'hide' | 'show' | 'remove' | 'restore', sheet: string, mark: string): Deed {
  switch (kind) {
    case 'hide':
      return { sheet, kind, hide: { mark } }
    case 'show':
      return { sheet, kind, show: { mark } }
    case 'remove':
      return { sheet, kind, remove: { mark } }
    case 'restore':
      return { sheet, kind, restore: { mark } }
  }
}

export type Marks = Map<string, Element>

/**
 * Shows an operation on the device's own picture before the server has decided.
 * The server's answer replaces whatever this makes of it.
 *
 * `kept` holds marks that were removed, so that they can be brought back.
 */
export function preview(marks: Marks, kept: Marks, op: Op, author: string) {
  switch (op.kind) {
    case 'add': {
      const { mark, ...rest } = op.add
      marks.set(mark, { ...rest, id: mark, author, z: Number.MAX_SAFE_INTEGER, at: Date.now() } as Element)
      return
    }
    case 'set': {
      const old = marks.get(op.set.mark)
      if (old) marks.set(old.id, withProperties(old, op.set))
      return
    }
    case 'remove': {
      const old = marks.get(op.remove.mark)
      if (!old) return
      kept.set(old.id, old)
      marks.delete(old.id)
      return
    }
    case 'restore': {
      const old = kept.get(op.restore.mark) ?? marks.get(op.restore.mark)
      if (old) marks.set(old.id, { ...old, removedBy: undefined })
      return
    }
    case 'hide':
    case 'show': {
      const old = marks.get(op.kind === 'hide' ? op.hide.mark : op.show.mark)
      if (old) marks.set(old.id, { ...old, hidden: op.kind === 'hide' })
      return
    }
    case 'answer': {
      const { poll, choice } = op.answer
      if (choice === '') marks.delete(poll)
      else
        marks.set(poll, {
          id: poll,
          author,
          z: 0,
          at: Date.now(),
          x: 0,
          y: 0,
          w: 0,
          h: 0,
          kind: 'answer',
          answer: { poll, choice },
        })
    }
  }
}

/** The deed that would take an operation back, as far as the device can tell. */
export function inverse(marks: Marks, op: Op): Deed | null {
  const { sheet } = op
  switch (op.kind) {
    case 'add':
      return { sheet, kind: 'remove', remove: { mark: op.add.mark } }
    case 'remove':
      return { sheet, kind: 'restore', restore: op.remove }
    case 'restore':
      return { sheet, kind: 'remove', remove: op.restore }
    case 'hide':
      return { sheet, kind: 'show', show: op.hide }
    case 'show':
      return { sheet, kind: 'hide', hide: op.show }
    case 'set': {
      const old = marks.get(op.set.mark)
      return old ? { sheet, kind: 'set', set: properties(old, op.set) } : null
    }
    case 'answer':
      return null
  }
}

function withProperties(old: Element, set: SetProperties): Element {
  const { x, y, w, h, ...rest } = set
  const style = Object.fromEntries(Object.entries(rest).filter(([name]) => name !== 'mark'))
  const place = { x: x ?? old.x, y: y ?? old.y, w: w ?? old.w, h: h ?? old.h }
  switch (old.kind) {
    case 'note':
      return { ...old, ...place, note: { ...old.note, ...style } }
    case 'text':
      return { ...old, ...place, text: { ...old.text, ...style } }
    case 'stroke':
      return { ...old, ...place, stroke: { ...old.stroke, ...style } }
    default:
      return { ...old, ...place }
  }
}

/** The values that a mark has now of those properties that `like` names. */
function properties(mark: Element, like: SetProperties): SetProperties {
  const body =
    mark.kind === 'note' ? mark.note : mark.kind === 'text' ? mark.text : mark.kind === 'stroke' ? mark.stroke : {}
  const all: Record<string, unknown> = { x: mark.x, y: mark.y, w: mark.w, h: mark.h, ...body }
  const named = Object.keys(like).filter((name) => name !== 'mark')
  return { mark: mark.id, ...Object.fromEntries(named.map((name) => [name, all[name]])) }
}
