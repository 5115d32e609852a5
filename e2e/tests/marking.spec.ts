import { expect, test } from '@playwright/test'
import { demo } from '../support/demo'
import {
  accessible,
  addNote,
  device,
  join,
  phone,
  press,
  saved,
  signIn,
  startLesson,
  startSession,
} from '../support/people'

const server = demo()

test('work is judged in a row by keys, given back, read on a phone and by card, and taken back', async ({
  browser,
}) => {
  test.setTimeout(180_000)
  const ines = await device(browser, server.url)
  await signIn(ines)
  // Noor's card.
  await ines.getByRole('link', { name: 'Classes' }).click()
  await ines.getByRole('link', { name: /^8 Juniper/ }).click()
  await ines.getByRole('link', { name: 'Name cards' }).click()
  const card = ines.getByRole('listitem').filter({ hasText: 'Noor' })
  const code = (await card.getByText(/^[0-9A-Z]{4} [0-9A-Z]{4}$/).innerText()).trim().replace(' ', '')
  await ines.goto('/boards')
  const lesson = await startSession(ines)
  const [noor, kenji] = [await device(browser, server.url, phone), await device(browser, server.url)]
  for (const [page, name] of [
    [noor, 'Noor'],
    [kenji, 'Kenji'],
  ] as const) {
    await join(page, lesson, name)
    await addNote(page, `${name} saw two high tides`)
    await saved(page)
  }
  // How it stands is kept under a name before Noor goes on.
  await ines.getByRole('tab', { name: 'What happened' }).click()
  await ines.getByLabel('Name of this state').fill('before the discussion')
  await press(ines.getByRole('button', { name: 'Keep this state' }))
  await expect(ines.getByRole('listitem').filter({ hasText: 'before the discussion' })).toBeVisible()
  await accessible(ines)
  await addNote(noor, 'and they are later each day')
  await saved(noor)
  await ines.getByRole('button', { name: 'Finish' }).click()
  await ines.getByRole('button', { name: 'Finish and open the record' }).click()

  // Judged by keys alone: a level, words, on to the next; all of it is there after a reload.
  await press(ines.getByRole('link', { name: 'Judge work' }))
  await expect(ines.getByRole('heading', { level: 2, name: 'Kenji' })).toBeVisible()
  await ines.keyboard.press('3')
  await expect(ines.getByRole('button', { name: 'Secure' })).toHaveAttribute('aria-pressed', 'true')
  await ines.keyboard.press('c')
  await ines.keyboard.type('Say how often that is.')
  await accessible(ines)
  await ines.keyboard.press('Control+Enter')
  await expect(ines.getByRole('heading', { level: 2, name: 'Noor' })).toBeVisible()
  await ines.keyboard.press('4')
  await ines.keyboard.press('c')
  await ines.getByRole('list', { name: 'Words you have used before' }).getByRole('button').first().click()
  await expect(ines.getByLabel('Your words to the student')).toHaveValue('Say how often that is.')
  await ines.getByLabel('Your words to the student').fill('Twice a day: well seen.')
  await ines.keyboard.press('Escape')
  // One note gets words of its own.
  await press(ines.getByRole('button', { name: 'Say something about: Noor saw two high tides' }))
  await ines.keyboard.type('Where did you see that?')
  await accessible(ines)
  await ines.keyboard.press('Escape')
  await ines.keyboard.press('ArrowLeft')
  await expect(ines.getByRole('status').filter({ hasText: '2 with a level' })).toBeVisible()
  // Without a network it waits, and is saved once there is one.
  await ines.context().setOffline(true)
  await ines.keyboard.press('2')
  await expect(ines.getByText('saving …')).toBeVisible()
  await expect(ines.getByRole('alert')).toBeVisible()
  await ines.context().setOffline(false)
  await expect(ines.getByText('saved', { exact: true })).toBeVisible()
  await ines.keyboard.press('3')
  await expect(ines.getByText('saved', { exact: true })).toBeVisible()
  await ines.reload()
  await expect(ines.getByRole('button', { name: 'Secure' })).toHaveAttribute('aria-pressed', 'true')
  await expect(ines.getByLabel('Your words to the student')).toHaveValue('Say how often that is.')

  // Nothing before it is given; then one's own alone.
  await noor.getByRole('link', { name: 'What came back' }).tap()
  await expect(noor.getByText('Your teacher has given nothing back')).toBeVisible()
  await accessible(noor)
  await ines.getByRole('link', { name: 'Record' }).click()
  await expect(ines.getByText('3 pieces judged')).toBeVisible()
  await press(ines.getByRole('button', { name: 'Give back to 2 students' }))
  await accessible(ines)
  await press(ines.getByRole('dialog').getByRole('button', { name: 'Give back to 2 students' }))
  await expect(ines.getByText('2 students have theirs back')).toBeVisible()
  await accessible(ines)
  await noor.reload()
  await expect(noor.getByText('Twice a day: well seen.')).toBeVisible()
  await expect(noor.getByText('Going further')).toBeVisible()
  await expect(noor.getByText('Where did you see that?')).toBeVisible()
  await expect(noor.getByRole('img', { name: 'Your frame 1' })).toBeVisible()
  await expect(noor.getByText('Say how often that is.')).toHaveCount(0)
  await accessible(noor)

  // At home, with the card; printed; and taken back.
  const home = await device(browser, server.url, phone)
  await home.goto(`/card#${code}`)
  await home.getByRole('button', { name: 'What came back' }).tap()
  await home.getByRole('button', { name: 'Moon and tides' }).first().tap()
  await expect(home.getByText('Twice a day: well seen.')).toBeVisible()
  await ines.getByRole('link', { name: 'Print what goes back' }).click()
  await expect(ines.getByRole('article')).toHaveCount(2)
  await accessible(ines)
  await ines.getByRole('link', { name: 'Record' }).click()
  await press(ines.getByRole('button', { name: 'Take it back' }))
  await expect(ines.getByRole('button', { name: 'Give back to 2 students' })).toBeVisible()
  await home.reload()
  await expect(home.getByText('Your teacher has given nothing back')).toBeVisible()

  // The kept state beside the end: what came since, and a spreadsheet of the levels.
  await press(ines.getByRole('link', { name: 'Two states side by side' }))
  await expect(ines.getByRole('heading', { name: 'The whole class' })).toBeVisible()
  await expect(ines.getByText('1 new', { exact: true })).toBeVisible()
  await expect(ines.getByRole('img', { name: 'The whole class, then' })).toBeVisible()
  await accessible(ines)
  await ines.getByRole('combobox', { name: 'First' }).selectOption('the beginning')
  await expect(ines.getByText('3 new', { exact: true })).toBeVisible()
  await ines.getByRole('link', { name: 'Record' }).click()
  const download = ines.waitForEvent('download')
  await ines.getByRole('link', { name: 'Levels as a spreadsheet' }).click()
  expect((await download).suggestedFilename()).toMatch(/levels\.xlsx$/)
})

test('a grid, ink and a voice on the work; a second teacher judges blind, and both see where they differ', async ({
  browser,
}) => {
  test.setTimeout(180_000)
  const [ines, emil] = [await device(browser, server.url), await device(browser, server.url)]
  const lesson = await startLesson(ines)
  const noor = await device(browser, server.url, phone)
  await join(noor, lesson, 'Noor')
  await addNote(noor, 'two high tides')
  await saved(noor)
  const record = ines.url().split('/run/')[1]!
  await ines.getByRole('button', { name: 'Finish' }).click()
  await ines.getByRole('button', { name: 'Finish and open the record' }).click()

  // A grid, made after the lesson; the keys go down its rows, and then to the level of the whole.
  await press(ines.getByRole('link', { name: 'Judge work' }))
  await press(ines.getByRole('region', { name: 'Criteria' }).getByRole('button', { name: 'Criteria' }))
  const window = ines.getByRole('dialog')
  for (const name of ['Looks closely', 'Says why']) {
    await window.getByLabel('New criterion').fill(name)
    await ines.keyboard.press('Enter')
  }
  await window.getByLabel('Says why: what Secure looks like').fill('Gives a reason that holds.')
  await accessible(ines)
  await ines.keyboard.press('Escape')
  await expect(ines.getByRole('status').filter({ hasText: 'The keys give a level for: Looks closely' })).toBeAttached()
  await ines.keyboard.press('2')
  await ines.keyboard.press('3')
  await ines.keyboard.press('4')
  await expect(ines.getByRole('button', { name: 'Looks closely: On the way' })).toHaveAttribute('aria-pressed', 'true')
  await expect(ines.getByText('Gives a reason that holds.')).toBeVisible()
  await expect(
    ines.getByRole('group', { name: 'Level' }).getByRole('button', { name: 'Going further' }),
  ).toHaveAttribute('aria-pressed', 'true')
  // The pen draws on the work, and a voice says what it means.
  await ines.keyboard.press('p')
  const paper = ines.locator('[data-part=ink]').first()
  const box = (await paper.boundingBox())!
  for (const y of [0.4, 0.5]) {
    await ines.mouse.move(box.x + 0.2 * box.width, box.y + y * box.height)
    await ines.mouse.down()
    await ines.mouse.move(box.x + 0.6 * box.width, box.y + y * box.height, { steps: 8 })
    await ines.mouse.up()
  }
  await expect(paper.locator('path[d^="M"]')).toHaveCount(2)
  await press(ines.getByRole('button', { name: 'Undo line' }))
  await expect(paper.locator('path[d^="M"]')).toHaveCount(1)
  // Without a network it is kept, and saved when there is one.
  await ines.context().setOffline(true)
  await press(ines.getByRole('button', { name: 'Record', exact: true }))
  await expect(ines.getByText('Recording: 1 s')).toBeVisible()
  await press(ines.getByRole('button', { name: 'Stop recording' }))
  await expect(ines.getByText('The recording could not be saved yet.')).toBeVisible()
  await ines.context().setOffline(false)
  await press(ines.getByRole('button', { name: 'Save it again' }))
  await expect(ines.getByRole('button', { name: 'Take the recording away' })).toBeVisible()
  await expect(ines.getByText('saved', { exact: true })).toBeVisible()
  await accessible(ines)
  await ines.reload()
  await expect(paper.locator('path[d^="M"]')).toHaveCount(1)
  await expect(ines.getByRole('button', { name: 'Take the recording away' })).toBeVisible()
  await expect(ines.getByRole('button', { name: 'Says why: Secure' })).toHaveAttribute('aria-pressed', 'true')

  // A second teacher of the class, blind: nothing of what Ines thinks before he has said what he thinks.
  await ines.getByRole('link', { name: 'Record' }).click()
  await press(ines.getByRole('switch', { name: /judges without seeing/ }), 'Space')
  await expect(ines.getByRole('switch', { name: /judges without seeing/ })).toBeChecked() // the server says so
  await ines.goto('/classes')
  await ines.getByRole('link', { name: /^8 Juniper/ }).click()
  await ines.getByRole('tab', { name: 'Teachers' }).click()
  await ines.getByLabel('Colleague').selectOption({ label: 'Emil Sorensen' })
  await press(ines.getByRole('button', { name: 'Teach together' }))
  await expect(ines.getByRole('listitem').filter({ hasText: 'Emil Sorensen' })).toBeVisible()
  await signIn(emil, 'emil.sorensen@tern-harbour.example')
  await emil.goto(`/records/${record}/marking`)
  await expect(emil.getByRole('button', { name: 'Looks closely: On the way' })).toHaveAttribute('aria-pressed', 'false')
  await expect(emil.locator('[data-part=ink] path[d^="M"]')).toHaveCount(0)
  await expect(emil.getByText('Ines Aldana says')).toHaveCount(0)
  for (const key of ['2', '1', '4']) await emil.keyboard.press(key)
  await expect(emil.getByText('saved', { exact: true })).toBeVisible()
  await expect(emil.getByRole('region', { name: 'Ines Aldana says' })).toBeVisible()
  await expect(emil.locator('[data-part=ink] path[d^="M"]')).toHaveCount(1)
  // How far they agree, and the piece on which they do not, side by side.
  await ines.goto(`/records/${record}`)
  const agreed = ines.getByRole('region', { name: 'You and Emil Sorensen' })
  await expect(agreed).toContainText('2 of 3 the same.')
  await expect(agreed).toContainText(/weighted kappa -?\d\.\d\d/)
  await expect(agreed.getByRole('listitem')).toHaveCount(1)
  await expect(agreed.getByRole('listitem')).toContainText(/Says why.*You:.*Secure.*Emil Sorensen:.*Beginning/)
  await accessible(ines)
  await press(agreed.getByRole('link', { name: /^Look at both: Noor/ }))
  await expect(ines.getByRole('group', { name: 'Says why' })).toContainText(/Emil Sorensen:.*Beginning.*Secure/)
  await accessible(ines)

  // As a letter on paper, too.
  await ines.goto(`/records/${record}`)
  const left = ines.getByRole('list', { name: 'By criteria' })
  await expect(left.getByRole('listitem')).toHaveCount(2)
  await expect(ines.locator('audio')).toHaveCount(1)
  await accessible(ines)
  const letters = await ines.request.get(`/api/sessions/${record}/letters.pdf`)
  expect((await letters.body()).subarray(0, 5).toString()).toBe('%PDF-')

  // Noor sees the grid, the ink and hears the voice: of Ines alone.
  await press(ines.getByRole('button', { name: /^Give back to Noor/ }))
  await expect(ines.getByRole('button', { name: /^Take back what Noor/ })).toBeVisible()
  await noor.getByRole('link', { name: 'What came back' }).tap()
  await expect(noor.getByRole('img', { name: 'Your frame 1, with what your teacher drew on it' })).toBeVisible()
  const grid = noor.getByRole('list', { name: 'By criteria' })
  await expect(grid.getByRole('listitem')).toHaveCount(2)
  await expect(grid).toContainText(/Says why.*Secure.*Gives a reason that holds\./)
  await expect(noor.getByText('Beginning')).toHaveCount(0)
  const heard = await noor.locator('audio').evaluate(async (audio: HTMLAudioElement) => {
    const reply = await fetch(audio.src)
    return { status: reply.status, type: reply.headers.get('Content-Type'), bytes: (await reply.blob()).size }
  })
  expect(heard).toMatchObject({ status: 200, type: 'audio/wav' })
  expect(heard.bytes).toBeGreaterThan(4000)
  await accessible(noor)
})
