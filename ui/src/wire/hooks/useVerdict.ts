import { useEffect, useState } from 'react'
import { codeOf } from '../http'
import type { OwnVerdict, Phase } from '../types.gen'
import { useLesson, useLessonState } from './useLesson'

/** What is thought of one's own answer, once the teacher shows what is right; null before. */
export function useVerdict(sheet: string | undefined, poll: string, round: number, phase: Phase): OwnVerdict | null {
  const lesson = useLesson()
  const online = useLessonState((s) => s.network === 'online')
  const [told, tell] = useState<OwnVerdict | null>(null)
  const shown = phase === 'revealed'
  useEffect(() => {
    if (!sheet || !shown || !online) return
    let here = true
    lesson.verdict({ sheet, poll, round }).then(
      (verdict) => here && tell(verdict),
      // It may have been asked again meanwhile; without an answer there is nothing to tell.
      (error: unknown) => here && codeOf(error) !== 'not-yours' && lesson.tell(codeOf(error)),
    )
    return () => {
      here = false
    }
  }, [lesson, sheet, poll, round, shown, online])
  return shown ? told : null
}
