// What the core computes of words, and what the browser makes of them.
import { expect, test } from '@playwright/test'
import { readFileSync } from 'node:fs'
import { join } from 'node:path'
import type { Element } from '../../ui/src/wire/types.gen'
import { desk, device, signIn } from '../support/people'
import { DemoServer } from '../support/server'

type Case = { language: string; mark: Element; tall: number; line: number }

/** A version 7 UUID with a number in it. */
const id = (n: number) => `0190a0b0-0000-7000-8000-${String(n).padStart(12, '0')}`

const share = (differ: number, all: number) => `${differ} of ${all} differ`

test('words are as high on the screen as the core computes', async ({ browser }) => {
  test.setTimeout(120_000)
  const server = await DemoServer.start()
  try {
    const page = await device(browser, server.url, desk)
    await signIn(page)
    const cases = JSON.parse(
      readFileSync(join(import.meta.dirname, '../../core/lesson/testdata/heights.json'), 'utf8'),
    ) as Case[]
    const post = async <T>(path: string, data: unknown): Promise<T> => {
      const reply = await page.request.post(`/api${path}`, { data, headers: { Origin: server.url } })
      expect(reply.ok(), `${path}: ${reply.status()}`).toBe(true)
      return (await reply.json()) as T
    }
    const { board } = await post<{ board: string }>('/boards', { title: 'Letters' })
    const { frames } = (await (await page.request.get(`/api/boards/${board}`)).json()) as {
      frames: Array<{ id: string }>
    }
    const frame = frames[0]!.id
    for (let from = 0; from < cases.length; from += 40) {
      const edits = cases.slice(from, from + 40).map(({ mark }, i) => {
        const { w, h, kind } = mark
        const add = {
          mark: id(from + i),
          x: 10 + ((from + i) % 30) * 20,
          y: 10 + (i % 20) * 30,
          w,
          h,
          kind,
          [kind]: mark[kind as never],
        }
        return { id: id(5000 + from + i), kind: 'marks', marks: { frame, step: { kind: 'add', add } } }
      })
      const { results } = await post<{ results: Array<{ problem?: { title: string } }> }>(`/boards/${board}/edits`, {
        since: 0,
        edits,
      })
      expect(results.map((r) => r.problem).filter(Boolean)).toEqual([])
    }
    await page.goto(`/boards/${board}`)
    const [upright, others] = [
      cases.filter((c) => c.mark.kind === 'table'),
      cases.filter((c) => c.mark.kind !== 'table'),
    ]
    await expect(page.locator('table.mark-words')).toHaveCount(upright.length)
    await expect(page.locator('[data-mark]').filter({ hasNot: page.locator('table') })).toHaveCount(others.length)
    await page.evaluate(() => document.fonts.ready)
    const onScreen = await page.evaluate(
      (names) =>
        names.map((name) => {
          const mark = document.querySelector<HTMLElement>(`[data-mark="${name}"]`)
          const inside = mark?.querySelector<HTMLElement>('[data-part=inside]')
          return (inside ?? mark)?.offsetHeight ?? -1
        }),
      cases.map((_, i) => id(i)),
    )
    const tables = await page.evaluate(() =>
      [...document.querySelectorAll<HTMLElement>('table.mark-words')].map((t) => t.offsetHeight),
    )
    const differ = cases
      .map((c, i) => ({ ...c, got: c.mark.kind === 'table' ? (tables.shift() ?? -1) : onScreen[i]! }))
      .map((c) => ({ ...c, lines: Math.round((c.got - c.tall) / c.line) }))
    expect(differ.filter((c) => c.got < 0).map((c) => c.mark.kind)).toEqual([])
    for (const c of differ.filter((c) => c.lines !== 0)) {
      console.log(c.language, c.mark.kind, c.lines, c.tall, c.got, JSON.stringify(c.mark).slice(0, 300))
    }
    const wrong = differ.filter((c) => c.lines !== 0)
    expect(wrong.filter((c) => Math.abs(c.lines) > 1).map((c) => c.language)).toEqual([])
    expect(wrong.length, share(wrong.length, cases.length)).toBeLessThanOrEqual(cases.length / 100)
  } finally {
    await server.remove()
  }
})
