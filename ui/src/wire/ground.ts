import { useEffect, useState } from 'react'
import type { Drawing, Paper } from './types.gen'

/** Papers are computed on the server; each is asked for once. */
const known = new Map<string, Drawing | Promise<Drawing>>()

const keyOf = ({ kind, step, unit, ruling, x, y, bare }: Paper) =>
  JSON.stringify({ kind, step, unit, ruling, x: x ?? undefined, y: y ?? undefined, bare })

const empty: Drawing = { lines: [], labels: [] }

/** What is on a paper, if it is known; if not, `again` is called when it is. */
export function groundOf(paper: Paper, again: () => void): Drawing {
  if (paper.kind === 'plain' || paper.kind === 'picture') return empty
  const key = keyOf(paper)
  const here = known.get(key)
  if (here && !(here instanceof Promise)) return here
  const coming = here ?? fetchGround(key)
  void coming.then(again, () => {})
  return empty
}

async function fetchGround(key: string): Promise<Drawing> {
  const coming = fetch(`/api/paper?of=${encodeURIComponent(key)}`).then(async (response) => {
    if (!response.ok) throw new Error('no paper')
    return (await response.json()) as Drawing
  })
  known.set(key, coming)
  try {
    const drawing = await coming
    known.set(key, drawing)
    return drawing
  } catch (error) {
    known.delete(key)
    throw error
  }
}

/** What is on a paper; shown anew when it is known. */
export function useGround(paper: Paper): Drawing {
  const [, setRound] = useState(0)
  const key = keyOf(paper)
  useEffect(() => {
    const again = () => setRound((n) => n + 1)
    groundOf(JSON.parse(key) as Paper, again)
    addEventListener('online', again)
    return () => removeEventListener('online', again)
  }, [key])
  return groundOf(paper, () => {})
}
