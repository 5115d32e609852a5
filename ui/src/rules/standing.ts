import type { Element } from '../wire/types.gen'

/** Whether a mark is removed from the frame; it can be brought back. */
export const isRemoved = (mark: Element) => mark.standing?.is === 'removed'

/** Whether a mark waits for the teacher's yes: its author sees it, and the teacher. */
export const isHeld = (mark: Element) => mark.standing?.is === 'held'

/** Whether a mark is there and out of the class's sight. */
export const isHidden = (mark: Element) => mark.standing?.is === 'hidden'
