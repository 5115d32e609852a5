// Measures the teacher's screen with everybody's work on it, while a class of 40 is at
// work at four times human pace: npx playwright test -c monitor.config.ts
// Prints a table for docs/performance.md; nothing here fails for being slow.
import { test, type Page } from '@playwright/test'
import { spawn } from 'node:child_process'
import { join as path } from 'node:path'
import { device, signIn, startSession } from './support/people'
import { DemoServer } from './support/server'

const SECONDS = 20

/** Notes in the page when a change of a student's frame was heard, and when that student's picture was painted. */
const watchChanges = () => {
  const names = new Map<string, string>()
  const heard: Array<{ name: string; frame: string; at: number }> = []
  const painted = new Map<string, number[]>()
  Object.assign(window, { heard, painted })
  const Socket = WebSocket
  window.WebSocket = class extends Socket {
    constructor(url: string | URL, protocols?: string | string[]) {
      super(url, protocols)
      this.addEventListener('message', (event: MessageEvent) => {
        for (const line of String(event.data).split('\n')) {
          if (line.length < 3) continue
          const said = JSON.parse(line)
          const news = said.push?.pub?.data
          const people = said.rpc?.data?.people ?? news?.people?.people ?? []
          for (const p of people) names.set(p.id, p.name)
          for (const change of news?.changes?.changes ?? []) {
            const name = names.get(news.changes.owner)
            if (name && change.put) heard.push({ name, frame: news.changes.frame, at: performance.now() })
          }
        }
      })
    }
  } as typeof WebSocket
  const draw = CanvasRenderingContext2D.prototype.drawImage
  CanvasRenderingContext2D.prototype.drawImage = function (this: CanvasRenderingContext2D, ...args: never[]) {
    const label = this.canvas.getAttribute('aria-label')
    if (label) painted.set(label, [...(painted.get(label) ?? []), performance.now()])
    return (draw as (...all: never[]) => void).apply(this, args)
  } as typeof draw
}

/** Frame times in ms, and how late changes were shown, in ms. */
const measure = (page: Page, ms: number) =>
  page.evaluate(
    (length) =>
      new Promise<{ frames: number[]; late: number[]; never: number }>((resolve) => {
        const { heard, painted } = window as unknown as {
          heard: Array<{ name: string; frame: string; at: number }>
          painted: Map<string, number[]>
        }
        heard.length = 0
        const frames: number[] = []
        let last = performance.now()
        const end = last + length
        const tick = (now: number) => {
          frames.push(now - last)
          last = now
          if (now < end) return void requestAnimationFrame(tick)
          // Those who are slow still work on the frame before, which is not shown.
          const frame = heard.at(-1)?.frame
          const changes = heard.filter((c) => c.frame === frame)
          setTimeout(() => {
            const late: number[] = []
            let never = 0
            for (const change of changes) {
              const times =
                [...painted].find(
                  ([label]) => label.startsWith(`${change.name}'`) || label.startsWith(`${change.name}’`),
                )?.[1] ?? []
              const shown = times.find((t) => t >= change.at)
              if (shown === undefined) never++
              else late.push(shown - change.at)
            }
            resolve({ frames: frames.slice(2), late, never })
          }, 3000)
        }
        requestAnimationFrame(tick)
      }),
    ms,
  )

const share = (list: number[], q: number) => {
  const sorted = [...list].sort((a, b) => a - b)
  return sorted.length ? sorted[Math.min(sorted.length - 1, Math.floor(q * sorted.length))]!.toFixed(0) : '-'
}

test('the monitor of a class at work', async ({ browser }) => {
  const server = await DemoServer.start()
  try {
    const page = await device(browser, server.url, { width: 1366, height: 768 })
    await page.addInitScript(watchChanges)
    await signIn(page)
    const code = await startSession(page)
    await page
      .getByRole('button', { name: /^Go to frame 2/ })
      .or(page.getByRole('button', { name: /Frame 2/ }))
      .first()
      .click()
    const crowd = spawn(
      path(import.meta.dirname, '../bin/alpenglow'),
      ['rehearse', '-url', server.url, '-code', code, '-students', '40', '-pace', '0.25'],
      { stdio: 'ignore' },
    )
    await page.getByRole('tab', { name: /Everyone/ }).click()
    await page.waitForTimeout(15_000)
    console.log(
      "| 40 at work at four times human pace, everybody's work | frames median ms | p95 ms | over 33 ms | changes | shown after, median ms | p95 | most | never |",
    )
    console.log('| --- | --- | --- | --- | --- | --- | --- | --- | --- |')
    const session = await page.context().newCDPSession(page)
    for (const slow of [1, 4]) {
      await session.send('Emulation.setCPUThrottlingRate', { rate: slow })
      await page.waitForTimeout(2000)
      const { frames, late, never } = await measure(page, SECONDS * 1000)
      const over = ((100 * frames.filter((f) => f > 33.5).length) / frames.length).toFixed(0)
      console.log(
        `| processor ${slow === 1 ? 'as it is' : `slowed ${slow} times`} | ${share(frames, 0.5)} | ${share(frames, 0.95)} | ${over} % | ${late.length + never} | ${share(late, 0.5)} | ${share(late, 0.95)} | ${share(late, 1)} | ${never} |`,
      )
    }
    crowd.kill()
  } finally {
    await server.remove()
  }
})

// An hour of a class at its own pace, in six minutes: 28 work ten times as fast.
test("the teacher's tab over an hour at own pace", async ({ browser }) => {
  test.setTimeout(600_000)
  const server = await DemoServer.start()
  try {
    const page = await device(browser, server.url, { width: 1366, height: 768 })
    await signIn(page)
    await page.getByRole('link', { name: 'Start a lesson of Moon and tides' }).click()
    await page.getByLabel('own pace: students go from frame to frame').check()
    await page.getByLabel('typed by the students').check()
    await page.getByRole('button', { name: 'Start now' }).click()
    const code = (await page.getByRole('button', { name: /^Join code/ }).innerText()).trim()
    const crowd = spawn(
      path(import.meta.dirname, '../bin/alpenglow'),
      ['rehearse', '-url', server.url, '-code', code, '-students', '28', '-pace', '0.1'],
      { stdio: 'ignore' },
    )
    await page.getByRole('tab', { name: /Everyone/ }).click()
    const session = await page.context().newCDPSession(page)
    await session.send('HeapProfiler.enable')
    for (let minute = 0; minute <= 60; minute += 10) {
      await session.send('HeapProfiler.collectGarbage')
      const { usedSize } = await session.send('Runtime.getHeapUsage')
      const { marks, nodes } = await page.evaluate(() => ({
        marks: document.querySelectorAll('[data-mark]').length,
        nodes: document.querySelectorAll('*').length,
      }))
      console.log(
        `own pace, minute ${minute}: ${(usedSize / 2 ** 20).toFixed(1)} MiB of scripts' memory, ${nodes} elements, ${marks} marks`,
      )
      if (minute < 60) await page.waitForTimeout(60_000)
    }
    crowd.kill()
  } finally {
    await server.remove()
  }
})
