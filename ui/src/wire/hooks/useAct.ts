import { useQueryClient } from '@tanstack/react-query'
import { useRef, useState } from 'react'
import { codeOf } from '../http'
import type { Code } from '../types.gen'

/**
 * Does things that the server may refuse, one after the other, so that what was chosen last
 * holds. What was refused is the problem until the next one, and is given; what the keys
 * name is asked for anew once nothing more is under way, whatever happened.
 */
export function useAct(...keys: string[]) {
  const queries = useQueryClient()
  const [problem, setProblem] = useState<Code | null>(null)
  const line = useRef({ last: Promise.resolve<Code | null>(null), waiting: 0 })
  async function act(work: () => Promise<unknown>): Promise<Code | null> {
    setProblem(null)
    const { current } = line
    current.waiting++
    current.last = current.last.then(work).then(() => null, codeOf)
    const refused = await current.last
    if (refused) setProblem(refused)
    current.waiting--
    if (current.waiting === 0) await Promise.all(keys.map((key) => queries.invalidateQueries({ queryKey: [key] })))
    return refused
  }
  return { act, problem }
}
