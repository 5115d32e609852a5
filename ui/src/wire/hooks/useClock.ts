import { useEffect, useMemo, useState } from 'react'
import type { PollState, Timer } from '../types.gen'
import { useLesson, useLessonState } from './useLesson'

/** How often a clock on the screen is looked at. */
const LOOKS_MS = 200
const AGAIN_MS = 2000

export type Left = { seconds: number; share: number; over: boolean }

/** How long something lasts that ends at a time of the server's; null where it has no end. */
export function useUntil(until: number | undefined): Left | null {
  const timer = useMemo(() => (until ? { endsAt: until, length: 1 } : undefined), [until])
  return useLeft(timer)
}

/** Has the server's time known while something runs. */
function useMeasured(runs: boolean) {
  const lesson = useLesson()
  const online = useLessonState((s) => s.network === 'online')
  useEffect(() => {
    if (!runs || !online) return
    let again = 0
    // Without an answer the clock goes on as before, and is asked once more.
    const measure = () =>
      void lesson.clock.measure().catch(() => {
        clearTimeout(again)
        again = window.setTimeout(measure, AGAIN_MS)
      })
    const seen = () => document.visibilityState === 'visible' && measure()
    measure()
    // A device that slept may have stopped its clock.
    document.addEventListener('visibilitychange', seen)
    return () => {
      clearTimeout(again)
      document.removeEventListener('visibilitychange', seen)
    }
  }, [lesson, runs, online])
}

/** How a timer stands by the server's time; null without one, and until that time is known. */
export function useLeft(timer: Timer | undefined): Left | null {
  const lesson = useLesson()
  const runs = timer !== undefined
  const [now, setNow] = useState<number | null>(null)
  useMeasured(runs)
  useEffect(() => {
    if (!runs) return
    const look = () => setNow(lesson.clock.now())
    look()
    const looks = setInterval(look, LOOKS_MS)
    return () => clearInterval(looks)
  }, [lesson, runs])
  if (!timer || now === null) return null
  const left = Math.max(0, timer.endsAt - now)
  return { seconds: Math.ceil(left / 1000), share: left / timer.length, over: left === 0 }
}

const none: Record<string, PollState> = {}
const ends = (p: PollState) => (p.phase === 'open' && p.closesAt) || Infinity

/** How questions stand now: those whose time is over are closed before anybody has closed them. */
export function useNow(polls: Record<string, PollState> = none): Record<string, PollState> {
  const lesson = useLesson()
  /** Until when it was seen what is over. */
  const [seen, setSeen] = useState(0)
  const next = Math.min(...Object.values(polls).map((p) => (ends(p) > seen ? ends(p) : Infinity)))
  const runs = next < Infinity
  useMeasured(runs)
  useEffect(() => {
    if (!runs) return
    const look = () => {
      const now = lesson.clock.now()
      if (now !== null && now >= next) setSeen(now)
    }
    look()
    const looks = setInterval(look, LOOKS_MS)
    return () => clearInterval(looks)
  }, [lesson, runs, next])
  return useMemo(() => {
    const over = Object.entries(polls).filter(([, p]) => ends(p) <= seen)
    if (over.length === 0) return polls
    return { ...polls, ...Object.fromEntries(over.map(([id, p]) => [id, { ...p, phase: 'closed' as const }])) }
  }, [polls, seen])
}
