import { useEffect, useMemo, useState } from 'react'
import { later } from '../kit/part'
import type { Lying } from '../rules/pieces'
import type { Frame } from '../wire/types.gen'
import type { Moves } from './hand/state'
import type { From, Head } from './paint/columns'

/** What lays columns and moves notes between them; fetched when a frame first needs it. */
const fetchColumns = later(async () => {
  const [{ inColumns }, { between, headAt, nextTo }] = await Promise.all([
    import('./paint/columns'),
    import('./hand/columns'),
  ])
  return { inColumns, moves: { between, headAt, nextTo } }
})

export type Columns = { heads: readonly Head[]; moves: Moves }

/**
 * The marks of a frame as they are shown: with the notes in columns where the frame
 * has them; and the columns, null where notes lie free.
 */
export function useColumns(
  frame: Frame,
  marks: Lying[],
  from: From,
  nameOf: (author: string | undefined) => string,
): { marks: Lying[]; columns: Columns | null } {
  const [fetched, setFetched] = useState<Awaited<ReturnType<typeof fetchColumns>> | null>(null)
  const wanted = (frame.layout.columns?.length ?? 0) > 0
  useEffect(() => {
    if (!wanted) return
    let here = true
    void fetchColumns().then(async (all) => {
      if (here) setFetched(all)
      await document.fonts.ready // heights are those of the house's letters
      if (here) setFetched({ ...all })
    })
    return () => void (here = false)
  }, [wanted])
  return useMemo(() => {
    if (!wanted) return { marks, columns: null }
    if (!fetched) return { marks: marks.filter((m) => m.kind !== 'note'), columns: null }
    const { marks: all, heads } = fetched.inColumns(frame, marks, from, nameOf)
    return { marks: all, columns: { heads, moves: fetched.moves } }
  }, [wanted, fetched, frame, marks, from, nameOf])
}
