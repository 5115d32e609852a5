import type { Board, Person, State } from '../wire/types.gen'

/** The frames that students may move to, at own pace; none where the teacher leads. */
export function openFrames(board: Board, state: State): string[] {
  if (state.pace === 'led') return []
  const ids = board.frames.map((f) => f.id)
  const through = ids.indexOf(state.through ?? '')
  return through < 0 ? ids : ids.slice(0, through + 1)
}

/** The frame that a student is on; the same rule as the server's. */
export function placeOf(board: Board, state: State, person: Person): string {
  const open = openFrames(board, state)
  if (open.length === 0) return state.frame
  return [person.at, state.from].find((id) => id && open.includes(id)) ?? open[0]!
}
