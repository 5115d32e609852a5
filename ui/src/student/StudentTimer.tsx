import { TimerFace } from '../shown/TimerFace'
import type { Timer } from '../wire/types.gen'
import type { Left } from '../wire/hooks/useClock'

/** The timer on a student's screen; at the end it glows, where it is to. */
export default function StudentTimer({ timer, left }: { timer: Timer; left: Left }) {
  const glows = left.over && timer.light
  return (
    <TimerFace left={left} className={`rounded-lg px-2 py-1 text-lg ${glows ? 'bg-glow-soft ring-3 ring-glow' : ''}`} />
  )
}
