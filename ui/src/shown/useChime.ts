import { useEffect, useRef } from 'react'
import type { Timer } from '../wire/types.gen'
import type { Left } from '../wire/hooks/useClock'

/** Sounds once when a timer that was seen running is over, if it is to. */
export function useChime(timer: Timer | undefined, left: Left | null) {
  const ran = useRef(0)
  useEffect(() => {
    if (!timer || !left) return
    if (!left.over) ran.current = timer.endsAt
    else if (ran.current === timer.endsAt) {
      ran.current = 0
      if (timer.sound) void import('./chime').then(({ chime }) => chime())
    }
  }, [timer, left])
}
