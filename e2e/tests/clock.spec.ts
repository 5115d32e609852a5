import { expect, test } from '@playwright/test'
import { Clock } from '../../ui/src/wire/clock'

const pause = (ms: number) => new Promise((resolve) => setTimeout(resolve, ms))

/** Numbers between 0 and 1 that are the same each time (a linear congruential generator, Numerical Recipes' constants). */
function chance(seed: number) {
  let now = seed
  return () => (now = (now * 1664525 + 1013904223) % 2 ** 32) / 2 ** 32
}

test('thirty devices agree on the time within 300 ms, whatever their clocks say and however slow the network is', async () => {
  const real = Date.now
  const wrong: number[] = []
  await Promise.all(
    Array.from({ length: 30 }, async (_, i) => {
      const some = chance(i + 1)
      // There and back take different times, up to half a second together, and one answer in five comes much later.
      const clock = new Clock(async () => {
        await pause(5 + 200 * some())
        const now = real()
        await pause(5 + 295 * some() + (some() < 0.2 ? 900 : 0))
        return { now }
      })
      expect(clock.now()).toBeNull()
      await clock.measure()
      wrong.push(clock.now()! - real())
    }),
  )
  const spread = Math.max(...wrong) - Math.min(...wrong)
  console.log(`spread of 30 clocks ${Math.round(spread)} ms`)
  expect(spread).toBeLessThanOrEqual(300)
  // A device's clock that is set two hours on changes nothing: it is not asked.
  const clock = new Clock(() => Promise.resolve({ now: real() }))
  await clock.measure()
  Date.now = () => real() + 7_200_000
  try {
    expect(Math.abs(clock.now()! - real())).toBeLessThan(50)
  } finally {
    Date.now = real
  }
  // Without an answer it goes on.
  const lost = new Clock(() => Promise.reject(new Error('no network')))
  await expect(lost.measure()).rejects.toThrow()
  expect(lost.now()).toBeNull()
})
