import { useSyncExternalStore } from 'react'

const narrow = matchMedia('(max-width: 767px) and (min-height: 560px)')

const watch = (changed: () => void) => {
  narrow.addEventListener('change', changed)
  return () => narrow.removeEventListener('change', changed)
}

/** Whether the screen is a phone's. */
export const useNarrow = () => useSyncExternalStore(watch, () => narrow.matches)
