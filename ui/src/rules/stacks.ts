import type { Element } from '../wire/types.gen'
import { isRemoved } from './standing'

const stackOf = (m: Element) => (m.kind === 'note' && !isRemoved(m) ? m.note.stack : undefined)

/** Whether a note lies above another of its stack: one that the class sees, then the one that was made first. */
function above(a: Element, b: Element) {
  const [shown, other] = [!a.standing, !b.standing]
  if (shown !== other) return shown
  return a.at !== b.at ? a.at < b.at : a.id < b.id
}

/** The notes that lie in a stack and not on top of it, by the note on top; as core/lesson's Beneath has it. */
export function beneath(marks: readonly Element[]): Map<string, Element[]> {
  const tops = new Map<string, Element>()
  for (const m of marks) {
    const stack = stackOf(m)
    const top = stack && tops.get(stack)
    if (stack && (!top || above(m, top))) tops.set(stack, m)
  }
  const under = new Map<string, Element[]>()
  for (const m of marks) {
    const top = tops.get(stackOf(m) ?? '')
    if (top && top.id !== m.id) under.set(top.id, [...(under.get(top.id) ?? []), m])
  }
  return under
}
