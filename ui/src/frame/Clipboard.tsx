import type { RefObject } from 'react'
import { useClipboard } from './hand/clipboard'
import { useHand } from './hand/useHand'
import type { Point } from './paint/geometry'

type Props = { at: RefObject<HTMLDivElement | null>; add: (files: File[], at?: Point) => void }

/** Copy, cut and paste on a workplace; a part of its own, because nobody pastes at once. */
export default function Clipboard({ at, add }: Props) {
  useClipboard(at, useHand(), add)
  return null
}
