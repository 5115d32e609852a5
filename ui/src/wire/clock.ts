import type { Time } from './types.gen'

const TRIES = 4

/**
 * The server's time, whatever the device's own clock says, also when that is set
 * meanwhile: it counts on from the answer that came back soonest.
 */
export class Clock {
  private ahead: number | null = null
  private readonly ask: () => Promise<Time>

  constructor(ask: () => Promise<Time>) {
    this.ask = ask
  }

  /** Asks for the time a few times; without an answer it goes on as before. */
  async measure() {
    let best = Infinity
    for (let i = 0; i < TRIES; i++) {
      const from = performance.now()
      const { now } = await this.ask()
      const way = performance.now() - from
      if (way >= best) continue
      best = way
      this.ahead = now + way / 2 - performance.now()
    }
  }

  /** The server's time in milliseconds since 1970; null until it is known. */
  now = (): number | null => (this.ahead === null ? null : performance.now() + this.ahead)
}
