import type { Lying } from '../../rules/pieces'
import type { Element, Erase, Frame, Step, Tidied } from '../../wire/types.gen'
import type { From, Head } from '../paint/columns'
import { FRAME, type Box, type Point } from '../paint/geometry'
import type { Guide } from './arrange'
import type { Draft } from './draft'
import type { Settings } from './settings'

/** The tools, in the order they lie on the ledge. Notes, text, pictures and links are laid down at once. */
export const tools = [
  'select',
  'pen',
  'marker',
  'highlighter',
  'brush',
  'eraser',
  'shape',
  'connector',
  'stamp',
  'pointer',
] as const
export type Tool = (typeof tools)[number]

export const isInk = (tool: Tool) => tool === 'pen' || tool === 'marker' || tool === 'highlighter' || tool === 'brush'

/** What may take the place of a stroke just drawn. */
export type Offer = { mark: string; tidied: Tidied }

/** The part of the frame that is seen: 1 fits the whole; the middle in frame units. */
export type View = { zoom: number; x: number; y: number }
export const ZOOM = { least: 0.25, most: 4 }
export const wholeFrame: View = { zoom: 1, x: FRAME.width / 2, y: FRAME.height / 2 }

export type HandState = {
  tool: Tool
  settings: Settings
  selected: ReadonlySet<string>
  editing: string | null
  draft: Draft | null
  offer: Offer | null
  view: View
  /** What a gesture shows while it lasts. */
  sketch: Element | null
  erasing: Erase | null
  box: Box | null
  lasso: Point[] | null
  guides: Guide[]
  /** How far the selected marks are being moved. */
  shift: { ids: ReadonlySet<string>; dx: number; dy: number } | null
  /** Where the keyboard points. */
  cursor: Point | null
  names: boolean
  /** How many replies the notes have that have some. */
  replied: ReadonlyMap<string, number>
  /** How many notes lie in the stacks that some are on top of. */
  stacked: ReadonlyMap<string, number>
  /** Only this author's work is shown clearly. */
  only: string | null
  /** The mark whose author and time are shown because somebody asked. */
  asked: string | null
  /** The mark under the mouse. */
  hovered: string | null
  /** Where notes lie in columns: from which note on each is shown. */
  from: From
  /** True where words are written below the frame instead of on it. */
  writesBelow: boolean
}

/** How notes are moved where they lie in columns; see ./columns. */
export type Moves = {
  headAt: (heads: readonly Head[], x: number) => Head | undefined
  between: (ground: Ground, mark: Lying, x: number, y: number) => Step[]
  nextTo: (ground: Ground, mark: Lying, dx: number, dy: number) => Step[]
}

/** Where a hand works: what is on the frame, and who works there. */
export type Ground = {
  frame: Frame
  sheet: string | null
  marks: readonly Lying[]
  /** The marks without what the hand is just doing. */
  saved: readonly Element[]
  me: string
  works: boolean
  /** The frame itself is prepared: everything on it can be changed. */
  preparing: boolean
  /** The columns in which notes lie; null where they lie free. */
  columns: { heads: readonly Head[]; moves: Moves } | null
}
