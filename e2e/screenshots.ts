// Takes the pictures in docs/screenshots from the demo data: npx playwright test -c screenshots.config.ts
import { test, type Browser, type Page } from '@playwright/test'
import { spawn } from 'node:child_process'
import { mkdirSync } from 'node:fs'
import { join as path } from 'node:path'
import { addNote, device, draw, join, phone, saved, signIn, startSession } from './support/people'
import { DemoServer } from './support/server'

const folder = process.env.PICTURES ?? path(import.meta.dirname, '../docs/screenshots')

/** Pictures beside each other, or below, in one. */
async function together(page: Page, pictures: Buffer[], as: string, way: 'row' | 'column' = 'row') {
  const images = pictures.map((p) => `<img src="data:image/png;base64,${p.toString('base64')}">`)
  await page.setContent(`<body style="margin:0;background:#c9cfdf"><div id="all" style="display:inline-flex;gap:12px;
    flex-direction:${way};padding:12px">${images.join('')}</div>`)
  await page.locator('#all').screenshot({ path: path(folder, `${as}.png`) })
}

/** A simulated class of so many comes to a lesson, and works at a pace: less is quicker. */
const rehearse = (url: string, code: string, students: number, pace: number) =>
  spawn(
    path(import.meta.dirname, '../bin/alpenglow'),
    ['rehearse', '-url', url, '-code', code, '-students', `${students}`, '-pace', `${pace}`],
    { stdio: 'ignore' },
  )

/** A frame with a cover and pieces, the same as a student sees it, and a class that rehearses on it. */
async function prepareAndRehearse(teacher: Page, shot: (name: string) => Promise<unknown>) {
  await teacher.getByRole('link', { name: 'Prepare Moon and tides' }).click()
  await teacher.getByRole('button', { name: 'Add frame' }).click()
  await teacher.getByRole('button', { name: 'Sorting table' }).click()
  await teacher.getByLabel('Title', { exact: true }).fill('Spring or neap?')
  await teacher.getByLabel('Task for students').fill('Which kind of tide does each card tell of?')
  await teacher.getByLabel('Lesson notes').fill('Lift the cover when most cards lie somewhere.')
  await teacher.getByRole('toolbar').getByRole('button', { name: 'Library' }).click()
  await teacher.getByLabel('Search by word').fill('tide')
  await teacher.getByRole('button', { name: 'high tide' }).click()
  await saved(teacher)
  await teacher.getByRole('toolbar').getByRole('button', { name: 'Cover', exact: true }).click()
  await teacher.getByRole('button', { name: 'Show which is which' }).click()
  await saved(teacher)
  await teacher.waitForTimeout(600)
  await shot('prepare')
  await teacher.getByRole('button', { name: 'Show which is which' }).click()
  await teacher.getByRole('button', { name: 'Try as a student' }).click()
  await teacher.getByRole('button', { name: 'Tablet' }).click()
  await teacher.frameLocator('iframe').getByRole('heading', { name: 'Spring or neap?' }).waitFor()
  await teacher.getByRole('button', { name: 'Rehearse' }).click()
  await teacher.getByRole('button', { name: 'Begin the rehearsal' }).click()
  await teacher.getByText('12 here').waitFor()
  await teacher.getByRole('button', { name: /^Change who shares/ }).click()
  await teacher.getByText('Each group', { exact: true }).click()
  await teacher.keyboard.press('Escape')
  await teacher.getByRole('button', { name: /^Open the frame of Group 3 large. [4-9] things/ }).waitFor()
  await teacher.getByRole('button', { name: /^Pace/ }).click()
  await teacher.getByLabel(/Own pace/).check()
  await teacher.keyboard.press('Escape')
  await teacher.getByRole('button', { name: /^Frame 3.*[3-9] students are here now/ }).waitFor()
  await teacher.getByRole('button', { name: /Look at frame 2/ }).click()
  await teacher.waitForTimeout(1500)
  await shot('own-pace')
  await teacher.getByRole('button', { name: 'End the rehearsal' }).click()
  await teacher.getByRole('button', { name: 'End it' }).click()
  await teacher.getByRole('heading', { level: 1, name: 'Boards' }).waitFor()
}

test('pictures of the main views', async ({ browser }) => {
  mkdirSync(folder, { recursive: true })
  const server = await DemoServer.start()
  try {
    const shot = (page: import('@playwright/test').Page, name: string) =>
      page.screenshot({ path: path(folder, `${name}.png`) })
    const teacher = await device(browser, server.url)
    await teacher.goto('/')
    await shot(teacher, 'start')
    await signIn(teacher)
    await teacher.waitForTimeout(300)
    await shot(teacher, 'boards')
    await teacher.goto('/classes')
    await teacher.getByRole('link', { name: /^8 Juniper/ }).click()
    await teacher.getByRole('tab', { name: 'Records' }).click()
    await teacher.getByRole('heading', { name: 'Learning objectives' }).waitFor()
    await teacher.waitForTimeout(400)
    const year = await teacher.screenshot()
    await teacher.getByRole('link', { name: 'Farid' }).click()
    await teacher.getByRole('heading', { name: 'Lessons' }).waitFor()
    await teacher.waitForTimeout(400)
    const student = await teacher.screenshot()
    await together(await device(browser, server.url, { width: 2700, height: 1000 }), [year, student], 'classes')
    await teacher.goto('/boards')
    const code = await startSession(teacher)

    const names = ['Noor', 'Kenji', 'Amara', 'Tomás', 'Liv', 'Samir', 'Oskar', 'Vera']
    const students = []
    for (const name of names) {
      const page = await device(browser, server.url, name === 'Noor' ? phone : undefined)
      await join(page, code.toLowerCase(), name)
      students.push(page)
    }
    const [noor, kenji, amara, tomas, liv, samir] = students as [(typeof students)[0], ...typeof students]
    const notes: Array<[typeof noor, string, string]> = [
      [kenji!, 'High tide is about 50 min later every day', 'light blue'],
      [amara!, 'between low and high there are 6 h 12 min', 'light green'],
      [tomas!, 'always 2 high 2 low', 'apricot'],
      [liv!, 'Is it the Moon that moves?', 'lilac'],
      [samir!, 'Wednesday has the latest tides', 'rose'],
      [noor, 'Why not exactly 24 hours??', 'apricot'],
    ]
    for (const [page, text, tint] of notes) {
      await addNote(page, text)
      await page.getByRole('button', { name: `Your note: ${text}` }).click()
      await page.getByRole('button', { name: tint, exact: true }).click()
      await saved(page)
    }

    // Oskar shows what a hand can do.
    const oskar = students[6]!
    const box = (await oskar.locator('[data-part=frame]').boundingBox())!
    const drag = async (...points: Array<[number, number]>) => {
      const at = ([x, y]: [number, number]) =>
        [box.x + (x * box.width) / 1600, box.y + (y * box.height) / 1000] as const
      await oskar.mouse.move(...at(points[0]!))
      await oskar.mouse.down()
      for (const point of points.slice(1)) await oskar.mouse.move(...at(point), { steps: 10 })
      await oskar.mouse.up()
    }
    const take = (name: string) => oskar.getByRole('toolbar').getByRole('button', { name, exact: true }).first().click()
    await take('Draw')
    await take('Highlighter')
    await drag([100, 385], [700, 385])
    await take('Shape')
    await oskar.getByRole('button', { name: 'ellipse' }).click()
    await oskar.getByRole('button', { name: 'lilac' }).click()
    await drag([1130, 690], [1350, 850])
    await oskar.keyboard.press('Enter')
    await oskar.keyboard.type('Moon')
    await oskar.keyboard.press('Escape')
    await take('Stamp')
    await oskar.getByRole('button', { name: 'idea', exact: true }).click()
    await drag([1340, 330], [1340, 330])
    await take('Arrow')
    await drag([800, 730], [1200, 770])
    await take('Select')
    await drag([1110, 660], [1390, 880])
    await saved(oskar)
    await oskar.waitForTimeout(500)
    await shot(oskar, 'hand')
    await kenji!.getByRole('button', { name: /Amara's note/ }).click()
    await kenji!.getByRole('button', { name: 'I agree' }).click()

    await teacher.getByRole('button', { name: /Lead everybody to frame 2/ }).click()
    const circle = (x: number, y: number, r: number): Array<[number, number]> =>
      Array.from({ length: 15 }, (_, i) => [x + (r * Math.cos(i / 2.2)) / 1.6, y + r * Math.sin(i / 2.2)])
    for (const [i, page] of students.slice(0, 6).entries()) {
      await page.getByRole('button', { name: 'Draw', exact: true }).waitFor()
      await draw(page, circle([0.62, 0.62, 0.44, 0.62, 0.81, 0.72][i]!, [0.24, 0.84, 0.54, 0.24, 0.54, 0.3][i]!, 0.06))
      await saved(page)
    }
    await addNote(noor, 'half is lit from the left side')
    await saved(noor)

    await teacher.getByRole('button', { name: /Lead everybody to frame 3/ }).click()
    for (const [i, page] of students.slice(0, 7).entries()) {
      await page.getByRole('radio', { name: i % 3 === 0 ? '14.77 days' : '29.53 days' }).check()
      await saved(page)
    }
    await teacher.getByRole('button', { name: 'Show the right answer' }).click()
    await noor.getByText('is not right').waitFor()
    await teacher.getByRole('button', { name: 'Finish' }).click()
    await teacher.getByRole('button', { name: 'Finish and open the record' }).click()
    await teacher.getByRole('heading', { name: 'What students left' }).waitFor()
    await teacher.waitForTimeout(500)
    await keeping(teacher, noor, server.url, browser)
    await teacher.goto('/boards')
    await prepareAndRehearse(teacher, (name) => shot(teacher, name))
  } finally {
    await server.remove()
  }
})

/** The record and the report of a lesson, work judged in a row, and what goes back of it. */
async function keeping(teacher: Page, noor: Page, url: string, browser: Browser) {
  const record = await teacher.screenshot()
  await teacher.getByRole('link', { name: 'Report' }).click()
  await teacher.getByRole('heading', { name: 'Questions' }).waitFor()
  await teacher.waitForTimeout(400)
  const report = await teacher.screenshot()
  await together(await device(browser, url, { width: 2700, height: 1000 }), [record, report], 'record')
  await teacher.getByRole('link', { name: 'Record', exact: true }).click()
  await teacher.getByRole('link', { name: 'Judge work' }).click()
  await teacher.getByRole('region', { name: 'Criteria' }).getByRole('button', { name: 'Criteria' }).click()
  const grid = teacher.getByRole('dialog')
  for (const name of ['Reads the table closely', 'Says why']) {
    await grid.getByLabel('New criterion').fill(name)
    await grid.getByLabel('New criterion').press('Enter')
  }
  await grid.getByLabel('Says why: what Secure looks like').fill('Gives a reason that holds on other days.')
  await grid.getByLabel('Reads the table closely: what Going further looks like').fill('Compares rows and columns.')
  await teacher.keyboard.press('Escape')
  for (const name of ['Amara', 'Kenji', 'Liv', 'Noor']) {
    await teacher.getByRole('heading', { level: 2, name }).waitFor()
    for (const key of name === 'Noor' ? ['4', '3', '4'] : ['3', '2', '3']) await teacher.keyboard.press(key)
    if (name === 'Noor') {
      await teacher.keyboard.press('p')
      const paper = (await teacher.locator('[data-part=ink]').first().boundingBox())!
      const at = (x: number, y: number) => [paper.x + x * paper.width, paper.y + y * paper.height] as const
      await teacher.mouse.move(...at(0.16, 0.52))
      await teacher.mouse.down()
      for (let i = 1; i <= 24; i++)
        await teacher.mouse.move(...at(0.295 - 0.135 * Math.cos(i / 3.6), 0.52 + 0.12 * Math.sin(i / 3.6)))
      await teacher.mouse.up()
    }
    await teacher.keyboard.press('c')
    await teacher.getByLabel('Your words to the student').fill('Well seen. How long is it from one to the next?')
    if (name !== 'Noor') await teacher.keyboard.press('Control+Enter')
  }
  await teacher.waitForTimeout(800)
  const marking = await teacher.screenshot()
  await teacher.getByRole('link', { name: 'Record' }).click()
  await teacher.getByRole('button', { name: /^Give back to \d/ }).click()
  await teacher
    .getByRole('dialog')
    .getByRole('button', { name: /^Give back to \d/ })
    .click()
  await teacher.getByText(/have theirs back/).waitFor()
  await noor.getByRole('link', { name: 'What came back' }).click()
  await noor.getByText('Well seen.').first().waitFor()
  await noor.waitForTimeout(600)
  await together(
    await device(browser, url, { width: 1800, height: 1000 }),
    [marking, await noor.screenshot()],
    'marking',
  )
}

/** Shows something on the front screen, as a teacher does. */
async function show(teacher: Page, kind: string, more?: () => Promise<void>) {
  await teacher.keyboard.press('Alt+f')
  await teacher.getByRole('radio', { name: kind }).check()
  await more?.()
  await teacher.waitForTimeout(1500)
  await teacher.getByRole('button', { name: 'Show this' }).click()
  await teacher.getByRole('dialog').waitFor({ state: 'detached' })
}

test('pictures with twenty-eight in the room', async ({ browser }) => {
  const server = await DemoServer.start()
  const shot = (page: Page, name: string) => page.screenshot({ path: path(folder, `${name}.png`) })
  const teacher = await device(browser, server.url)
  await signIn(teacher)
  const code = (await startSession(teacher)).replace(' ', '')
  const noor = await device(browser, server.url, phone)
  await join(noor, code, 'Noor')
  const crowd = rehearse(server.url, code, 27, 0.4)
  try {
    const screen = await device(browser, server.url)
    await screen.context().addCookies(await teacher.context().cookies())
    await teacher.getByText('28 here').waitFor({ timeout: 60_000 })
    await screen.goto(new URL(teacher.url()).pathname.replace('run', 'front'))
    await screen.getByText('28 are in').waitFor()
    await screen.waitForTimeout(800)
    await shot(screen, 'front-gathering')
    await noor.getByRole('button', { name: 'I need help' }).click()
    await teacher.waitForTimeout(9000)
    await teacher.getByRole('button', { name: 'Spread out' }).click()
    await teacher.keyboard.press('Alt+t')
    await teacher.getByRole('button', { name: 'Start 5 min' }).first().click()
    await teacher.waitForTimeout(1200)
    await shot(teacher, 'run')
    const hold = async () => {
      await teacher.keyboard.press('Alt+l')
      await teacher.getByRole('menuitemcheckbox', { name: 'what is written anywhere' }).click()
      await teacher.keyboard.press('Escape')
    }
    await hold()
    await teacher.getByRole('button', { name: 'Read', exact: true }).click()
    await teacher.waitForTimeout(2500)
    await shot(teacher, 'queue')
    await teacher.getByRole('button', { name: /^Yes to all/ }).click()
    await teacher.keyboard.press('Escape')
    await hold()
    await teacher.getByRole('button', { name: /^Change who shares/ }).click()
    await teacher.getByText('In columns', { exact: true }).click()
    for (const [i, heading] of ['I see', 'I think', 'I wonder'].entries()) {
      await teacher.getByLabel(`Heading of column ${i + 1}`).fill(heading)
      await teacher.getByLabel(`Heading of column ${i + 1}`).blur()
    }
    await teacher.getByLabel('Notes may be answered').check()
    await teacher.keyboard.press('Escape')
    await show(teacher, "The class's frame, live")
    await screen.waitForTimeout(1500)
    const inColumns = await screen.screenshot()
    await teacher.getByRole('button', { name: 'History …' }).click()
    await teacher.getByRole('slider', { name: 'Moment' }).focus()
    for (let back = 0; back < 4; back++) await teacher.keyboard.press('PageDown')
    await teacher.waitForTimeout(1500)
    await shot(teacher, 'history')
    await teacher.keyboard.press('Escape')
    await noor.locator('li').filter({ hasText: 'Me too' }).getByRole('button', { name: 'Replies' }).nth(1).click()
    await noor.getByLabel('Write a reply').fill('Is it like that everywhere?')
    await noor.getByRole('button', { name: 'Reply', exact: true }).click()
    await noor.waitForTimeout(500)
    const reading = await noor.screenshot()
    await teacher.keyboard.press('Alt+f')
    await teacher.getByRole('radio', { name: 'Words in large letters' }).waitFor()
    await teacher.waitForTimeout(1500)
    await teacher.keyboard.press('Escape')
    await teacher.getByRole('button', { name: /Lead everybody to frame 2/ }).click()
    await teacher.waitForTimeout(9000)
    await teacher.getByLabel('Order', { exact: true }).selectOption('next')
    await teacher.waitForTimeout(800)
    await shot(teacher, 'monitor')
    for (const box of (await teacher.getByRole('checkbox', { name: /side by side with others/ }).all()).slice(8, 13))
      await box.check()
    await teacher.getByRole('button', { name: 'Gallery walk' }).click()
    await teacher.getByRole('button', { name: 'In front only' }).click()
    await teacher.getByRole('radio', { name: 'On all devices' }).check()
    await teacher.getByRole('switch', { name: 'Students may say something' }).click()
    await teacher.keyboard.press('Escape')
    await noor.getByLabel('Say something about it').fill('I had it on the other side. How do you know?')
    await noor.getByRole('button', { name: 'Say it' }).click()
    await screen.waitForTimeout(1500)
    const gallery = await screen.screenshot()
    await together(await device(browser, server.url, { width: 2700, height: 1000 }), [inColumns, gallery], 'front')
    const walking = await noor.screenshot()
    await teacher.locator('[data-part=gallery]').getByRole('button', { name: 'End' }).click()
    await teacher.getByRole('button', { name: /Lead everybody to frame 3/ }).click()
    await teacher.waitForTimeout(9000)
    await teacher.getByRole('tab', { name: 'Overview' }).click()
    await teacher.getByText(/made half of all there is/).waitFor()
    await teacher.waitForTimeout(800)
    await shot(teacher, 'overview')
    await noor.getByRole('radio').first().waitFor()
    await together(await device(browser, server.url), [reading, await noor.screenshot(), walking], 'student-phone')
  } finally {
    crowd.kill()
    await server.remove()
  }
})

test('what the answers to a question say, in its second round', async ({ browser }) => {
  test.setTimeout(120_000)
  const server = await DemoServer.start()
  try {
    const teacher = await device(browser, server.url, { width: 1280, height: 1000 })
    await signIn(teacher)
    await teacher.getByRole('link', { name: 'Prepare What do you know of the tides?' }).click()
    await teacher.getByRole('button', { name: 'Rehearse' }).click()
    await teacher.getByRole('slider').fill('26')
    await teacher.getByRole('button', { name: 'Begin the rehearsal' }).click()
    await teacher.getByText('26 here').waitFor()
    await teacher.waitForTimeout(12_000)
    await teacher.getByRole('tab', { name: 'Answers' }).click()
    await teacher.getByRole('button', { name: 'Make pairs' }).click()
    await teacher.getByRole('button', { name: 'Ask again' }).first().click()
    await teacher.waitForTimeout(20_000)
    await teacher.screenshot({ path: path(folder, 'answers.png') })
  } finally {
    await server.remove()
  }
})

test('a number with its band, and texts that say the same', async ({ browser }) => {
  test.setTimeout(120_000)
  const server = await DemoServer.start()
  try {
    const teacher = await device(browser, server.url)
    await signIn(teacher)
    await teacher.getByRole('link', { name: 'Prepare What do you know of the tides?' }).click()
    await teacher.getByRole('button', { name: 'Rehearse' }).click()
    await teacher.getByRole('slider').fill('26')
    await teacher.getByRole('button', { name: 'Begin the rehearsal' }).click()
    await teacher.getByText('26 here').waitFor()
    const asked = async (frame: number, question: string) => {
      await teacher.getByRole('button', { name: new RegExp(`Lead everybody to frame ${frame}\\b`) }).click()
      await teacher.getByRole('tab', { name: 'Answers' }).click()
      const now = teacher.getByRole('region', { name: question })
      await now.getByText(/^2[3-6] of 26 answered/).waitFor({ timeout: 60_000 })
      await teacher.waitForTimeout(1500)
    }
    await asked(2, 'How long is it from one high tide to the next?')
    const numbers = await teacher.screenshot()
    await asked(12, 'What do you still wonder about?')
    await teacher.getByRole('button', { name: 'What says the same' }).click()
    await teacher.waitForTimeout(1500)
    const texts = await teacher.screenshot()
    const page = await device(browser, server.url, { width: 1310, height: 1700 })
    await together(page, [numbers, texts], 'answers-read', 'column')
  } finally {
    await server.remove()
  }
})

test('a picture of questions in a row', async ({ browser }) => {
  const server = await DemoServer.start()
  const teacher = await device(browser, server.url)
  await signIn(teacher)
  await teacher.getByRole('link', { name: 'Start a lesson of Before you go: tides' }).click()
  await teacher.getByLabel('typed by the students').check()
  await teacher.getByRole('button', { name: 'Start now' }).click()
  const pill = teacher.getByRole('button', { name: /^Join code/ })
  await pill.waitFor()
  const code = (await pill.innerText()).trim()
  const crowd = rehearse(server.url, code, 28, 0.1)
  try {
    await teacher.getByText(/^1[0-3]\d answers of 140/).waitFor({ timeout: 60_000 })
    await teacher.waitForTimeout(2500)
    await teacher.screenshot({ path: path(folder, 'set.png') })
  } finally {
    crowd.kill()
    await server.remove()
  }
})
