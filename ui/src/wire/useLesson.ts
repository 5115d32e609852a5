import { createContext, useContext, useEffect, useState, useSyncExternalStore } from 'react'
import { useStore } from 'zustand'
import { Lesson, type LessonState } from './lesson'
import type { Passing } from './passing'
import type { Role } from './types.gen'

const LessonContext = createContext<Lesson | null>(null)
export const LessonProvider = LessonContext.Provider

/** Connects to a session for as long as the screen is there. Give the screen the session as its key. */
export function useLessonConnection(session: string, as: Role, seat: string): Lesson {
  const [lesson] = useState(() => new Lesson(session, as, seat))
  useEffect(() => {
    void lesson.start()
    return () => lesson.stop()
  }, [lesson])
  return lesson
}

/** The lesson of this screen. */
export function useLesson(): Lesson {
  const lesson = useContext(LessonContext)
  if (!lesson) throw new Error('no lesson around this part')
  return lesson
}

/** A part of the lesson's state; the part is shown anew when it changes. */
export function useLessonState<Part>(part: (state: LessonState) => Part): Part {
  return useStore(useLesson().state, part)
}

/** Something of what passes on the sheets without being kept; it must be the same value until it changes. */
export function usePassing<Part>(part: (passing: Passing) => Part): Part {
  const { passing } = useLesson()
  return useSyncExternalStore(passing.listen, () => part(passing))
}
