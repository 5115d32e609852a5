import { useQueryClient } from '@tanstack/react-query'
import { useState } from 'react'
import { codeOf } from '../http'
import type { Code } from '../types.gen'

/**
 * Does things that the server may refuse. What was refused is the problem until the
 * next one, and is given; what the keys name is asked for anew, whatever happened.
 */
export function useAct(...keys: string[]) {
  const queries = useQueryClient()
  const [problem, setProblem] = useState<Code | null>(null)
  async function act(work: () => Promise<unknown>): Promise<Code | null> {
    setProblem(null)
    let refused: Code | null = null
    try {
      await work()
    } catch (error) {
      refused = codeOf(error)
    }
    setProblem(refused)
    await Promise.all(keys.map((key) => queries.invalidateQueries({ queryKey: [key] })))
    return refused
  }
  return { act, problem }
}
