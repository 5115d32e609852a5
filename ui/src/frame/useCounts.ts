import { useEffect } from 'react'
import type { Reply, Under } from '../rules/pieces'
import { isHidden } from '../rules/standing'
import type { Hand } from './hand/hand'

/** The replies to a note. */
export const replied = (replies: readonly Reply[], note: string) => replies.filter((r) => r.reply.to === note)

/** Lets the hand know how many replies notes have, and how many lie in a stack; a note is painted anew when its number changes. */
export function useCounts(hand: Hand, replies: readonly Reply[], under: Under) {
  useEffect(() => {
    const counts = new Map<string, number>()
    for (const r of replies) if (!isHidden(r)) counts.set(r.reply.to, (counts.get(r.reply.to) ?? 0) + 1)
    hand.set({ replied: counts })
  }, [hand, replies])
  useEffect(
    () => hand.set({ stacked: new Map([...under].map(([top, notes]) => [top, notes.length + 1])) }),
    [hand, under],
  )
}
