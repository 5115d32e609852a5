import { expect, test, type Locator, type Page } from '@playwright/test'
import { spawn, type ChildProcess } from 'node:child_process'
import { join as path } from 'node:path'
import { lesson } from '../support/frame'
import { accessible, addNote, device, phone, join, saved } from '../support/people'
import { DemoServer } from '../support/server'

let server: DemoServer
const crowds: ChildProcess[] = []
test.beforeAll(async () => {
  server = await DemoServer.start()
})
test.afterAll(async () => {
  for (const crowd of crowds) crowd.kill()
  await server?.remove()
})

/** Presses something with the keyboard alone. */
async function press(at: Locator, key = 'Enter') {
  await at.focus()
  await at.press(key)
}

const rows = (teacher: Page) => teacher.locator('[data-part=people] li')

test('who is next, with a reason; what waits for a yes, by keys; a word to one student; names go off', async ({
  browser,
}) => {
  const { teacher, code, students } = await lesson(browser, server.url, 'Ada', 'Bo')
  const [ada, bo] = students as [Page, Page]
  const cem = await device(browser, server.url, phone)
  await join(cem, code, 'Cem')
  const session = new URL(teacher.url()).pathname.split('/').pop()!
  const front = await device(browser, server.url)
  await front.context().addCookies(await teacher.context().cookies())
  await front.goto(`/front/${session}`)

  await addNote(ada, 'The water comes up twice')
  await addNote(bo, 'It has to do with the Moon')
  await expect(rows(teacher).first()).toContainText('Cem')
  await expect(rows(teacher).first()).toContainText('nothing yet, others have 1')
  await bo.getByRole('button', { name: 'I need help' }).click()
  await expect(rows(teacher).first()).toContainText('asked for help just now')
  await press(teacher.getByRole('button', { name: /coming/i }).first())
  await expect(rows(teacher).first()).toContainText('you are coming')
  await accessible(teacher)

  // From now on what is written waits.
  await teacher.keyboard.press('Alt+l')
  await press(teacher.getByRole('menuitemcheckbox', { name: 'what is written anywhere' }))
  await addNote(ada, 'Sharks do it')
  await expect(ada.getByText('waits for a yes')).toBeVisible()
  await accessible(ada)
  const queue = teacher.locator('[data-part=queue]')
  await expect(queue).toContainText('1 waits for your yes')
  await addNote(ada, 'Gravity does it')
  await expect(queue).toContainText('2 wait for your yes')
  await press(teacher.getByRole('button', { name: 'Read', exact: true }))
  await expect(teacher.getByRole('dialog')).toContainText('Sharks do it')
  await accessible(teacher)
  await teacher.keyboard.press('n')
  await teacher.keyboard.type('What do you know about it?')
  await teacher.keyboard.press('Enter')
  await expect(teacher.getByRole('dialog')).toContainText('Gravity does it')
  await expect(bo.getByText('Gravity does it')).toHaveCount(0)
  await teacher.keyboard.press('y')
  await expect(teacher.getByRole('dialog')).toContainText('Nothing waits any more')
  await teacher.keyboard.press('Escape')
  await expect(bo.getByText('Gravity does it')).toBeVisible()
  await expect(bo.getByText('Sharks do it')).toHaveCount(0)
  const told = ada.locator('[data-part=told]')
  await expect(told).toContainText('What do you know about it?')
  await expect(told).toContainText('about “Sharks do it”')
  await expect(ada.getByRole('button', { name: /note: Sharks do it/ })).toHaveCount(0)
  await expect(bo.locator('[data-part=told]')).toHaveCount(0)
  await accessible(ada)
  await told.getByRole('button', { name: 'I have read it' }).click()
  await expect(told).toHaveCount(0)

  // Only certain words wait; why, the teacher alone learns.
  await teacher.keyboard.press('Alt+l')
  await press(teacher.getByRole('menuitemcheckbox', { name: 'what is written anywhere' }))
  await teacher.keyboard.press('Escape')
  await teacher.keyboard.press('Alt+l')
  await press(teacher.getByRole('menuitemcheckbox', { name: 'certain words…' }))
  await teacher.getByLabel('Your own words, one on each line').fill('blobfish')
  await accessible(teacher)
  await press(teacher.getByRole('button', { name: 'Hold these words' }))
  await expect(teacher.getByRole('dialog')).toHaveCount(0)
  await addNote(bo, 'a B l 0 bf1sh swims')
  await addNote(bo, 'a fish swims')
  await expect(ada.getByText('a fish swims')).toBeVisible()
  await expect(queue).toHaveCount(1)

  // Names off, on devices that had them and in front.
  await expect(ada.getByRole('button', { name: /^Bo's note/ }).first()).toBeVisible()
  await teacher.keyboard.press('Alt+l')
  await press(teacher.getByRole('menuitemcheckbox', { name: 'The class sees no names' }))
  await teacher.keyboard.press('Escape')
  await expect(ada.getByRole('button', { name: /Bo's note/ })).toHaveCount(0)
  await expect(front.getByText('Bo', { exact: true })).toHaveCount(0)
  await expect(teacher.getByRole('button', { name: /^Bo's note/ }).first()).toBeVisible()
  await saved(ada)

  // What happened here, played and gone back to; one undo brings everything back.
  await expect(ada.getByText('The water comes up twice')).toBeVisible()
  await press(teacher.getByRole('button', { name: 'History …' }))
  const film = teacher.getByRole('dialog', { name: 'What happened here' })
  const moment = film.getByRole('slider', { name: 'Moment' })
  await moment.focus()
  await moment.press('Home')
  await expect(film).toContainText('At the beginning')
  await moment.press('ArrowRight')
  await expect(film).toContainText(/After change 1 of \d+, .*, by (Ada|Bo)/)
  await accessible(teacher)
  await press(film.getByRole('button', { name: 'Play' }))
  await expect(film).toContainText(/After change (\d+) of \1,/)
  await moment.focus()
  await moment.press('Home')
  await moment.press('ArrowRight')
  await press(film.getByRole('button', { name: 'Set the frame back to this' }))
  await expect(film).toHaveCount(0)
  await expect(ada.getByText('a fish swims')).toHaveCount(0)
  await expect(bo.getByText('Gravity does it')).toHaveCount(0)
  await press(teacher.getByRole('button', { name: 'Undo', exact: true }))
  await expect(ada.getByText('a fish swims')).toBeVisible()
  await expect(bo.getByText('Gravity does it')).toBeVisible()
  await expect(bo.getByText('Sharks do it')).toHaveCount(0)
})

test("twenty-eight: everyone's work, the overview, somebody picked, notes sorted with the class", async ({
  browser,
}) => {
  test.setTimeout(180_000)
  const { teacher, code, students } = await lesson(browser, server.url, 'Ada', 'Bo')
  const [ada, bo] = students as [Page, Page]
  crowds.push(
    spawn(
      path(import.meta.dirname, '../../bin/alpenglow'),
      ['rehearse', '-url', server.url, '-code', code, '-students', '26', '-pace', '0.3'],
      { stdio: 'ignore' },
    ),
  )
  await addNote(ada, 'The Moon pulls the water')
  await addNote(bo, 'the moon is pulling at the water')
  await expect(teacher.getByText('28 here').first()).toBeVisible()
  await press(teacher.getByRole('tab', { name: "Everyone's work" }))
  const tile = (name: string) => teacher.getByRole('button', { name: new RegExp(`^Open ${name}'s frame large`) })
  await expect(teacher.getByRole('button', { name: /^Open .*'s frame large/ })).toHaveCount(28)
  await accessible(teacher)
  await teacher.getByRole('searchbox', { name: 'Name or word' }).fill('pulls the')
  await expect(tile('Ada')).toBeVisible()
  await expect(tile('Bo')).toHaveCount(0)
  await teacher.getByRole('searchbox', { name: 'Name or word' }).fill('')
  await teacher.getByLabel('Size').selectOption('large')
  await press(tile('Ada'))
  await expect(teacher.getByRole('dialog', { name: "Ada's frame" })).toBeVisible()
  await teacher.keyboard.press('ArrowRight')
  await expect(teacher.getByRole('dialog', { name: "Ada's frame" })).toHaveCount(0)
  await teacher.keyboard.press('ArrowLeft')
  await expect(teacher.getByRole('dialog', { name: "Ada's frame" })).toBeVisible()
  await teacher.keyboard.press('Escape')
  await expect(tile('Ada')).toBeFocused()
  for (const name of ['Ada', 'Bo'])
    await press(teacher.getByRole('checkbox', { name: `Put ${name} side by side with others` }), ' ')
  await press(teacher.getByRole('button', { name: 'Side by side' }))
  await expect(teacher.getByRole('dialog', { name: '2 frames side by side' })).toBeVisible()
  await accessible(teacher)
  await teacher.keyboard.press('Escape')

  // Who was looked at is remembered.
  const ofAda = rows(teacher).filter({ has: teacher.getByRole('button', { name: "Look into Ada's frame" }) })
  await expect(ofAda).not.toContainText('you have not looked')

  await press(teacher.getByRole('tab', { name: 'Overview' }))
  await expect(teacher.getByText(/of 28 made half of all there is/)).toBeVisible()
  await accessible(teacher)
  await press(teacher.getByRole('button', { name: 'As a table' }))
  await accessible(teacher)
  const row = teacher.getByRole('row', { name: /^Ada / })
  await expect(row).toContainText('1 note, 5 words')
  await press(row.getByRole('button').first())
  await expect(teacher.getByRole('dialog', { name: "Ada's frame" })).toBeVisible()
  await teacher.keyboard.press('Escape')

  await press(teacher.getByRole('button', { name: 'Pick somebody' }))
  await press(teacher.getByRole('button', { name: 'Pick', exact: true }))
  const odds = teacher.getByText(/^1 of 2\d, each as likely as any other$/)
  await expect(odds).toBeVisible()
  const first = await odds.locator('xpath=preceding-sibling::p').textContent()
  await press(teacher.getByRole('button', { name: 'Pick another' }))
  await expect(odds.locator('xpath=preceding-sibling::p')).not.toHaveText(first!)
  await accessible(teacher)
  await teacher.keyboard.press('Escape')

  await press(teacher.getByRole('tab', { name: 'Frame', exact: true }))
  await press(teacher.getByRole('button', { name: 'Sort …' }))
  const name = teacher.getByLabel(/^Name of this group of/)
  await expect(name.first()).toBeVisible()
  await accessible(teacher)
  await name.first().fill('Ideas about it')
  await press(teacher.getByRole('button', { name: 'Lay in columns' }))
  await expect(teacher.getByRole('dialog')).toHaveCount(0)
  await expect(teacher.getByText('Ideas about it').first()).toBeVisible()
  await expect(ada.getByText('Ideas about it').first()).toBeVisible()

  // A walk through two students' frames, with names and without.
  const session = new URL(teacher.url()).pathname.split('/').pop()!
  const front = await device(browser, server.url)
  await front.context().addCookies(await teacher.context().cookies())
  await front.goto(`/front/${session}`)
  await press(teacher.getByRole('button', { name: /Lead everybody to frame 2/ }))
  for (const page of [ada, bo]) await expect(page.getByRole('heading', { name: 'Where is the Moon?' })).toBeVisible()
  await addNote(ada, 'above the sea')
  await addNote(bo, 'behind the Earth')
  for (const name of ['Ada', 'Bo'])
    await press(teacher.getByRole('checkbox', { name: `Put ${name} side by side with others` }), ' ')
  await press(teacher.getByRole('button', { name: 'Gallery walk' }))
  const bar = teacher.locator('[data-part=gallery]')
  await expect(bar).toContainText('In front, 1 of 2: Ada')
  await expect(front.getByText('above the sea')).toBeVisible()
  await teacher.keyboard.press('PageDown')
  await expect(bar).toContainText('In front, 2 of 2: Bo')
  await expect(front.getByText('behind the Earth')).toBeVisible()
  await expect(front.getByText('above the sea')).toHaveCount(0)
  await accessible(teacher)
  await accessible(front)
  await press(bar.getByRole('button', { name: 'End' }))
  await expect(bar).toHaveCount(0)
})
