// What the core paints beside what Chromium shows of the same frame, for each kind of mark and of paper.
import { expect, test, type Page } from '@playwright/test'
import { readFileSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { deflateSync } from 'node:zlib'
import type { Element, Making, Paper } from '../../ui/src/wire/types.gen'
import { device, signIn } from '../support/people'
import { DemoServer } from '../support/server'
import config from '../playwright.config'

// Points are compared by a script for a long time: here it is worth while to optimise it.
const { args = [], ...launch } = config.use?.launchOptions ?? {}
test.use({ launchOptions: { ...launch, args: args.filter((a) => !a.startsWith('--js-flags')) } })

type Case = { name: string; paper: Paper; prompt: string; marks: Element[] }

/** A version 7 UUID with a number in it. */
const id = (n: number) => `0190a0b0-0000-7000-8000-${String(n).padStart(12, '0')}`
const cases = JSON.parse(
  readFileSync(join(import.meta.dirname, '../../core/paint/testdata/frames.json'), 'utf8'),
) as Case[]

/** Faces and things are drawn in outlines by the core, and in colours by the device. */
const inOwnColours = ['emoji']

/** A picture of 40 x 30 points (PNG, ISO/IEC 15948), brighter to the right and below. */
function photo(): Buffer {
  const rows = Buffer.concat(
    Array.from({ length: 30 }, (_, y) =>
      Buffer.from([0, ...Array.from({ length: 40 }, (_, x) => [6 * x, 80, 8 * y]).flat()]),
    ),
  )
  const table = Array.from({ length: 256 }, (_, n) => {
    for (let k = 0; k < 8; k++) n = n & 1 ? 0xedb88320 ^ (n >>> 1) : n >>> 1
    return n >>> 0
  })
  const chunk = (kind: string, data: Buffer) => {
    const body = Buffer.concat([Buffer.from(kind), data])
    let sum = 0xffffffff
    for (const byte of body) sum = table[(sum ^ byte) & 255]! ^ (sum >>> 8)
    const out = Buffer.alloc(8 + body.length)
    out.writeUInt32BE(data.length)
    body.copy(out, 4)
    out.writeUInt32BE((sum ^ 0xffffffff) >>> 0, 4 + body.length)
    return out
  }
  const head = Buffer.from([0, 0, 0, 40, 0, 0, 0, 30, 8, 2, 0, 0, 0])
  const sign = Buffer.from([0x89, 0x50, 0x4e, 0x47, 13, 10, 26, 10])
  return Buffer.concat([sign, chunk('IHDR', head), chunk('IDAT', deflateSync(rows)), chunk('IEND', Buffer.alloc(0))])
}

/** Both pictures, point by point: the mean difference, and the share that is off by more than a quarter, but for edges. */
function compare(page: Page, ours: Buffer, theirs: Buffer) {
  return page.evaluate(
    async ([a, b]) => {
      const points = async (png: string) => {
        const image = await createImageBitmap(await (await fetch(`data:image/png;base64,${png}`)).blob())
        const to = new OffscreenCanvas(image.width, image.height).getContext('2d')!
        to.drawImage(image, 0, 0)
        return to.getImageData(0, 0, image.width, image.height)
      }
      const [one, other] = [await points(a!), await points(b!)]
      if (one.width !== other.width || one.height !== other.height)
        return { mean: 1, off: 1, size: `${one.width}x${one.height} ${other.width}x${other.height}` }
      const [w, h] = [one.width, one.height]
      const [one8, other8] = [one.data, other.data]
      let [sum, off] = [0, 0]
      for (let y = 0; y < h; y++)
        for (let x = 0; x < w; x++) {
          const i = (y * w + x) * 4
          const [r, g, b] = [one8[i]!, one8[i + 1]!, one8[i + 2]!]
          const [dr, dg, db] = [Math.abs(r - other8[i]!), Math.abs(g - other8[i + 1]!), Math.abs(b - other8[i + 2]!)]
          sum += dr + dg + db
          if (dr <= 64 && dg <= 64 && db <= 64) continue
          // An edge that lies a part of a point beside is no other picture: a neighbour has the same colour.
          let near = false
          for (let dy = -1; dy <= 1 && !near; dy++)
            for (let dx = -1; dx <= 1 && !near; dx++) {
              const [nx, ny] = [x + dx, y + dy]
              if (nx < 0 || ny < 0 || nx >= w || ny >= h) continue
              const k = (ny * w + nx) * 4
              near =
                Math.abs(r - other8[k]!) <= 64 &&
                Math.abs(g - other8[k + 1]!) <= 64 &&
                Math.abs(b - other8[k + 2]!) <= 64
            }
          if (!near) off++
        }
      return { mean: sum / (w * h * 3 * 255), off: off / (w * h), size: '' }
    },
    [ours.toString('base64'), theirs.toString('base64')],
  )
}

test('a frame is painted as Chromium shows it, for every kind of mark and of paper', async ({ browser }) => {
  test.setTimeout(240_000)
  const server = await DemoServer.start()
  try {
    const page = await device(browser, server.url, { width: 2400, height: 1500 })
    await signIn(page)
    // A page of nobody's, which compares.
    const bare = await browser.newPage({ viewport: { width: 1600, height: 1000 } })
    const headers = { Origin: server.url }
    const post = async <T>(path: string, data: unknown): Promise<T> => {
      const reply = await page.request.post(`/api${path}`, { data, headers })
      expect(reply.ok(), `${path}: ${reply.status()} ${await reply.text()}`).toBe(true)
      return (await reply.json()) as T
    }
    const kept = await page.request.post('/api/pictures', {
      headers: { ...headers, 'Content-Type': 'image/png' },
      data: photo(),
    })
    const { picture } = (await kept.json()) as { picture: string }
    const { board } = await post<{ board: string }>('/boards', { title: 'Paintings' })
    let since = 0
    for (let i = 1; i < cases.length; i++) {
      await post(`/boards/${board}/frames`, { id: id(9000 + i), since: 0, at: i, from: { kind: 'blank', blank: {} } })
    }
    const read = async () =>
      (await (await page.request.get(`/api/boards/${board}`)).json()) as { rev: number; frames: Array<{ id: string }> }
    const { frames, rev } = await read()
    since = rev
    let n = 0
    for (const [i, c] of cases.entries()) {
      const frame = frames[i]!.id
      const text = JSON.stringify(c).replaceAll('PICTURE', picture)
      const { paper, prompt, marks } = JSON.parse(text) as Case
      const edits: unknown[] = [
        { id: id(20000 + n++), kind: 'frame', frame: { frame, title: c.name, prompt, paper } },
        ...marks.map((add) => ({
          id: id(20000 + n),
          kind: 'marks',
          marks: { frame, step: { kind: 'add', add: { mark: id(40000 + n++), ...add } } },
        })),
      ]
      const { results } = await post<{ results: Array<{ problem?: { title: string } }> }>(`/boards/${board}/edits`, {
        since,
        edits,
      })
      expect(results.map((r) => r.problem).filter(Boolean), c.name).toEqual([])
    }
    const take = async (form: string, frame: string) => {
      const wish = { what: 'board', form, frames: [frame], width: 1600 }
      let making = await post<Making>(`/boards/${board}/outputs`, wish)
      while (!making.ready) {
        expect(making.failed).toBeUndefined()
        making = (await (await page.request.get(`/api/outputs/${making.id}`)).json()) as Making
      }
      return await (await page.request.get(`/api/outputs/${making.id}/file`)).body()
    }
    const rows: string[] = []
    for (const [i, c] of cases.entries()) {
      const frame = frames[i]!.id
      await page.goto(`/try/${board}/${frame}`)
      const shown = page.locator('[data-part=frame]')
      await expect(shown).toBeVisible()
      await page.evaluate(async () => {
        await document.fonts.ready
        const at = document.querySelector<HTMLElement>('[data-part=frame]')!
        document.querySelector('[data-part=tour]')?.remove()
        at.style.transform = 'none'
        at.style.boxShadow = 'none'
        document.body.append(at.parentElement!)
        at.parentElement!.style.cssText =
          'position:fixed;inset:0;width:1600px;height:1000px;z-index:999;background:white'
      })
      const theirs = await page.screenshot({ clip: { x: 0, y: 0, width: 1600, height: 1000 } })
      const ours = await take('png', frame)
      // The same painting as outlines, drawn by Chromium; of papers alone they say nothing new.
      let drawn = ours
      if (c.marks.length > 0) {
        await bare.setContent(`<body style="margin:0">${(await take('svg', frame)).toString()}`)
        drawn = await bare.screenshot()
      }
      if (process.env.PAINTINGS) {
        writeFileSync(join(process.env.PAINTINGS, `${c.name}-theirs.png`), theirs)
        writeFileSync(join(process.env.PAINTINGS, `${c.name}-ours.png`), ours)
        writeFileSync(join(process.env.PAINTINGS, `${c.name}-svg.png`), drawn)
      }
      const [pixels, outlines] = [
        await compare(bare, ours, theirs),
        drawn === ours ? null : await compare(bare, drawn, theirs),
      ]
      const percent = (v?: number) => (v === undefined ? '' : `${(100 * v).toFixed(2)} %`)
      rows.push(`| ${c.name} | ${[pixels.mean, pixels.off, outlines?.mean, outlines?.off].map(percent).join(' | ')} |`)
      if (inOwnColours.includes(c.name)) continue
      for (const { mean, off, size } of [pixels, outlines ?? pixels]) {
        expect.soft(mean, `${c.name}: mean difference ${size}`).toBeLessThan(0.02)
        expect.soft(off, `${c.name}: points that are off`).toBeLessThan(0.01)
      }
    }
    console.log(
      ['| frame | pixels: mean | off | outlines: mean | off |', '| --- | --- | --- | --- | --- |', ...rows].join('\n'),
    )
  } finally {
    await server.remove()
  }
})
