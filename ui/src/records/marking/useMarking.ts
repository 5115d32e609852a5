import { useQuery } from '@tanstack/react-query'
import { useEffect, useEffectEvent, useRef, useState } from 'react'
import { call, codeOf } from '../../wire/http'
import { useAct } from '../../wire/hooks/useAct'
import type { Judgements, JudgedNow, SayJudged, WorkJudged } from '../../wire/types.gen'

const IDLE_MS = 700

/** What is said of a piece of somebody's work. */
export type Said = { level?: number; comment?: string }

const keyOf = (p: { student: string; frame?: string; mark?: string }) => `${p.student} ${p.frame ?? ''} ${p.mark ?? ''}`

/** What teachers think of the work of a lesson, and how one says it oneself. */
export function useMarking(session: string) {
  const query = useQuery({
    queryKey: ['judgements', session],
    queryFn: () => call<Judgements>('GET', `/sessions/${session}/judgements`),
    staleTime: 0,
  })
  const { act, problem } = useAct('judgements')
  /** What was said here, which the server may not have told yet; and what waits to be sent. */
  const [own, setOwn] = useState<ReadonlyMap<string, Said>>(new Map())
  const waits = useRef<SayJudged | null>(null)
  const timer = useRef(0)
  const data = query.data

  /** Sends what was written a moment ago. */
  const flush = () => {
    clearTimeout(timer.current)
    const said = waits.current
    waits.current = null
    if (said) void act(() => call<JudgedNow>('POST', `/sessions/${session}/judgements`, said))
  }
  const leaving = useEffectEvent(flush)
  useEffect(() => {
    const now = () => leaving()
    addEventListener('pagehide', now)
    return () => {
      removeEventListener('pagehide', now)
      now()
    }
  }, [])

  const mine = (p: { student: string; frame?: string; mark?: string }): Said => {
    const here = own.get(keyOf(p))
    if (here) return here
    const told = data?.judged.find((j) => j.by === data.me && keyOf(j) === keyOf(p))
    return { level: told?.level?.at, comment: told?.comment }
  }
  /** What others think of it, as far as one may see that. */
  const others = (p: { student: string; frame?: string; mark?: string }): WorkJudged[] =>
    data?.judged.filter((j) => j.by !== data.me && keyOf(j) === keyOf(p)) ?? []

  /** Says something of a piece: a level at once, words once they rest for a moment. */
  function say(p: { student: string; frame?: string; mark?: string }, to: Said) {
    const next = { ...mine(p), ...to }
    setOwn((was) => new Map(was).set(keyOf(p), next))
    if (waits.current && keyOf(waits.current) !== keyOf(p)) flush()
    waits.current = { ...p, level: next.level, comment: next.comment || undefined }
    clearTimeout(timer.current)
    if ('level' in to) flush()
    else timer.current = window.setTimeout(flush, IDLE_MS)
  }
  return {
    data,
    mine,
    others,
    say,
    flush,
    act,
    problem: problem ?? (query.isError ? codeOf(query.error) : null),
  }
}
