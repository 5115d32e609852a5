import { useEffect } from 'react'
import { codeOf } from '../http'
import type { Frame } from '../types.gen'
import { useLessonState } from './useLesson'
import { useStaffLesson } from './useStaff'

/** Has what the answers to the questions of a frame say told while it is looked at; it lies in the lesson's outcomes. */
export function useHearingOutcomes(frame: Frame) {
  const lesson = useStaffLesson()
  const asks = frame.prepared.some((m) => m.kind === 'poll')
  // What a question says changes with its answers, of which one is told, and with how it stands.
  const stands = useLessonState((s) =>
    JSON.stringify(frame.prepared.map((m) => s.staff?.state.polls[m.id]).concat(s.staff?.state.bands as never)),
  )
  const edition = useLessonState((s) => s.staff?.state.edition)
  const online = useLessonState((s) => s.network === 'online')
  useEffect(() => {
    if (asks && online) lesson.outcomesOf(frame.id).catch((error: unknown) => lesson.tell(codeOf(error)))
  }, [lesson, frame.id, asks, stands, edition, online])
}
