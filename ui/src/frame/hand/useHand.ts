import { createContext, useContext } from 'react'
import { useStore } from 'zustand'
import type { Hand } from './hand'
import type { HandState } from './state'

const HandContext = createContext<Hand | null>(null)
export const HandProvider = HandContext.Provider

/** The hand of this frame. */
export function useHand(): Hand {
  const hand = useContext(HandContext)
  if (!hand) throw new Error('no hand on this frame')
  return hand
}

/** A part of what the hand is doing. */
export function useHandState<Part>(part: (state: HandState) => Part): Part {
  return useStore(useHand().state, part)
}
