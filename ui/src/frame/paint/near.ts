import type { Element, Frame } from '../../wire/types.gen'
import { laid } from '../../rules/pieces'
import { around, boundsOf, FRAME, type Box } from './geometry'

/** What is left free around the marks, and how small the part may be, so that a lone note does not fill it. */
const RIM = 40
const LEAST = 0.4

/** The part of the frame around some marks, of the shape of a frame and within it; undefined for all of it. */
export function partAround(frame: Frame, marks: readonly Element[]): Box | undefined {
  const box = around(laid(frame, marks).marks.map(boundsOf))
  if (!box || frame.layout.columns?.length) return undefined
  const share = Math.max(LEAST, (box.w + 2 * RIM) / FRAME.width, (box.h + 2 * RIM) / FRAME.height)
  if (share >= 0.95) return undefined
  const [w, h] = [FRAME.width * share, FRAME.height * share]
  const within = (at: number, size: number, of: number) => Math.min(Math.max(at - size / 2, 0), of - size)
  return {
    x: within(box.x + box.w / 2, w, FRAME.width),
    y: within(box.y + box.h / 2, h, FRAME.height),
    w,
    h,
  }
}
