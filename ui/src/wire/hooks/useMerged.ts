import { useRef } from 'react'
import type { Code } from '../types.gen'

/**
 * Changes one thing of several that are saved together: what was changed a moment ago is
 * not taken back by what the server said before. What is refused is given up.
 */
export function useMerged<T extends object>(saved: T | undefined, save: (next: T) => Promise<Code | null>) {
  const mine = useRef<Partial<T>>({})
  return async (to: Partial<T>): Promise<Code | null> => {
    mine.current = { ...mine.current, ...to }
    const refused = await save({ ...saved!, ...mine.current })
    if (refused) for (const key of Object.keys(to) as (keyof T)[]) delete mine.current[key]
    return refused
  }
}
