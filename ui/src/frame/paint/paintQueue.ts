// Small pictures are painted one after the other, a few milliseconds of each
// picture of the screen, those in sight first: however much changes, the screen
// answers. Under load they come less often before anything else waits.

/** How long painting may take of one picture of the screen. */
const BUDGET_MS = 5
/** How long a small picture stays as it is at least; more when painting falls behind. */
const REST_MS = 120
const LONGEST_REST_MS = 600

/** In sight, or nearly so. */
const NEAR = { rootMargin: '300px' }

type Job = { paint: () => void; canvas: HTMLCanvasElement }

const waiting = new Map<HTMLCanvasElement, Job>()
const latest = new WeakMap<HTMLCanvasElement, Job>()
const painted = new WeakMap<HTMLCanvasElement, number>()
const inSight = new WeakSet<HTMLCanvasElement>()
let rest = REST_MS
let asked = 0

const watcher =
  typeof IntersectionObserver === 'undefined'
    ? null
    : new IntersectionObserver((entries) => {
        for (const { target, isIntersecting } of entries) {
          if (isIntersecting) inSight.add(target as HTMLCanvasElement)
          else leave(target as HTMLCanvasElement)
        }
        ask()
      }, NEAR)

/** A picture that is no longer near lets its memory go, and is painted when it is near again. */
function leave(canvas: HTMLCanvasElement) {
  inSight.delete(canvas)
  const job = latest.get(canvas)
  if (!job || canvas.width === 0) return
  canvas.width = canvas.height = 0
  painted.delete(canvas)
  waiting.set(canvas, job)
}

/** Watches whether a small picture is in sight; returns how to stop that. */
export function watch(canvas: HTMLCanvasElement): () => void {
  watcher?.observe(canvas)
  return () => {
    watcher?.unobserve(canvas)
    waiting.delete(canvas)
  }
}

/** Has a small picture painted soon; what waited for the same one is replaced. */
export function paintSoon(canvas: HTMLCanvasElement, paint: () => void) {
  const job = { paint, canvas }
  waiting.set(canvas, job)
  latest.set(canvas, job)
  ask()
}

function ask() {
  if (asked || waiting.size === 0) return
  asked = requestAnimationFrame(work)
}

function work(began: number) {
  asked = 0
  const due = [...waiting.values()].filter(
    ({ canvas }) => (watcher === null || inSight.has(canvas)) && began - (painted.get(canvas) ?? -Infinity) >= rest,
  )
  // Those that have waited longest first.
  due.sort((a, b) => (painted.get(a.canvas) ?? 0) - (painted.get(b.canvas) ?? 0))
  let done = 0
  for (const { paint, canvas } of due) {
    if (done > 0 && performance.now() - began > BUDGET_MS) break
    waiting.delete(canvas)
    painted.set(canvas, began)
    paint()
    done++
  }
  rest = done < due.length ? Math.min(LONGEST_REST_MS, rest * 1.1) : Math.max(REST_MS, rest * 0.9)
  ask()
}
