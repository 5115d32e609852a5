import { expect, test, type Page } from '@playwright/test'
import { spawn } from 'node:child_process'
import { join as path } from 'node:path'
import { at, lesson, part, place } from '../support/frame'
import { accessible, addNote, device, join, phone, saved } from '../support/people'
import { demo } from '../support/demo'

const server = demo()

/** The teacher lets the notes lie in columns with these headings, or free. */
async function lay(teacher: Page, ...headings: string[]) {
  await teacher.getByRole('button', { name: /^Change who shares/ }).click()
  if (headings.length === 0) await teacher.getByText('Free', { exact: true }).click()
  else await teacher.getByText('In columns', { exact: true }).click()
  for (const [i, heading] of headings.entries()) {
    await teacher.getByLabel(`Heading of column ${i + 1}`).fill(heading)
    await teacher.getByLabel(`Heading of column ${i + 1}`).blur()
  }
  await accessible(teacher)
  await teacher.keyboard.press('Escape')
}

test('notes stand in columns, are moved between them, and lie where they lay when they are free again', async ({
  browser,
}) => {
  const { teacher, code, students } = await lesson(browser, server.url, 'Ada', 'Bo')
  const [ada, bo] = students as [Page, Page]
  await addNote(ada, 'the high tide is later each day')
  await saved(ada)
  const free = await place(bo, "Ada's note: the high")
  await lay(teacher, 'I see', 'I think', 'I wonder')
  await expect(bo.getByRole('region', { name: 'I wonder' })).toBeVisible()
  const note = () => place(bo, "Ada's note: the high")
  const column = async () => Math.floor((await note()).x / 533)
  await expect.poll(column).toBe(0) // it has no column of its own yet
  // With keys, one column on; its author does it, others see it.
  await part(ada, 'Your note: the high').focus()
  await ada.keyboard.press('ArrowRight')
  await expect.poll(column).toBe(1)
  // By pulling it, into the last.
  const box = (await part(ada, 'Your note: the high').boundingBox())!
  await ada.mouse.move(box.x + box.width / 2, box.y + box.height / 2)
  await ada.mouse.down()
  await ada.mouse.move(...(await at(ada, 1350, 800)), { steps: 8 })
  await ada.mouse.up()
  await expect.poll(column).toBe(2)
  await ada.keyboard.press('Control+z')
  await expect.poll(column).toBe(1)
  // What comes in later stands below, and none covers another.
  await addNote(bo, 'it follows the Moon')
  await saved(bo)
  await addNote(ada, 'why not every 24 hours')
  await saved(ada)
  const tops = await Promise.all(['the high', 'why not'].map((words) => place(ada, `Your note: ${words}`)))
  expect(tops[1]!.x !== tops[0]!.x || tops[1]!.y >= tops[0]!.y + tops[0]!.h).toBe(true)
  await accessible(ada)
  // A column that is removed takes no note with it.
  await teacher.getByRole('button', { name: /^Change who shares/ }).click()
  await teacher.getByRole('button', { name: 'Remove column 2' }).click()
  await teacher.keyboard.press('Escape')
  await expect(bo.getByRole('region', { name: 'I think' })).toHaveCount(0)
  await expect.poll(async () => (await note()).x).toBeLessThan(100)
  await lay(teacher)
  await expect.poll(note).toEqual(free)

  // On a phone such a frame is a page to read and write on.
  await lay(teacher, 'I see', 'I think', 'I wonder')
  const cleo = await device(browser, server.url, phone)
  await join(cleo, code, 'Cleo')
  await cleo.getByText('I wonder', { exact: true }).click()
  await cleo.getByRole('textbox', { name: 'Write a note' }).fill('who measures this?')
  await accessible(cleo)
  await cleo.getByRole('button', { name: 'Add it' }).click()
  await expect(cleo.getByRole('region', { name: 'Yours' }).getByText('who measures this?')).toBeVisible()
  await expect.poll(async () => (await place(bo, "Cleo's note: who")).x).toBeGreaterThan(1000)
  await cleo
    .getByRole('listitem')
    .filter({ hasText: 'follows the Moon' })
    .getByRole('button', { name: 'Me too' })
    .click()
  await saved(cleo)
  await expect(part(bo, /Your note: it follows the Moon.*1/)).toBeVisible()
  await cleo.getByRole('button', { name: 'Change' }).click()
  await cleo.getByRole('textbox', { name: 'Change' }).fill('who measures the tide?')
  await cleo.getByRole('button', { name: 'Keep it' }).click()
  await expect(part(bo, "Cleo's note: who measures the tide?")).toBeVisible()
  await cleo.getByRole('button', { name: 'See the frame' }).click()
  await expect(cleo.locator('[data-part=frame]')).toBeVisible()
  await cleo.getByRole('button', { name: 'Read and write' }).click()
  await expect(cleo.getByRole('region', { name: 'From the others' })).toBeVisible()
  // What was half written arrives when the class goes on.
  await cleo.getByRole('textbox', { name: 'Write a note' }).fill('half a quest')
  await teacher.getByRole('button', { name: /^Frame 2:/ }).click()
  await expect(cleo.getByRole('heading', { name: 'Where is the Moon?' })).toBeVisible()
  await teacher.getByRole('button', { name: /^Frame 1:/ }).click()
  await expect(part(bo, "Cleo's note: half a quest")).toBeVisible()
})

test('a full frame: what finds no room lies beside it, and is put back on it; the teacher spreads notes out', async ({
  browser,
}) => {
  const { teacher, students } = await lesson(browser, server.url, 'Dov')
  const [dov] = students as [Page]
  await addNote(dov, 'one')
  await addNote(dov, 'two')
  await saved(dov)
  // Dov pulls one note onto the other; the teacher spreads them, and takes that back.
  const to = (await part(dov, 'Your note: one').boundingBox())!
  const box = (await part(dov, 'Your note: two').boundingBox())!
  await dov.keyboard.down('Alt')
  await dov.mouse.move(box.x + 20, box.y + 20)
  await dov.mouse.down()
  await dov.mouse.move(to.x + 30, to.y + 30, { steps: 8 })
  await dov.mouse.up()
  await dov.keyboard.up('Alt')
  await saved(dov)
  const apart = async () => {
    const [a, b] = await Promise.all([place(teacher, "Dov's note: one"), place(teacher, "Dov's note: two")])
    return a.x + a.w <= b.x || b.x + b.w <= a.x || a.y + a.h <= b.y || b.y + b.h <= a.y
  }
  await expect.poll(apart).toBe(false)
  await teacher.getByRole('button', { name: 'Spread out' }).click()
  await expect.poll(apart).toBe(true)
  await teacher.getByRole('toolbar').getByRole('button', { name: 'Undo' }).first().click()
  await expect.poll(apart).toBe(false)
  // Long notes fill the frame, until one lies beside it.
  const beside = dov.getByRole('region', { name: /beside the frame/ })
  for (let i = 0; i < 30 && !(await beside.isVisible()); i++) {
    await dov.getByRole('button', { name: 'Note', exact: true }).click()
    await dov.getByLabel('Write here').fill(`${i} ${'and again high tide, low tide '.repeat(18)}`)
    await dov.getByLabel('Write here').blur()
    await saved(dov)
    // Its place, on the frame or beside it, is the server's.
    await expect(dov.getByText(new RegExp(`^${i} and again`)).first()).toBeVisible()
  }
  await expect(beside.getByText('The frame is full.')).toBeVisible()
  await accessible(dov)
  await expect(teacher.getByRole('region', { name: /beside the frame/ })).toBeVisible()
  const rest = beside.getByRole('button', { name: 'Put on the frame' })
  for (let n = await rest.count(); n > 0; n--) {
    await rest.first().click()
    await expect(rest).toHaveCount(n - 1)
  }
  await expect(beside).toHaveCount(0)
  await expect(teacher.getByRole('region', { name: /beside the frame/ })).toHaveCount(0)
})

test('a full column goes on with one press, and the front screen with its teacher', async ({ browser }) => {
  const { teacher, code } = await lesson(browser, server.url)
  const session = new URL(teacher.url()).pathname.split('/').pop()!
  const front = await device(browser, server.url)
  await front.context().addCookies(await teacher.context().cookies())
  await front.goto(`/front/${session}`)
  const zero = (page: Page) => page.locator('[aria-label$="note: tide 0"]')
  await lay(teacher, 'I see')
  const crowd = spawn(
    path(import.meta.dirname, '../../bin/alpenglow'),
    ['crowd', '-url', server.url, '-code', code, '-students', '10', '-notes', '60', '-strokes', '0', '-seconds', '0'],
    { stdio: 'ignore' },
  )
  await new Promise((resolve) => crowd.on('exit', resolve))
  await teacher.keyboard.press('Alt+f')
  await teacher.getByRole('radio', { name: "The class's frame, live" }).check()
  await teacher.getByRole('button', { name: 'Show this' }).click()
  await expect(zero(front)).toBeVisible()
  const more = teacher.getByRole('button', { name: /^Show more of I see/ })
  const first = await more.innerText()
  await more.focus()
  await teacher.keyboard.press('Enter')
  await expect(zero(front)).toHaveCount(0)
  await expect(front.getByText(first, { exact: true })).toHaveCount(0)
  const shown = (page: Page) => page.locator('[data-part=frame] [data-mark]').allInnerTexts()
  await expect.poll(() => shown(front)).toEqual(await shown(teacher))
  // On another device of the teacher, and after a reload, it is the same part.
  await teacher.reload()
  await expect(zero(teacher)).toHaveCount(0)
  await expect.poll(() => shown(teacher)).toEqual(await shown(front))
})
