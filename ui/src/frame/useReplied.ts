import { useEffect } from 'react'
import type { Reply } from '../rules/pieces'
import { isHidden } from '../rules/standing'
import type { Hand } from './hand/hand'

/** The replies to a note. */
export const replied = (replies: readonly Reply[], note: string) => replies.filter((r) => r.reply.to === note)

/** Lets the hand know how many replies notes have; a note is painted anew when its number changes. */
export function useReplied(hand: Hand, replies: readonly Reply[]) {
  useEffect(() => {
    const counts = new Map<string, number>()
    for (const { reply, ...mark } of replies)
      if (!isHidden(mark as Reply)) counts.set(reply.to, (counts.get(reply.to) ?? 0) + 1)
    hand.set({ replied: counts })
  }, [hand, replies])
}
