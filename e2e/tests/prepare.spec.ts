import { expect, test, type Locator, type Page } from '@playwright/test'
import { accessible, device, phone, saved, signIn } from '../support/people'
import { pdf } from '../support/pdf'
import { demo } from '../support/demo'

const server = demo()

const stations = (page: Page) => page.getByRole('listbox', { name: 'Frames', exact: true }).getByRole('option')
const station = (page: Page, n: number) =>
  stations(page).and(page.getByRole('option', { name: new RegExp(`^Frame ${n}:`) }))
const tool = (page: Page, name: string) => page.getByRole('toolbar').getByRole('button', { name, exact: true }).click()

const middle = async (at: Locator) => {
  const box = (await at.boundingBox())!
  return { x: box.x + box.width / 2, y: box.y + box.height / 2 }
}

async function dragTo(page: Page, from: Locator, to: Locator) {
  const [a, b] = [await middle(from), await middle(to)]
  await page.mouse.move(a.x, a.y)
  await page.mouse.down()
  await page.mouse.move(b.x, b.y, { steps: 8 })
  await page.mouse.up()
}

/** A finger that rests before it moves, as one that does not want to scroll. */
async function finger(page: Page, from: Locator, to: Locator) {
  const cdp = await page.context().newCDPSession(page)
  const touch = (type: 'touchStart' | 'touchMove' | 'touchEnd', ...touchPoints: Array<{ x: number; y: number }>) =>
    cdp.send('Input.dispatchTouchEvent', { type, touchPoints })
  const [a, b] = [await middle(from), await middle(to)]
  await touch('touchStart', a)
  // It has rested long enough when it has taken hold.
  await expect(page.getByText(/^(Frame \d+ is taken along|At place \d+)/)).toBeAttached()
  for (let i = 1; i <= 8; i++) await touch('touchMove', { x: a.x + ((b.x - a.x) * i) / 8, y: a.y })
  await touch('touchEnd')
}

async function newBoard(page: Page, title: string) {
  await page.getByRole('button', { name: 'New board' }).click()
  await page.getByLabel('Name of the new board').fill(title)
  await page.getByRole('button', { name: 'Create' }).click()
  await expect(station(page, 1)).toBeVisible()
}

async function addFrom(page: Page, tab: string, pick: () => Promise<void>) {
  await page.getByRole('button', { name: 'Add frame' }).click()
  await page.getByRole('tab', { name: tab }).click()
  await pick()
  await expect(page.getByRole('dialog')).toHaveCount(0)
  await saved(page)
}

/** The lesson of five frames that the other tests go on with. */
async function prepared(page: Page, title: string) {
  await newBoard(page, title)
  // 1: a paper, a prompt, a note under a cover.
  await page.getByLabel('Title', { exact: true }).fill('Half moon')
  await page.getByLabel('Task for students').fill('Which side of the Moon is lit?')
  await page.getByRole('radio', { name: 'Squared' }).check({ force: true })
  await page.getByLabel('One square is').fill('1 cm')
  await page.getByLabel('Lesson notes').fill('Let them argue first.')
  await tool(page, 'Note')
  await page.getByLabel('Write here').fill('the side to the Sun')
  await page.keyboard.press('Escape')
  const solution = page.getByRole('button', { name: 'Fixed note: the side to the Sun' })
  await expect(solution).toBeVisible()
  await tool(page, 'Cover')
  const lid = page.getByRole('button', { name: 'Fixed cover' })
  const [from, to] = [(await lid.boundingBox())!, (await solution.boundingBox())!]
  await page.mouse.move(from.x + from.width / 2, from.y + from.height / 2)
  await page.mouse.down()
  await page.mouse.move(to.x + to.width / 2, to.y + to.height / 2, { steps: 6 })
  await page.mouse.up()
  await saved(page)

  // 2: a template with pieces in the tray.
  await addFrom(page, 'Blank or template', () => page.getByRole('button', { name: 'Sorting table' }).click())
  await expect(page.getByRole('list', { name: 'Pieces beside the frame' }).getByRole('button')).toHaveCount(6)
  // 3: a poll.
  await addFrom(page, 'Blank or template', () => page.getByRole('button', { name: 'Blank frame' }).click())
  await tool(page, 'Poll')
  await page.getByLabel('Question').fill('How long from new moon to new moon?')
  for (const [i, text] of ['7 days', '29.53 days', '365 days'].entries())
    await page.getByRole('textbox', { name: `Answer ${i + 1}` }).fill(text)
  await page.getByLabel('Answer 2 is right').check()
  // What is written in the window is saved as it is written.
  const kept = () => page.evaluate(async () => await (await fetch(`/api${location.pathname}`)).text())
  await expect.poll(kept).toContain('29.53 days')
  await saved(page)
  await accessible(page)
  await page.getByRole('button', { name: 'Done' }).click()
  // 4: an illustration that students move.
  await addFrom(page, 'Blank or template', () => page.getByRole('button', { name: 'Blank frame' }).click())
  await page.getByLabel('Title', { exact: true }).fill('Put the Moon in its place')
  await tool(page, 'Library')
  await page.getByLabel('Search by word').fill('moon')
  await expect(page.getByRole('button', { name: 'half moon' })).toBeVisible()
  await expect(page.getByRole('dialog').getByRole('listitem')).toHaveCount(3)
  // A picture that cannot be fetched is said to be so in the window, and can be taken again.
  await page.route('**/api/library', (route) => route.abort(), { times: 1 })
  await page.getByRole('button', { name: 'full moon' }).click()
  await expect(page.getByRole('dialog').getByRole('alert')).toContainText('The server does not answer')
  await page.getByRole('button', { name: 'full moon' }).click()
  await expect(page.getByRole('button', { name: /^Fixed picture: full moon/ })).toBeVisible()
  await page.getByRole('button', { name: 'Piece', exact: true }).click()
  await expect(page.getByRole('button', { name: /^Piece: picture: full moon/ })).toBeVisible()
  // 5: a page of a PDF; the other page stays out.
  await addFrom(page, 'From a file', async () => {
    await page.locator('input[type=file][accept*=pdf]').setInputFiles({
      name: 'worksheet.pdf',
      mimeType: 'application/pdf',
      buffer: pdf('Tides in the harbour', 'Page to leave out'),
    })
    await expect(page.getByRole('button', { name: 'Add 2 frames' })).toBeVisible()
    await accessible(page)
    await page.getByRole('checkbox', { name: 'Page to leave out' }).uncheck()
    await page.getByRole('button', { name: 'Add 1 frame' }).click()
  })
  await expect(stations(page)).toHaveCount(5)
  await expect(station(page, 5)).toHaveAccessibleName(/Tides in the harbour/)
}

test('a lesson from nothing: prepared, tried, rehearsed, started', async ({ browser }) => {
  test.setTimeout(240_000)
  const teacher = await device(browser, server.url)
  await signIn(teacher)
  await prepared(teacher, 'Phases of the Moon')
  await accessible(teacher)

  // Undo is one's own frame's, and outlives a reload.
  await station(teacher, 4).click()
  await teacher.reload()
  await expect(stations(teacher)).toHaveCount(5)
  await station(teacher, 4).click()
  await teacher.getByRole('toolbar').getByRole('button', { name: 'Undo' }).click()
  await expect(teacher.getByRole('button', { name: /^Fixed picture: full moon/ })).toBeVisible()
  await teacher.getByRole('toolbar').getByRole('button', { name: 'Redo' }).click()
  await expect(teacher.getByRole('button', { name: /^Piece: picture: full moon/ })).toBeVisible()

  // Tried: what lies under the cover is not there, and nothing is kept.
  await station(teacher, 1).click()
  await teacher.getByRole('button', { name: 'Try as a student' }).click()
  const student = teacher.frameLocator('iframe')
  await expect(student.getByRole('heading', { name: 'Half moon' })).toBeVisible()
  await expect(student.getByRole('img', { name: 'Covered' })).toBeVisible()
  await expect(student.getByText('the side to the Sun')).toHaveCount(0)
  await student.getByRole('button', { name: 'Note', exact: true }).click()
  await student.getByLabel('Write here').fill('only tried')
  await student.getByRole('button', { name: 'done' }).click()
  await expect(student.getByRole('button', { name: 'Your note: only tried' })).toBeVisible()
  await teacher.getByLabel('with covers lifted').check()
  await expect(student.getByText('the side to the Sun')).toBeVisible()
  await expect(student.getByText('only tried')).toHaveCount(0)
  await accessible(teacher)
  await teacher.getByRole('button', { name: "Close the student's screen" }).click()

  // Rehearsed with ten, paused, and thrown away.
  await teacher.getByRole('button', { name: 'Rehearse' }).click()
  await teacher.getByRole('slider', { name: /students$/ }).fill('10')
  await teacher.getByRole('button', { name: 'Begin the rehearsal' }).click()
  await expect(teacher.getByText('Practice: nothing of this is kept')).toBeVisible()
  await expect(teacher.getByText(/^(8|9|10) here$/)).toBeVisible({ timeout: 30_000 })
  await expect(teacher.getByRole('button', { name: /'s note: / }).first()).toBeVisible({ timeout: 30_000 })
  await teacher.getByRole('button', { name: /Lead everybody to frame 3/ }).click()
  await expect(teacher.getByText(/^[4-9] of \d+ answered|^10 of \d+ answered/)).toBeVisible({ timeout: 30_000 })
  await teacher.getByRole('button', { name: 'Pause the class' }).click()
  await accessible(teacher)
  await teacher.getByRole('button', { name: 'End the rehearsal' }).click()
  await teacher.getByRole('button', { name: 'End it' }).click()
  await expect(teacher.getByRole('heading', { level: 1, name: 'Boards' })).toBeVisible()
  await expect(teacher.getByText('practice', { exact: true })).toHaveCount(0)
  await expect(teacher.getByRole('region', { name: 'Records' })).not.toContainText('Phases of the Moon')

  // Started with the class list: Noor chooses her name, finds the cover, and moves pieces.
  await teacher.getByRole('link', { name: 'Start a lesson of Phases of the Moon' }).click()
  await expect(teacher.getByRole('button', { name: 'Start now' })).toBeFocused()
  await accessible(teacher)
  await teacher.keyboard.press('Enter')
  const code = (await teacher.getByRole('button', { name: /^Join code/ }).innerText()).trim()
  const noor = await device(browser, server.url, phone)
  const heard: string[] = []
  noor.on('websocket', (socket) => socket.on('framereceived', ({ payload }) => heard.push(payload.toString())))
  await noor.goto('/')
  await noor.getByLabel('Code of the lesson').fill(code)
  await noor.getByRole('button', { name: 'Go on', exact: true }).click()
  await noor.getByRole('radio', { name: 'Noor' }).check()
  await accessible(noor)
  await noor.getByRole('button', { name: 'Join', exact: true }).click()
  await expect(noor.getByRole('img', { name: 'Covered' })).toBeVisible()
  expect(heard.join('')).not.toContain('the side to the Sun')
  expect(heard.join('')).not.toContain('Let them argue first')
  await teacher.getByRole('button', { name: 'Lift this cover' }).click()
  await expect(noor.getByText('the side to the Sun')).toBeVisible()
  await teacher.getByRole('button', { name: /Lead everybody to frame 2/ }).click()
  await noor.getByRole('button', { name: 'Put on the frame: note: card 2' }).click()
  await expect(noor.getByRole('button', { name: 'Movable note: card 2' })).toBeVisible()
  await noor.getByRole('button', { name: 'Movable note: card 2' }).focus()
  await noor.keyboard.press('ArrowRight')
  await saved(noor)
  await noor.reload()
  await expect(noor.getByRole('button', { name: 'Movable note: card 2' })).toBeVisible()
  await expect(noor.getByRole('button', { name: /^Put on the frame/ })).toHaveCount(5)
  // Who shares the frame is changed while the class works; nothing is lost.
  await teacher.getByRole('button', { name: 'Change who shares this frame and what students do' }).click()
  await teacher.getByRole('radio', { name: 'Whole class' }).click({ force: true })
  await expect(noor.getByRole('button', { name: /^Put on the frame/ })).toHaveCount(6)
  await teacher.getByRole('radio', { name: 'Each their own' }).click({ force: true })
  await expect(noor.getByRole('button', { name: 'Movable note: card 2' })).toBeVisible()
})

test('the trail and the settings by keyboard alone; two windows on one board; delete and bring back', async ({
  browser,
}) => {
  const teacher = await device(browser, server.url)
  await signIn(teacher)
  await newBoard(teacher, 'Keyboard')
  await teacher.getByRole('button', { name: 'Add frame' }).focus()
  for (const name of ['See, think, wonder', 'Exit ticket', 'Number line']) {
    await teacher.keyboard.press('Enter')
    await teacher.getByRole('button', { name }).focus()
    await teacher.keyboard.press('Enter')
    await expect(teacher.getByRole('dialog')).toHaveCount(0)
    await teacher.getByRole('button', { name: 'Add frame' }).focus()
  }
  const titles = async () => (await stations(teacher).allInnerTexts()).map((t) => t.replace(/^\d+\s*/, '').trim())
  const [blank, see, exit, line] = ['no title yet', 'See, think, wonder', 'Exit ticket', 'Number line']
  await expect.poll(titles).toEqual([blank, see, exit, line])
  await station(teacher, 4).focus()
  await teacher.keyboard.press('Alt+ArrowLeft')
  await expect.poll(titles).toEqual([blank, see, line, exit])
  await teacher.keyboard.press('Shift+ArrowLeft')
  await teacher.keyboard.press('Alt+ArrowLeft')
  await expect.poll(titles).toEqual([see, line, blank, exit])
  await teacher.keyboard.press('Control+z')
  await expect.poll(titles).toEqual([blank, see, line, exit])
  await teacher.keyboard.press('Home')
  await teacher.keyboard.press('Control+d')
  await expect.poll(titles).toEqual([blank, blank, see, line, exit])
  await teacher.keyboard.press('Delete')
  await expect(teacher.getByText('One frame deleted.')).toBeVisible()
  await expect.poll(titles).toEqual([blank, see, line, exit])

  // The mouse takes a frame to another place, and so does a finger that rests on it first.
  await dragTo(teacher, station(teacher, 4), station(teacher, 2))
  await expect.poll(titles).toEqual([blank, exit, see, line])
  await finger(teacher, station(teacher, 2), station(teacher, 4))
  await expect.poll(titles).toEqual([blank, see, line, exit])

  // What was deleted comes back, whatever was done since.
  await station(teacher, 4).click()
  await teacher.keyboard.press('Delete')
  await expect.poll(titles).toEqual([blank, see, line])
  await teacher.keyboard.press('Alt+ArrowLeft')
  await expect.poll(titles).toEqual([blank, line, see])
  await teacher.getByRole('button', { name: 'Bring back' }).click()
  await expect.poll(async () => (await titles()).sort()).toEqual([see, exit, line, blank].sort())
  await expect.poll(async () => (await titles()).filter((t) => t !== exit)).toEqual([blank, line, see])
  await station(teacher, 2).click()
  await teacher.keyboard.press('Alt+ArrowRight')
  await saved(teacher)
  await teacher.keyboard.press('Home')
  await teacher.keyboard.press('Tab')
  await expect(teacher.getByRole('button', { name: 'Add frame' })).toBeFocused()
  await teacher.getByRole('radio', { name: 'Whole class' }).focus()
  await teacher.keyboard.press('ArrowRight')
  await expect(teacher.getByText('Each group works on its own copy; the other groups do not see it.')).toBeVisible()
  await teacher.keyboard.press('ArrowRight')
  await expect(teacher.getByText("Each student works on their own copy. Nobody sees the others'.")).toBeVisible()
  await teacher.getByLabel('Title', { exact: true }).focus()
  await teacher.keyboard.type('Begin here')
  await expect(station(teacher, 1)).toHaveAccessibleName(/Begin here/)
  await saved(teacher)

  // A second window sees it, changes another frame, and both have both.
  const second = await teacher.context().newPage()
  await second.goto(teacher.url())
  await station(second, 2).click()
  await second.getByLabel('Title', { exact: true }).fill('From the other window')
  await tool(second, 'Text')
  await second.getByLabel('Write here').fill('written there')
  await second.keyboard.press('Escape')
  await saved(second)
  await expect(station(teacher, 2)).toHaveAccessibleName(/From the other window/, { timeout: 15_000 })
  // One deletes the frame that the other is on: what is written there is refused with a sentence.
  await station(teacher, 2).click()
  await expect(teacher.getByRole('button', { name: 'Fixed text: written there' })).toBeVisible()
  await station(second, 2).focus()
  await teacher.route('**/edits*', (route) => route.abort())
  const onItsWay = teacher.waitForRequest('**/edits*')
  await teacher.getByLabel('Lesson notes').fill('too late')
  await onItsWay
  await second.keyboard.press('Delete')
  await saved(second)
  await teacher.unroute('**/edits*')
  await expect(teacher.getByText('This frame was deleted, perhaps in another window.')).toBeVisible({ timeout: 15_000 })
  await expect(stations(teacher)).toHaveCount(3)
  await expect(second.getByRole('button', { name: 'Bring back' })).toBeVisible()
  await second.getByRole('button', { name: 'Bring back' }).click()
  await expect(stations(teacher)).toHaveCount(4, { timeout: 15_000 })
})

test('the shelf: folder, copy, archive, delete and undo, a file out and in, a link for a colleague', async ({
  browser,
}) => {
  const teacher = await device(browser, server.url)
  await signIn(teacher)
  const menu = async (board: string, item: string) => {
    await teacher.getByRole('button', { name: `More for ${board}`, exact: true }).click()
    await teacher.getByRole('menuitem', { name: item }).click()
  }
  const card = (title: string) => teacher.getByRole('heading', { level: 2, name: title, exact: true })
  await menu('Moon and tides', 'Copy for another class')
  await teacher.getByLabel('Name of the new board').fill('Moon and tides, 8 Rowan')
  await teacher.getByRole('dialog').getByRole('button', { name: 'Copy for another class' }).click()
  await expect(stations(teacher)).toHaveCount(3)
  await teacher.getByRole('link', { name: 'Boards' }).click()
  await menu('Moon and tides, 8 Rowan', 'Rename')
  const name = teacher.getByLabel('Name of the board Moon and tides, 8 Rowan')
  await expect(name).toBeFocused()
  await teacher.keyboard.type('Never mind')
  await teacher.keyboard.press('Escape')
  await expect(card('Moon and tides, 8 Rowan')).toBeVisible()
  await expect(teacher.getByRole('button', { name: 'More for Moon and tides, 8 Rowan' })).toBeFocused()
  await menu('Moon and tides, 8 Rowan', 'Rename')
  await name.fill('Tides, 8 Hazel')
  await accessible(teacher)
  await teacher.keyboard.press('Enter')
  await expect(card('Tides, 8 Hazel')).toBeVisible()
  await menu('Tides, 8 Hazel', 'Rename')
  await teacher.getByLabel('Name of the board Tides, 8 Hazel').fill('Moon and tides, 8 Rowan')
  await teacher.getByRole('heading', { level: 1, name: 'Boards' }).click()
  await expect(card('Moon and tides, 8 Rowan')).toBeVisible()
  await menu('Moon and tides, 8 Rowan', 'Put into a folder')
  await teacher.getByLabel('Name of the folder').fill('Rowan')
  await teacher.getByRole('dialog').getByRole('button', { name: 'Put into a folder' }).click()
  await teacher.getByLabel('Folder').selectOption('Rowan')
  await expect(card('Moon and tides')).toHaveCount(0)
  await teacher.getByLabel('Folder').selectOption('*')
  await menu('Moon and tides, 8 Rowan', 'Archive')
  await expect(card('Moon and tides, 8 Rowan')).toHaveCount(0)
  await teacher.getByLabel('Show archived').check()
  await menu('Moon and tides, 8 Rowan', 'Bring back')
  await teacher.getByLabel('Show archived').click()
  await expect(card('Moon and tides, 8 Rowan')).toBeVisible()
  await accessible(teacher)
  await menu('Moon and tides, 8 Rowan', 'Delete')
  await expect(card('Moon and tides, 8 Rowan')).toHaveCount(0)
  await teacher.getByRole('button', { name: 'Undo' }).click()
  await expect(card('Moon and tides, 8 Rowan')).toBeVisible()

  // What stands on a frame is found, and leads there.
  await teacher.getByLabel('Search boards, lessons and what students wrote').fill('half MOON')
  await expect(teacher.getByRole('link', { name: 'on frame 2: Where is the Moon?' }).first()).toBeVisible()
  await teacher.getByLabel('Search boards, lessons and what students wrote').fill('half moon 29.53')
  await expect(teacher.getByText('No board has these words.')).toBeVisible()
  await teacher.getByLabel('Search boards, lessons and what students wrote').fill('29.53')
  await accessible(teacher)
  await teacher.getByRole('link', { name: 'on frame 3: From new moon to new moon' }).first().click()
  await expect(teacher.getByLabel('Title', { exact: true })).toHaveValue('From new moon to new moon')
  await teacher.getByRole('link', { name: 'Boards' }).click()

  const [download] = await Promise.all([teacher.waitForEvent('download'), menu('Moon and tides', 'Save as a file')])
  expect(download.suggestedFilename()).toBe('moon-and-tides.board')
  const file = await download.path()
  await teacher
    .locator('input[type=file]')
    .setInputFiles({ name: 'broken.board', mimeType: 'application/zip', buffer: Buffer.from('no zip') })
  await expect(teacher.getByText('This file cannot be read.')).toBeVisible()
  await teacher.locator('input[type=file]').setInputFiles(file)
  await expect(stations(teacher)).toHaveCount(3)
  await teacher.getByRole('link', { name: 'Boards' }).click()
  await menu('Moon and tides, 8 Rowan', 'Give a copy to a colleague')
  const link = await teacher.getByRole('textbox', { name: 'Give a copy to a colleague' }).inputValue()
  await teacher.goto(link)
  await expect(teacher.getByText('Moon and tides, 8 Rowan')).toBeVisible()
  await accessible(teacher)
  await teacher.getByRole('button', { name: 'Take a copy' }).click()
  await expect(stations(teacher)).toHaveCount(3)
})
