import { createContext, useContext, useEffect, useState, useSyncExternalStore } from 'react'
import { useStore } from 'zustand'
import type { StoreApi } from 'zustand/vanilla'
import type { Bench, BenchState } from '../bench'
import { Lesson, type LessonState } from '../lesson'
import type { Passing } from '../passing'
import type { Homework, Role } from '../types.gen'

const BenchContext = createContext<Bench | null>(null)
export const BenchProvider = BenchContext.Provider

/** A lesson for as long as the screen is there. Give the screen a key that says which. */
export function useLessonFrom(make: () => Lesson): Lesson {
  const [lesson] = useState(make)
  useEffect(() => {
    void lesson.start()
    return () => lesson.stop()
  }, [lesson])
  return lesson
}

/** Connects to a session for as long as the screen is there. Give the screen the session as its key. */
export function useLessonConnection(session: string, as: Role, seat: string): Lesson {
  return useLessonFrom(() => new Lesson(session, as, seat))
}

/** What the frames of this screen are worked on with. */
export function useBench(): Bench {
  const bench = useContext(BenchContext)
  if (!bench) throw new Error('nothing to work with around this part')
  return bench
}

/** A part of the bench's state; the part is shown anew when it changes. */
export function useBenchState<Part>(part: (state: BenchState) => Part): Part {
  return useStore(useBench().state, part)
}

/** The running lesson of this screen. */
export function useLesson(): Lesson {
  const bench = useBench()
  if (!(bench instanceof Lesson)) throw new Error('no lesson around this part')
  return bench
}

/** A part of the lesson's state. */
export function useLessonState<Part>(part: (state: LessonState) => Part): Part {
  const state: StoreApi<LessonState> = useLesson().state
  return useStore(state, part)
}

/** When the student handed homework in; 0 for not yet, or where that was homework before it. */
export function useHandedIn(home: Homework | undefined): number {
  const handed = useLessonState((s) => s.said.own?.handed) ?? 0
  return home && handed >= home.since ? handed : 0
}

/** Something of what passes on the sheets without being kept; it must be the same value until it changes. */
export function usePassing<Part>(part: (passing: Passing) => Part): Part {
  const { passing } = useBench()
  return useSyncExternalStore(passing.listen, () => part(passing))
}
