import type { Element } from '../../wire/types.gen'
import type { Settings } from './settings'

/** A note or text that is being written; it becomes a mark with its first words. */
export type Draft = { kind: 'note' | 'text'; id: string; x: number; y: number; w: number; h: number }

/** Whether a mark is only being written and not yet on the sheet. */
export const isDraft = (mark: Element) => mark.z === Number.MAX_SAFE_INTEGER

/** The draft as a mark, for painting it while it is written. */
export function draftMark(draft: Draft, settings: Settings, author: string): Element {
  const { id, x, y, w, h } = draft
  const common = { id, x, y, w, h, author, z: Number.MAX_SAFE_INTEGER, at: 0 }
  return draft.kind === 'note'
    ? { ...common, kind: 'note', note: { text: '', ...settings.note } }
    : { ...common, kind: 'text', text: { text: '', ...settings.text } }
}
