import { expect, test } from '@playwright/test'
import { demo } from '../support/demo'
import { accessible, device, signIn } from '../support/people'

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
