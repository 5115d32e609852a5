import { expect, test } from '@playwright/test'
import { createServer } from 'node:http'
import type { AddressInfo } from 'node:net'
import { demo } from '../support/demo'
import { accessible, device, press, signIn } from '../support/people'

const house = demo()

test('a record taken out in each form, its report, and the next lesson begun with what was wrong', async ({
  browser,
}) => {
  test.setTimeout(150_000)
  const teacher = await device(browser, house.url)
  await signIn(teacher)
  await teacher.locator('a[href^="/records/"]').first().click()
  await teacher.getByRole('button', { name: 'Pictures and pages…' }).click()
  const window = teacher.getByRole('dialog')
  await accessible(teacher)
  const saved = async () => {
    await window.getByRole('button', { name: 'Make the file' }).click()
    const link = window.getByRole('link', { name: 'Save the file' })
    await expect(link).toBeVisible()
    const href = await link.getAttribute('href')
    const reply = await teacher.request.get(href!)
    await window.getByRole('button', { name: 'Another file' }).click()
    return { body: await reply.body(), name: /filename="?([^";]+)/.exec(reply.headers()['content-disposition']!)![1]! }
  }
  const pick = (name: string, option: string | { index: number }) =>
    window.getByRole('combobox', { name, exact: true }).selectOption(option)
  await pick('On a page', '6')
  const pages = await saved()
  expect(pages.name).toMatch(/\.pdf$/)
  expect(pages.body.subarray(0, 5).toString()).toBe('%PDF-')
  for (const [form, begins, end] of [
    ['png', '\x89PNG', '.png'],
    ['svg', '<svg', '.svg'],
    ['inkml', '<?xml', '.inkml'],
  ] as const) {
    await pick('Students', { index: 1 })
    await pick('Frames', { index: 1 })
    await pick('As', form)
    const file = await saved()
    expect(file.body.subarray(0, begins.length).toString('latin1')).toBe(begins)
    expect(file.name).toContain(end)
  }
  for (const [form, holds] of [
    ['markdown', '## 1\\.'],
    ['opml', '<opml'],
    ['csv', 'student'],
  ] as const) {
    await pick('What', 'notes')
    await pick('As', form)
    expect((await saved()).body.toString()).toContain(holds)
  }
  await teacher.keyboard.press('Escape')

  await teacher.getByRole('link', { name: 'Report' }).click()
  await expect(teacher.getByText(/\d+ of \d+ right \(between \d+ and \d+ %/).first()).toBeVisible()
  await accessible(teacher)
  await teacher.getByRole('button', { name: 'Next lesson…' }).click()
  await accessible(teacher)
  const again = window.getByRole('group', { name: 'Questions to ask again' }).getByRole('checkbox')
  const count = await again.count()
  expect(count).toBeGreaterThan(1)
  await again.first().uncheck()
  await window.getByRole('button', { name: 'Make the board' }).click()
  await expect(teacher).toHaveURL(/\/boards\//)
  const stations = teacher
    .getByRole('navigation', { name: 'Frames of this board' })
    .or(teacher.getByRole('list', { name: 'Frames of this board' }))
  await expect(stations.first()).toBeVisible()
  const board = (await (await teacher.request.get(`/api${new URL(teacher.url()).pathname}`)).json()) as {
    frames: unknown[]
  }
  expect(board.frames).toHaveLength(count - 1)
})

/** A site with one page, under two names. */
async function siteOfTheSchool() {
  const site = { page: '', named: '', other: '', server: createServer() }
  site.server.on('request', (_, reply) => {
    reply.setHeader('Content-Type', 'text/html')
    reply.end(site.page)
  })
  await new Promise<void>((listens) => site.server.listen(0, '127.0.0.1', listens))
  const { port } = site.server.address() as AddressInfo
  return Object.assign(site, { named: `http://127.0.0.1:${port}`, other: `http://localhost:${port}` })
}

test('a link to look at is a piece of a page of a site that is named, and of no other', async ({ browser }) => {
  const site = await siteOfTheSchool()
  const teacher = await device(browser, house.url, undefined, { permissions: ['clipboard-read', 'clipboard-write'] })
  await signIn(teacher)
  await teacher.goto('/school')
  await teacher.getByLabel('Sites').fill(`${site.named}\n*.example`)
  await teacher.getByLabel('Sites').blur()
  await expect(teacher.getByRole('alert').filter({ hasText: 'This is no web address.' })).toBeVisible()
  await teacher.getByLabel('Sites').fill(site.named)
  await teacher.getByLabel('Sites').blur()
  await expect(teacher.getByRole('alert')).toHaveCount(0)
  await accessible(teacher)
  await teacher.goto('/boards')
  await teacher.locator('a[href^="/records/"]').first().click()
  await teacher.getByRole('button', { name: 'Pictures and pages…' }).click()
  const window = teacher.getByRole('dialog')
  await window.getByRole('button', { name: 'Make a link instead' }).click()
  await expect(window.getByRole('button', { name: 'Copy as a piece of a page' })).toBeInViewport()
  await window.getByRole('button', { name: 'Copy as a piece of a page' }).click()
  await expect(window.getByRole('button', { name: 'Copied' })).toBeVisible()
  await expect(window.getByText(`Such a piece shows on pages of: ${site.named}.`)).toBeVisible()
  await accessible(teacher)
  const piece = await teacher.evaluate(() => navigator.clipboard.readText())
  // Two sites put it on their pages.
  site.page = `<!doctype html><html lang="en"><title>Our work</title><h1>Our work</h1>${piece}</html>`
  const visitor = await (await browser.newContext()).newPage()
  await visitor.goto(site.named)
  const shown = visitor.frameLocator('iframe')
  await expect(shown.getByRole('img').first()).toBeVisible()
  await expect(shown.getByRole('banner')).toHaveCount(0)
  const refused = visitor.waitForEvent('console', (m) => m.text().includes('frame-ancestors'))
  await visitor.goto(site.other)
  await refused
  await expect(visitor.frameLocator('iframe').getByRole('img')).toHaveCount(0)
  await visitor.context().close()
  site.server.close()
})

test('a board is saved with its lessons and opened again, and its record says the same', async ({ browser }) => {
  const teacher = await device(browser, house.url)
  await signIn(teacher)
  await teacher.getByRole('button', { name: 'More for Light and shadow' }).click()
  await teacher.getByRole('menuitem', { name: 'Save with its lessons' }).click()
  await accessible(teacher)
  const download = teacher.waitForEvent('download')
  await teacher.getByRole('dialog').getByRole('button', { name: 'Save the file' }).click()
  const file = await download
  expect(file.suggestedFilename()).toBe('light-and-shadow.board')
  await expect(teacher.getByRole('dialog')).toHaveCount(0)
  const records = async () =>
    (
      (await (await teacher.request.get('/api/boards')).json()) as {
        sessions: { id: string; title: string; students: number; startedAt: string }[]
      }
    ).sessions.filter((n) => n.title === 'Light and shadow')
  const [before] = await records()
  await teacher.getByLabel('Open a board file').setInputFiles(await file.path())
  await expect(teacher).toHaveURL(/\/boards\/.+/)
  const after = (await records()).find((n) => n.id !== before!.id)
  expect(after).toMatchObject({ students: before!.students, startedAt: before!.startedAt })
  const names = async (id: string) => {
    await teacher.goto(`/records/${id}`)
    await expect(teacher.getByRole('heading', { level: 3 }).first()).toBeVisible()
    return teacher
      .getByRole('region', { name: 'What students left' })
      .getByRole('heading', { level: 3 })
      .allInnerTexts()
  }
  const there = await names(after!.id)
  expect(there).toHaveLength(before!.students)
  expect(there).toEqual(await names(before!.id))
  await teacher.goto(`/records/${after!.id}`)
  await expect(teacher.getByRole('img', { name: /'s work on frame 1$/ }).first()).toBeVisible()
  await accessible(teacher)

  // One frame of all, beside each other, and from there to judging it.
  await press(teacher.getByRole('button', { name: 'By frame' }))
  await teacher.getByRole('combobox', { name: 'Frame', exact: true }).selectOption({ index: 1 })
  await expect(teacher.getByRole('img', { name: /'s work on frame 2$/ }).first()).toBeVisible()
  await expect(teacher.getByText(/^Left nothing on it: /)).toBeVisible()
  await accessible(teacher)
  const first = teacher.getByRole('region', { name: 'What students left' }).getByRole('heading', { level: 3 }).first()
  const name = await first.innerText()
  await press(first.getByRole('link'))
  await expect(teacher.getByRole('heading', { level: 2, name })).toBeVisible()
  await expect(teacher.getByRole('button', { name: /^2\. / })).toHaveAttribute('aria-current', 'true')
})
