// Measures how smoothly a full frame moves: npx playwright test -c frames.config.ts
// Prints a table for docs/performance.md; nothing here fails for being slow.
import { test, type Page } from '@playwright/test'
import { spawn } from 'node:child_process'
import { join as path } from 'node:path'
import { device, join, phone, signIn, startSession } from './support/people'
import { DemoServer } from './support/server'

const NOTES = 300
const STROKES = 600

/** Frame times in ms while something happens. */
async function frames(page: Page, ms: number, meanwhile: () => Promise<unknown>): Promise<number[]> {
  const measured = page.evaluate(
    (length) =>
      new Promise<number[]>((resolve) => {
        const times: number[] = []
        let last = performance.now()
        const end = last + length
        const tick = (now: number) => {
          times.push(now - last)
          last = now
          if (now < end) requestAnimationFrame(tick)
          else resolve(times.slice(2))
        }
        requestAnimationFrame(tick)
      }),
    ms,
  )
  await meanwhile()
  return (await measured).sort((a, b) => a - b)
}

const share = (sorted: number[], q: number) =>
  sorted[Math.min(sorted.length - 1, Math.floor(q * sorted.length))]!.toFixed(1)
const row = (name: string, t: number[]) =>
  console.log(`| ${name} | ${share(t, 0.5)} | ${share(t, 0.95)} | ${t.length} |`)

/** Zooms in and out and moves the view, inside the page, once a frame. */
const moveAbout = (page: Page, ms: number) =>
  page.evaluate(
    (length) =>
      new Promise<void>((resolve) => {
        const at = document.querySelector('[data-part=viewport]') ?? document.body
        const box = at.getBoundingClientRect()
        const end = performance.now() + length
        let n = 0
        const tick = () => {
          n++
          const zooms = n % 60 < 30
          const turn = n % 120 < 60 ? -1 : 1
          const init = {
            bubbles: true,
            cancelable: true,
            clientX: box.x + box.width / 2,
            clientY: box.y + box.height / 2,
          }
          at.dispatchEvent(
            new WheelEvent(
              'wheel',
              zooms ? { ...init, deltaY: 20 * turn, ctrlKey: true } : { ...init, deltaX: 12 * turn, deltaY: 8 * turn },
            ),
          )
          if (performance.now() < end) requestAnimationFrame(tick)
          else resolve()
        }
        requestAnimationFrame(tick)
      }),
    ms,
  )

test('how smoothly a full frame moves', async ({ browser }) => {
  const server = await DemoServer.start()
  try {
    const teacher = await device(browser, server.url)
    await signIn(teacher)
    const code = await startSession(teacher)
    const empty = await device(browser, server.url)
    await empty.goto('/nothing-here')
    const page = await device(browser, server.url)
    await join(page, code, 'Noor')

    console.log(
      `| ${NOTES} notes and ${STROKES} lines of 80 points, 1280 x 800, software rendering | median ms | p95 ms | frames |`,
    )
    console.log('| --- | --- | --- | --- |')
    row('an empty page', await frames(empty, 6000, () => moveAbout(empty, 5500)))

    const crowd = spawn(
      path(import.meta.dirname, '../bin/alpenglow'),
      [
        'crowd',
        '-url',
        server.url,
        '-code',
        code,
        '-notes',
        String(NOTES),
        '-strokes',
        String(STROKES),
        '-seconds',
        '30',
      ],
      { stdio: ['ignore', 'pipe', 'inherit'] },
    )
    const said = (word: string) =>
      new Promise<void>((resolve) =>
        crowd.stdout.on('data', (text: Buffer) => text.toString().includes(word) && resolve()),
      )
    const filled = said('filled')
    const drawn = said('drawn')
    await filled
    await page.waitForFunction(
      (n) => document.querySelectorAll('[data-part=frame] [data-mark]').length >= n,
      NOTES + STROKES,
    )
    await page.waitForTimeout(1500)
    row('an empty page while 30 others draw elsewhere', await frames(empty, 4000, () => moveAbout(empty, 3500)))
    row('zooming and moving while 30 others draw', await frames(page, 6000, () => moveAbout(page, 5500)))
    row('looking on while 30 others draw', await frames(page, 6000, async () => {}))
    await page.getByRole('button', { name: 'Draw', exact: true }).click()
    const box = (await page.locator('[data-part=frame]').boundingBox())!
    row(
      'drawing oneself while 30 others draw',
      await frames(page, 6000, async () => {
        await page.mouse.move(box.x + 100, box.y + 200)
        await page.mouse.down()
        await page.mouse.move(box.x + 700, box.y + 400, { steps: 150 })
        await page.mouse.up()
      }),
    )
    await drawn
    await page.waitForTimeout(8000)
    row('zooming and moving, nobody draws', await frames(page, 6000, () => moveAbout(page, 5500)))
    row('an empty page again', await frames(empty, 6000, () => moveAbout(empty, 5500)))
    await page.close()
    const session = await teacher.context().newCDPSession(teacher)
    await teacher.getByRole('button', { name: 'Eraser', exact: true }).click()
    const wide = (await teacher.locator('[data-part=frame]').boundingBox())!
    for (const slow of [1, 4]) {
      await session.send('Emulation.setCPUThrottlingRate', { rate: slow })
      await teacher.waitForTimeout(1500)
      row(
        `the teacher's eraser over it, processor ${slow === 1 ? 'as it is' : `slowed ${slow} times`}`,
        await frames(teacher, 6000, async () => {
          await teacher.mouse.move(wide.x + 30, wide.y + 0.3 * slow * 60)
          await teacher.mouse.down()
          for (let i = 1; i <= 60; i++)
            await teacher.mouse.move(wide.x + 30 + i * 12, wide.y + 0.3 * slow * 60 + 120 + 100 * Math.sin(i / 4), {
              steps: 2,
            })
          await teacher.mouse.up()
        }),
      )
    }
  } finally {
    await server.remove()
  }
})

test('how smoothly a frame with 300 notes in columns is used', async ({ browser }) => {
  const server = await DemoServer.start()
  try {
    const teacher = await device(browser, server.url)
    await signIn(teacher)
    const code = await startSession(teacher)
    await teacher.getByRole('button', { name: /^Change who shares/ }).click()
    await teacher.getByText('In columns', { exact: true }).click()
    await teacher.keyboard.press('Escape')
    const page = await device(browser, server.url)
    await join(page, code, 'Noor')
    const small = await device(browser, server.url, phone)
    await join(small, code, 'Kenji')
    const empty = await device(browser, server.url)
    await empty.goto('/nothing-here')
    const crowd = spawn(
      path(import.meta.dirname, '../bin/alpenglow'),
      ['crowd', '-url', server.url, '-code', code, '-notes', String(NOTES), '-strokes', '0', '-seconds', '0'],
      { stdio: ['ignore', 'pipe', 'inherit'] },
    )
    await new Promise<void>((resolve) =>
      crowd.stdout.on('data', (text: Buffer) => text.toString().includes('filled') && resolve()),
    )
    crowd.kill()
    await page.waitForTimeout(3000)
    console.log(`| ${NOTES} notes in columns | median ms | p95 ms | frames |`)
    console.log('| --- | --- | --- | --- |')
    row('an empty page', await frames(empty, 6000, () => moveAbout(empty, 5500)))
    row('a desk, zooming and moving', await frames(page, 6000, () => moveAbout(page, 5500)))
    row(
      'a desk, notes coming in',
      await frames(page, 8000, async () => {
        for (let i = 0; i < 8; i++) {
          await small.getByRole('textbox', { name: 'Write a note' }).fill(`one more, ${i}`)
          await small.getByRole('button', { name: 'Add it' }).click()
          await small.waitForTimeout(600)
        }
      }),
    )
    const scroll = (on: Page) =>
      on.evaluate(
        () =>
          new Promise<void>((resolve) => {
            const list = document.querySelector('[data-part=reading]')!
            const end = performance.now() + 5500
            const tick = () => {
              list.scrollTop = (list.scrollTop + 24) % (list.scrollHeight - list.clientHeight)
              if (performance.now() < end) requestAnimationFrame(tick)
              else resolve()
            }
            requestAnimationFrame(tick)
          }),
      )
    const session = await small.context().newCDPSession(small)
    for (const slow of [1, 4]) {
      await session.send('Emulation.setCPUThrottlingRate', { rate: slow })
      await small.waitForTimeout(1500)
      const speed = slow === 1 ? 'as it is' : `slowed ${slow} times`
      row(`a phone reading, processor ${speed}`, await frames(small, 6000, () => scroll(small)))
    }
    await small.getByRole('button', { name: 'See the frame' }).click()
    await small.waitForTimeout(2000)
    row('a phone at the frame, slowed 4 times', await frames(small, 6000, () => moveAbout(small, 5500)))
  } finally {
    await server.remove()
  }
})

/** Fills the demo's board to 60 frames, the first with many marks, and returns its id. */
const longBoard = (page: Page) =>
  page.evaluate(async (notes) => {
    const call = async (method: string, path: string, body?: unknown) => {
      const answer = await fetch(`/api${path}`, {
        method,
        headers: { 'content-type': 'application/json' },
        body: body ? JSON.stringify(body) : undefined,
      })
      if (!answer.ok) throw new Error(`${path}: ${answer.status}`)
      return answer.json()
    }
    const id = (n: number) => `019aa0d2-0000-7000-8000-${String(n).padStart(12, '0')}`
    const { boards } = await call('GET', '/boards')
    const board = boards.find((b: { title: string }) => b.title === 'Moon and tides').id as string
    let { rev, outline } = await call('GET', `/boards/${board}`)
    const first = outline.frames[0] as string
    const edits = Array.from({ length: notes }, (_, i) => ({
      id: id(i),
      kind: 'marks',
      marks: {
        frame: first,
        step: {
          kind: 'add',
          add: {
            mark: `n${i}`,
            x: 20 + (i % 10) * 155,
            y: 180 + Math.floor(i / 10) * 26,
            w: 150,
            h: 90,
            kind: 'note',
            note: { text: `Tide ${i}`, tint: 'moss' },
          },
        },
      },
    }))
    for (let i = 0; i < notes; i += 40)
      await call('POST', `/boards/${board}/edits`, { since: rev, edits: edits.slice(i, i + 40) })
    for (let n = 0; ; n++) {
      ;({ rev, outline } = await call('GET', `/boards/${board}`))
      const frames = outline.frames as string[]
      if (frames.length === 60) return board
      await call('POST', `/boards/${board}/frames`, {
        id: id(1000 + n),
        since: rev,
        at: frames.length,
        from: { kind: 'double', double: { frames: frames.slice(0, 60 - frames.length) } },
      })
    }
  }, 200)

test('how soon a board of 60 frames is there', async ({ browser }) => {
  const server = await DemoServer.start()
  try {
    const teacher = await device(browser, server.url)
    await signIn(teacher)
    const board = await longBoard(teacher)
    await teacher.addInitScript(() => {
      const look = () => {
        if (document.querySelector('[data-part=frame] [data-mark]'))
          requestAnimationFrame(() => performance.mark('first mark'))
        else requestAnimationFrame(look)
      }
      requestAnimationFrame(look)
    })
    const times: number[] = []
    for (let i = 0; i < 5; i++) {
      await teacher.goto(`/boards/${board}`)
      await teacher.locator('[data-part=frame] [data-mark]').first().waitFor()
      await teacher.waitForFunction(() => performance.getEntriesByName('first mark').length > 0)
      times.push(
        await teacher.evaluate((path) => {
          const answered = performance
            .getEntriesByType('resource')
            .find((e) => e.name.endsWith(path)) as PerformanceResourceTiming
          return performance.getEntriesByName('first mark')[0]!.startTime - answered.responseEnd
        }, `/api/boards/${board}`),
      )
    }
    console.log(
      `a board of 60 frames, 200 marks on the first: seen after its answer in ${times.map((t) => t.toFixed(0)).join(', ')} ms`,
    )
  } finally {
    await server.remove()
  }
})
