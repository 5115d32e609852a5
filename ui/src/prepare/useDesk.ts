import { createContext, useContext } from 'react'
import { useStore } from 'zustand'
import type { Desk, DeskState } from '../wire/desk'

const DeskContext = createContext<Desk | null>(null)
export const DeskProvider = DeskContext.Provider

/** The board on this screen. */
export function useDesk(): Desk {
  const desk = useContext(DeskContext)
  if (!desk) throw new Error('no board around this part')
  return desk
}

/** A part of the board's state; the part is shown anew when it changes. */
export function useDeskState<Part>(part: (state: DeskState) => Part): Part {
  return useStore(useDesk().state, part)
}
