import { useState } from 'react'
import type { Element, Ink, Tint } from '../wire/types.gen'

export type Tool = 'move' | 'pen'

/** A note or label that is being written; it becomes a mark with its first words. */
export type Draft = { kind: 'note' | 'text'; id: string; x: number; y: number; w: number; h: number }

/** What a person's hand is doing on a frame. Each tool keeps its own settings. */
export type Hand = {
  tool: Tool
  pen: { ink: Ink; width: number }
  note: { tint: Tint }
  text: { ink: Ink }
  selected: string | null
  editing: string | null
  draft: Draft | null
  zoom: number
}

export const penWidths = { thin: 4, medium: 8, thick: 16 } as const

const start: Hand = {
  tool: 'move',
  pen: { ink: 'night', width: penWidths.medium },
  note: { tint: 'apricot' },
  text: { ink: 'night' },
  selected: null,
  editing: null,
  draft: null,
  zoom: 1,
}

/** Holds what the hand is doing. */
export function useHand(tool: Tool = 'move') {
  const [hand, setHand] = useState<Hand>({ ...start, tool })
  const change = (part: Partial<Hand>) => setHand((before) => ({ ...before, ...part }))
  return { hand, change }
}

/** The draft as a mark, for painting it while it is written. */
export function draftMark(draft: Draft, hand: Hand, author: string): Element {
  const { id, x, y, w, h } = draft
  const common = { id, x, y, w, h, author, z: Number.MAX_SAFE_INTEGER, at: 0 }
  return draft.kind === 'note'
    ? { ...common, kind: 'note', note: { text: '', tint: hand.note.tint } }
    : { ...common, kind: 'text', text: { text: '', size: 36, ink: hand.text.ink } }
}
