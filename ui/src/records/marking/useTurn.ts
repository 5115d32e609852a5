import { useSearchParams } from 'react-router'
import type { Criterion, Kept, Record as LessonRecord } from '../../wire/types.gen'
import type { useMarking } from './useMarking'

/** The whole lesson, among the frames to choose from. */
export const WHOLE = 'whole'

const hasWork = (s: Kept, frame: string) => {
  const on = s.frames.find((f) => f.frame === frame)
  return on !== undefined && (on.marks.length > 0 || on.answers.length > 0)
}

/**
 * Whose work is judged now, of which frame, and what comes before and after: all students who left something on the
 * first frame, then on the second, and in the end the whole lesson of each.
 */
export function useTurn(record: LessonRecord | undefined, marking: ReturnType<typeof useMarking>) {
  const [params, setParams] = useSearchParams()
  const frames = record?.board.frames ?? []
  const students = record?.students ?? []
  const there = (room: string) => (room === WHOLE ? students : students.filter((s) => hasWork(s, room)))
  const rooms = [...frames.map((f) => f.id).filter((id) => students.some((s) => hasWork(s, id))), WHOLE]
  const asked = params.get('frame') ?? ''
  const room = rooms.includes(asked) ? asked : rooms[0]!
  const here = there(room)
  const at = Math.max(
    0,
    here.findIndex((s) => s.id === params.get('student')),
  )
  const gridOf = (of: string): readonly Criterion[] =>
    (of === WHOLE ? record?.board.criteria : frames.find((f) => f.id === of)?.criteria) ?? []

  // A piece is judged once it has a level, or one by each criterion.
  function judged(of: string, student: string) {
    const frame = of === WHOLE ? undefined : of
    const has = (criterion?: string) => marking.mine({ student, frame, criterion }).level !== undefined
    const grid = gridOf(of)
    return has() || (grid.length > 0 && grid.every((c) => has(c.id)))
  }
  function go(to: string, who?: string) {
    void marking.flush()
    setParams({ frame: to, ...(who && { student: who }) }, { replace: true })
  }
  function step(by: 1 | -1) {
    const next = here[at + by]
    if (next) return go(room, next.id)
    const other = rooms[rooms.indexOf(room) + by]
    if (other) go(other, (by > 0 ? there(other)[0] : there(other).at(-1))?.id)
  }
  return {
    rooms: rooms.map((id) => ({
      id,
      number: frames.findIndex((f) => f.id === id) + 1,
      title: frames.find((f) => f.id === id)?.title ?? '',
      of: there(id).length,
      done: there(id).filter((s) => judged(id, s.id)).length,
    })),
    room,
    frame: room === WHOLE ? undefined : room,
    grid: gridOf(room),
    student: here[at],
    next: here[at + 1],
    at,
    go,
    step,
  }
}
