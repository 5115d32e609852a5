import { useQuery } from '@tanstack/react-query'
import { useEffect, useEffectEvent, useMemo, useRef, useState } from 'react'
import { call, codeOf } from '../../wire/http'
import { useAct } from '../../wire/hooks/useAct'
import type {
  Criterion,
  Element,
  JudgedLevel,
  JudgedNow,
  JudgedPiece,
  Judgements,
  SayJudged,
  WorkJudged,
} from '../../wire/types.gen'

const IDLE_MS = 700
const AGAIN_MS = 3000

/**
 * What is said of a piece of somebody's work: a level on the scale as it is now, words, what is drawn on it, and a
 * recording ('' for none). A level of an older scale stays what it was until another one is given.
 */
export type Said = { level?: number; old?: JudgedLevel; comment?: string; ink?: Element[]; voice?: string }

const keyOf = (p: JudgedPiece) => `${p.student} ${p.frame ?? ''} ${p.mark ?? ''} ${p.criterion ?? ''}`

/** What teachers think of the work of a lesson, and how one says it oneself. */
export function useMarking(session: string) {
  const query = useQuery({
    queryKey: ['judgements', session],
    queryFn: () => call<Judgements>('GET', `/sessions/${session}/judgements`),
    staleTime: 0,
  })
  const { act, problem } = useAct('judgements')
  /** What was said here, which the server may not have told yet. */
  const [own, setOwn] = useState<ReadonlyMap<string, Said>>(new Map())
  /** What waits to be sent, by piece; without network it waits on, and is tried again. */
  const waits = useRef(new Map<string, SayJudged>())
  const [unsaved, setUnsaved] = useState(0)
  const timer = useRef(0)
  const data = query.data
  const to = `/sessions/${session}/judgements`

  /** Sends what waits. */
  async function flush() {
    clearTimeout(timer.current)
    for (const [key, said] of [...waits.current]) {
      waits.current.delete(key)
      const refused = await act(() => call<JudgedNow>('POST', to, said, true))
      if (refused === 'unavailable') {
        if (!waits.current.has(key)) waits.current.set(key, said)
        timer.current = window.setTimeout(() => void flush(), AGAIN_MS)
        break
      }
      // What was refused is not shown as if it were kept.
      if (refused && !waits.current.has(key)) setOwn((was) => new Map([...was].filter(([of]) => of !== key)))
    }
    setUnsaved(waits.current.size)
  }
  const leaving = useEffectEvent(() => void flush())
  useEffect(() => {
    const now = () => leaving()
    addEventListener('pagehide', now)
    return () => {
      removeEventListener('pagehide', now)
      now()
    }
  }, [])

  /** What the server told of one's own, by piece: of a hall there are many thousands. */
  const told = useMemo(() => {
    const scale = JSON.stringify(data?.scale)
    return new Map(
      data?.judged
        .filter((j) => j.by === data.me)
        .map(({ level, comment, ink, voice, ...piece }): [string, Said] => {
          const same = level && JSON.stringify(level.scale) === scale
          return [
            keyOf(piece),
            { level: same ? level.at : undefined, old: same ? undefined : level, comment, ink, voice },
          ]
        }),
    )
  }, [data])
  const mine = (p: JudgedPiece): Said => own.get(keyOf(p)) ?? told.get(keyOf(p)) ?? {}
  /** What others think of it, as far as one may see that. */
  const others = (p: JudgedPiece): WorkJudged[] =>
    data?.judged.filter((j) => j.by !== data.me && keyOf(j) === keyOf(p)) ?? []

  /** Says something of a piece: a level or a recording at once, words and ink once they rest for a moment. */
  function say(p: JudgedPiece, said: Said) {
    const before = waits.current.get(keyOf(p))
    const chosen = 'level' in said || before?.keeps === false
    const next: Said = { ...mine(p), ...said, ...('level' in said && { old: undefined }) }
    setOwn((was) => new Map(was).set(keyOf(p), next))
    const level = chosen ? { level: next.level, keeps: false } : { keeps: true }
    waits.current.set(keyOf(p), {
      ...p,
      ...level,
      comment: next.comment || undefined,
      ink: said.ink ?? before?.ink,
      voice: said.voice ?? before?.voice,
    })
    setUnsaved(waits.current.size)
    clearTimeout(timer.current)
    if ('level' in said || 'voice' in said) void flush()
    else timer.current = window.setTimeout(() => void flush(), IDLE_MS)
  }
  /** Levels that were given by criteria which the grid does not have any more. */
  const gone = (p: JudgedPiece, grid: readonly Criterion[]): WorkJudged[] =>
    data?.judged.filter(
      (j) =>
        j.by === data.me &&
        j.criterion &&
        keyOf({ ...j, criterion: undefined }) === keyOf(p) &&
        !grid.some((c) => c.id === j.criterion),
    ) ?? []
  return {
    data,
    mine,
    gone,
    others,
    say,
    flush,
    unsaved,
    act,
    problem: problem ?? (query.isError ? codeOf(query.error) : null),
  }
}
