import { useSyncExternalStore } from 'react'

function media(query: string) {
  const list = matchMedia(query)
  const watch = (changed: () => void) => {
    list.addEventListener('change', changed)
    return () => list.removeEventListener('change', changed)
  }
  return () => useSyncExternalStore(watch, () => list.matches)
}

/** Whether the screen is a phone's. */
export const useNarrow = media('(max-width: 767px) and (min-height: 560px)')

/** Whether it is a phone's that is turned: everything stands beside the frame (`turned:` in styles.css). */
export const useTurned = media('(max-height: 479px) and (min-width: 576px)')
