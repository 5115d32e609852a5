import { useEffect, useEffectEvent, useState } from 'react'
import type { LessonState } from '../lesson'
import { never, soon } from '../pace'
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
    const look = () => {
      const now = state.getState()
      if (!same(now)) see(now)
    }
    const stop = state.subscribe(() => soon(look, everyMs))
    look()
    return () => {
      stop()
      never(look)
    }
  }, [state, everyMs])
  return part(seen)
}
