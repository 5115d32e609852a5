// What need not be shown the moment it is heard is looked at on one beat for the
// whole page, so that what falls due together costs one picture of the screen. A
// device on which such a picture takes long rests before the next: its person's
// own pressing and writing come first, and the lesson is shown a little later.

/** What falls due within so much time is looked at together. */
const TOGETHER_MS = 40
/** A picture of the screen that took longer than this was slow. */
const SLOW_MS = 40
/** After a slow one it rests so many times as long as that took, up to a bound. */
const REST = 6
const LONGEST_REST_MS = 600

const due = new Map<() => void, number>()
let timer: ReturnType<typeof setTimeout> | undefined
let free = 0
let measuring = false

/** Calls a look once, so many milliseconds from now or somewhat later; one that already waits keeps its time. */
export function soon(look: () => void, inMs: number) {
  if (due.has(look)) return
  due.set(look, performance.now() + inMs)
  wait()
}

/** Takes a look back. */
export function never(look: () => void) {
  due.delete(look)
}

function wait() {
  if (measuring || due.size === 0) return
  clearTimeout(timer)
  timer = setTimeout(beat, Math.max(free, Math.min(...due.values())) - performance.now())
}

function beat() {
  const began = performance.now()
  for (const [look, at] of due) {
    if (at > began + TOGETHER_MS) continue
    due.delete(look)
    look()
  }
  measuring = true
  // The picture with what is new is there when a second one is begun; a page in the background makes none.
  const ready = () => {
    if (!measuring) return
    measuring = false
    clearTimeout(hidden)
    const took = performance.now() - began
    free = took > SLOW_MS ? began + took + Math.min(LONGEST_REST_MS, REST * took) : 0
    wait()
  }
  const hidden = setTimeout(ready, 1000)
  requestAnimationFrame(() => requestAnimationFrame(ready))
}
