import { useEffect, useState } from 'react'
import { codeOf } from '../http'
import type { Shown } from '../sheets'
import type { OwnVerdict, Phase, PollState, Results } from '../types.gen'
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

/** After how long it is asked again what could not be told. */
const AGAIN_MS = 2000

/** What is thought of one's own answers on a frame, as far as one may know; asked anew when they or the questions change. */
export function useResults(own: Shown | undefined, polls: Record<string, PollState>): Results | null {
  const lesson = useLesson()
  const ready = useLessonState((s) => s.network === 'online' && s.unsaved === 0)
  const [told, tell] = useState<{ at: string; results: Results } | null>(null)
  const sheet = own?.sheet
  const rounds = JSON.stringify(Object.values(polls).map((p) => p.round))
  const answers = own?.marks.flatMap((m) => (m.kind === 'answer' || m.kind === 'handed' ? [`${m.id} ${m.at}`] : []))
  const at = JSON.stringify([sheet, polls, answers])
  const [again, setAgain] = useState(0)
  useEffect(() => {
    if (!sheet || !ready) return
    let here = true
    let timer: ReturnType<typeof setTimeout> | undefined
    lesson.results({ sheet }).then(
      (results) => here && tell({ at: `${sheet} ${rounds}`, results }),
      (error: unknown) => {
        if (!here) return
        // Asked too often, or the server was away: what somebody waits for is asked once more.
        const code = codeOf(error)
        if (code === 'too-many' || code === 'unavailable') timer = setTimeout(() => setAgain((n) => n + 1), AGAIN_MS)
        else lesson.tell(code)
      },
    )
    return () => {
      here = false
      clearTimeout(timer)
    }
  }, [lesson, sheet, ready, at, rounds, again])
  return told?.at === `${sheet} ${rounds}` ? told.results : null
}
