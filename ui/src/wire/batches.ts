import type { Deed } from '../rules/apply'
import type { Step } from './types.gen'

// What fits into one message to the server.
const MAX_BATCH_OPS = 40
const MAX_BATCH_BYTES = 56_000
const MAX_STEPS = 300

/** A large deed of many steps as several smaller ones, each of which fits a message. */
export function inParts(deed: Deed): Deed[] {
  if (deed.kind !== 'many') return [deed]
  const parts: Step[][] = [[]]
  let bytes = 0
  for (const step of deed.many.steps) {
    const size = new Blob([JSON.stringify(step)]).size
    if (parts.at(-1)!.length >= MAX_STEPS || (bytes + size > MAX_BATCH_BYTES && bytes > 0)) {
      parts.push([])
      bytes = 0
    }
    parts.at(-1)!.push(step)
    bytes += size
  }
  return parts.map((steps) => ({ sheet: deed.sheet, back: deed.back, kind: 'many', many: { steps } }))
}

/** As many of the first operations as one message may hold. */
export function nextBatch<Op>(pending: Op[]): Op[] {
  const batch: Op[] = []
  let bytes = 0
  for (const op of pending.slice(0, MAX_BATCH_OPS)) {
    bytes += new Blob([JSON.stringify(op)]).size
    if (batch.length > 0 && bytes > MAX_BATCH_BYTES) break
    batch.push(op)
  }
  return batch
}
