import { useEffect, useEffectEvent, useState } from 'react'
import type { LessonState } from './lesson'
import { useLesson } from './useLesson'

/**
 * A part of the lesson's state for what need not be shown the moment it is heard:
 * looked at no more often than every so many milliseconds.
 */
export function useCalmState<Part>(part: (state: LessonState) => Part, everyMs: number): Part {
  const { state } = useLesson()
  const [seen, see] = useState(() => state.getState())
  const same = useEffectEvent((now: LessonState) => part(now) === part(seen))
  useEffect(() => {
    let next: ReturnType<typeof setTimeout> | undefined
    const look = () => {
      next = undefined
      const now = state.getState()
      if (!same(now)) see(now)
    }
    const stop = state.subscribe(() => (next ??= setTimeout(look, everyMs)))
    look()
    return () => {
      stop()
      clearTimeout(next)
    }
  }, [state, everyMs])
  return part(seen)
}
