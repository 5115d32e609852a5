import { useRef } from 'react'

/**
 * Changes one thing of several that are saved together: what was changed a moment ago
 * is not taken back by what the server said before.
 */
export function useMerged<T extends object, R>(saved: T | undefined, save: (next: T) => R) {
  const mine = useRef<Partial<T>>({})
  return (to: Partial<T>): R => {
    mine.current = { ...mine.current, ...to }
    return save({ ...saved!, ...mine.current })
  }
}
