import { useCallback, useEffect, useState } from 'react'
import { codeOf } from '../http'
import type { Code } from '../types.gen'

type Asked<Reply> = { data?: Reply; problem?: Code }

/**
 * Asks the server once when the screen opens, or not at all with null; `again`
 * asks anew. For the few questions of the students' screens, which load as
 * little script as possible; the teachers' screens use a library for theirs.
 */
export function useAsked<Reply>(ask: (() => Promise<Reply>) | null, key: string) {
  const [asked, setAsked] = useState<Asked<Reply>>({})
  const [round, setRound] = useState(0)
  const again = useCallback(() => setRound((n) => n + 1), [])
  useEffect(() => {
    let gone = false
    ask?.().then(
      (data) => !gone && setAsked({ data }),
      (error: unknown) => !gone && setAsked({ problem: codeOf(error) }),
    )
    return () => {
      gone = true
    }
    // What is asked is told apart by its key.
    // oxlint-disable-next-line react/exhaustive-deps
  }, [key, round])
  return { ...asked, again }
}
