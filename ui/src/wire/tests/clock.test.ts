import { afterEach, beforeEach, expect, test, vi } from 'vitest'
import { Clock } from '../clock'

// Time goes on as soon as everybody waits for it.
beforeEach(() => void vi.useFakeTimers())
afterEach(() => {
  vi.restoreAllMocks()
  vi.useRealTimers()
})

const pause = (ms: number) => new Promise((resolve) => setTimeout(resolve, ms))

/** Numbers between 0 and 1 that are the same each time (a linear congruential generator, Numerical Recipes' constants). */
function chance(seed: number) {
  let now = seed
  return () => (now = (now * 1664525 + 1013904223) % 2 ** 32) / 2 ** 32
}

test('thirty devices agree on the time within 300 ms, however slow the network is', async () => {
  const clocks = Array.from({ length: 30 }, (_, i) => {
    const some = chance(i + 1)
    // There and back take different times, up to half a second together, and one answer in five comes much later.
    return new Clock(async () => {
      await pause(5 + 200 * some())
      const now = Date.now()
      await pause(5 + 295 * some() + (some() < 0.2 ? 900 : 0))
      return { now }
    })
  })
  expect(clocks.map((clock) => clock.now())).toEqual(clocks.map(() => null))
  const measured = Promise.all(clocks.map((clock) => clock.measure()))
  await vi.runAllTimersAsync()
  await measured
  const wrong = clocks.map((clock) => clock.now()! - Date.now())
  const spread = Math.max(...wrong) - Math.min(...wrong)
  expect(spread).toBeGreaterThan(1) // ways there and back do differ
  expect(spread).toBeLessThanOrEqual(300)
})

test("a device's clock that is set changes nothing; without an answer there is no time", async () => {
  const real = Date.now
  const clock = new Clock(() => Promise.resolve({ now: real() }))
  await clock.measure()
  vi.spyOn(Date, 'now').mockImplementation(() => real() + 7_200_000)
  expect(Math.abs(clock.now()! - real())).toBeLessThan(50)
  const lost = new Clock(() => Promise.reject(new Error('no network')))
  await expect(lost.measure()).rejects.toThrow()
  expect(lost.now()).toBeNull()
})
