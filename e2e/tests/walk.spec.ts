import { expect, test, type Page } from '@playwright/test'
import { crowd } from '../support/crowd'
import { demo } from '../support/demo'
import { lesson } from '../support/frame'
import { accessible, addNote, device, join, phone, press } from '../support/people'

const server = demo()

/** Opens what may be done about somebody. */
const about = (teacher: Page, name: string) => press(teacher.getByRole('button', { name: `More about ${name}` }))

test('a gallery walk on all devices: led, with words for whose work it is; by themselves, with a sign', async ({
  browser,
}) => {
  test.setTimeout(240_000)
  const { teacher, code, students } = await lesson(browser, server.url, 'Ada', 'Bo')
  const [ada, bo] = students as [Page, Page]
  const cem = await device(browser, server.url, phone)
  await join(cem, code, 'Cem')
  crowd(server.url, code, 25)
  await press(teacher.getByRole('button', { name: /Lead everybody to frame 2/ }))
  for (const page of [ada, bo, cem])
    await expect(page.getByRole('heading', { name: 'Where is the Moon?' })).toBeVisible()
  await addNote(ada, 'above the sea')
  await addNote(bo, 'behind the Earth')
  const tick = (name: string) => teacher.getByRole('checkbox', { name: `Put ${name} side by side with others` })
  for (const name of ['Ada', 'Bo']) await press(tick(name), ' ')
  await press(teacher.getByRole('button', { name: 'Gallery walk' }))
  const bar = teacher.locator('[data-part=gallery]')
  await expect(bar).toContainText('In front, 1 of 2: Ada')

  // On all devices: who is led sees the same, and says something.
  await press(bar.getByRole('button', { name: 'In front only' }))
  const choices = teacher.getByRole('dialog', { name: 'Where the class sees it' })
  await press(choices.getByRole('radio', { name: 'On all devices' }), ' ')
  const walk = (page: Page) => page.locator('[data-part=walk]')
  await expect(walk(cem)).toContainText('Work of Ada')
  await expect(walk(ada)).toContainText('Your own work')
  await expect(cem.getByLabel('Say something about it')).toHaveCount(0)
  await press(choices.getByRole('switch', { name: 'Students may say something' }), ' ')
  await accessible(teacher)
  await teacher.keyboard.press('Escape')
  await expect(cem.getByRole('listitem').filter({ hasText: 'above the sea' })).toBeVisible()
  await cem.getByLabel('Say something about it').fill('Why above?')
  await cem.getByLabel('Say something about it').press('Enter')
  await expect(walk(cem)).toContainText('Why above?')
  await expect(walk(bo)).toContainText('Why above?')
  await expect(walk(ada)).toContainText('Why above?')
  await expect(ada.getByLabel('Say something about it')).toHaveCount(0)
  await accessible(cem)
  await accessible(ada)

  // What waits for a yes waits here, too; and the word goes to whose work it is.
  await teacher.keyboard.press('Alt+l')
  await press(teacher.getByRole('menuitemcheckbox', { name: 'what is written anywhere' }))
  await teacher.keyboard.press('Escape')
  await bo.getByLabel('Say something about it').fill('No, below')
  await press(bo.getByRole('button', { name: 'Say it' }))
  await expect(walk(bo)).toContainText('waits for a yes')
  await expect(walk(cem)).not.toContainText('No, below')
  await teacher.keyboard.press('PageDown')
  await expect(bar).toContainText('On all screens, 2 of 2: Bo')
  await expect(walk(cem)).toContainText('Work of Bo')
  await expect(walk(cem)).not.toContainText('Why above?')

  // By themselves: each begins at another stop than their own.
  await press(bar.getByRole('button', { name: 'On all devices' }))
  await press(choices.getByRole('radio', { name: 'Students walk by themselves' }), ' ')
  await expect(bar).toContainText('The class walks by itself, 2 stops')
  await teacher.keyboard.press('Escape')
  await expect(walk(ada)).toContainText('Work of Bo')
  await expect(walk(bo)).toContainText('Work of Ada')
  await press(walk(bo).getByRole('button', { name: 'Next' }))
  await expect(walk(bo)).toContainText('Your own work')
  await accessible(bo)

  // Each idea once: those of the class's frames that say something of their own.
  await press(bar.getByRole('button', { name: 'Each idea once' }))
  await expect(bar).toContainText(/walks by itself, \d+ stops?/)
  await press(bar.getByRole('button', { name: 'End' }))
  await expect(bar).toHaveCount(0)
  await expect(walk(ada)).toHaveCount(0)
  const said = ada.locator('[data-part=remarked]')
  await expect(said).toContainText('What others say about your work (1)')
  await said.locator('summary').click()
  await expect(said).toContainText('Why above?')
  await expect(said).toContainText('Cem')
  await press(teacher.getByRole('button', { name: /^Open Ada's frame large/ }))
  await expect(teacher.getByRole('dialog', { name: "Ada's frame" })).toContainText('Why above?')
  await expect(teacher.getByRole('dialog', { name: "Ada's frame" })).toContainText('No, below')
  await accessible(teacher)
})

test('one student: only looks for a while, another group, another name, out; names looked at; what happened', async ({
  browser,
}) => {
  const { teacher, code, students } = await lesson(browser, server.url, 'Ada', 'Bo')
  const [ada, bo] = students as [Page, Page]
  await about(teacher, 'Ada')
  await press(teacher.getByRole('menuitem', { name: 'Let Ada only look' }))
  await press(teacher.getByRole('menuitem', { name: '2 minutes' }))
  await expect(ada.getByText('Only looking now').first()).toBeVisible()
  await expect(bo.getByText('Only looking now')).toHaveCount(0)
  await about(teacher, 'Ada')
  await press(teacher.getByRole('menuitem', { name: 'Let Ada work again' }))
  await expect(ada.getByText('Only looking now')).toHaveCount(0)

  await addNote(bo, 'Sharks do it')
  await teacher.getByRole('button', { name: /^Bo's note/ }).click()
  await press(teacher.getByRole('button', { name: 'Hide from class' }))
  await expect(bo.getByText('Sharks do it')).toHaveCount(0)

  // The teacher alone looks at another frame; the class stays where it is.
  await press(teacher.getByRole('tab', { name: "Everyone's work" }))
  await teacher.getByLabel('Frame shown').selectOption({ index: 1 })
  await expect(teacher.getByText('You look at frame 2. The class is on frame 1.')).toBeVisible()
  await expect(teacher.getByRole('button', { name: /^Open Ada's frame large\. nothing yet/ })).toBeVisible()
  await expect(bo.getByRole('heading', { name: 'What do you notice?' })).toBeVisible()
  await accessible(teacher)
  await press(teacher.getByRole('button', { name: 'Back to the class' }))
  await expect(teacher.getByText('You look at frame 2.')).toHaveCount(0)

  await about(teacher, 'Bo')
  await press(teacher.getByRole('menuitem', { name: 'Rename Bo' }))
  await teacher.getByLabel('Name', { exact: true }).fill('Bodo')
  await accessible(teacher)
  await teacher.keyboard.press('Enter')
  await expect(teacher.getByRole('dialog')).toHaveCount(0)
  await expect(bo.getByText('Bodo').first()).toBeVisible()

  // The door: doubtful names wait, with the reason; who is sent out stays out.
  await teacher.getByRole('button', { name: /^Join code/ }).click()
  await teacher.getByLabel('Names').selectOption({ label: 'I look at doubtful names first' })
  await accessible(teacher)
  await teacher.keyboard.press('Escape')
  const second = await device(browser, server.url, phone)
  await second.goto(`/join/${code.replace(' ', '')}`)
  await second.getByLabel('Your name').fill('Ada')
  await second.getByRole('button', { name: 'Join', exact: true }).click()
  await expect(second.getByRole('alert').filter({ hasText: 'looks at this name first' })).toBeVisible()
  await second.getByRole('button', { name: 'Knock', exact: true }).click()
  await expect(teacher.locator('[data-part=door]')).toContainText('somebody is in by this name')
  await about(teacher, 'Bodo')
  await press(teacher.getByRole('menuitem', { name: 'Send Bodo out' }))
  await expect(bo.getByRole('heading', { name: 'You are not in a lesson' })).toBeVisible()
  await bo.goto(`/join/${code.replace(' ', '')}`)
  await bo.getByLabel('Your name').fill('Zoe')
  await bo.getByRole('button', { name: 'Join', exact: true }).click()
  await expect(bo.getByRole('alert').filter({ hasText: 'took your place' })).toBeVisible()

  await press(teacher.getByRole('tab', { name: 'What happened' }))
  const line = teacher.locator('[data-part=line]')
  for (const words of ['Only look: Ada', 'Bodo sent out', '1 thing hidden, of Bodo'])
    await expect(line).toContainText(words)
  await accessible(teacher)
  await line.getByLabel('Show').selectOption({ label: 'what I did to students’ work' })
  await expect(line).not.toContainText('Only look: Ada')
})

test('notes become a question with two taps: put in order, counted as points, kept in the record', async ({
  browser,
}) => {
  const { teacher, students } = await lesson(browser, server.url, 'Ada', 'Bo')
  const [ada, bo] = students as [Page, Page]
  await addNote(ada, 'the Moon')
  await addNote(bo, 'the Sun')
  await addNote(bo, 'the wind')
  await expect(teacher.getByText('the wind')).toBeVisible()
  await press(teacher.getByRole('button', { name: 'Ask …' }))
  await press(teacher.getByRole('menuitem', { name: 'Put 3 notes in order' }))
  const question = (page: Page) => page.getByRole('group', { name: /What comes first for you\?/ })
  await expect(question(ada)).toBeVisible()
  // With keys: the focus stays with what is moved.
  await press(question(ada).getByRole('button', { name: 'Down: the Moon' }))
  await expect(question(ada).getByRole('button', { name: 'Down: the Moon' })).toBeFocused()
  await accessible(ada)
  await press(question(ada).getByRole('button', { name: 'That is my order' }))
  await press(question(bo).getByRole('button', { name: 'That is my order' }))
  await expect(question(ada).getByText('Your answer is saved.')).toBeVisible()
  const points = (text: string) => question(teacher).getByRole('listitem').filter({ hasText: text })
  await expect(points('the Moon')).toContainText('3 points')
  await expect(points('the Sun')).toContainText('3 points')
  await expect(points('the wind')).toContainText('0 points')
  await accessible(teacher)
  // Before and after, in front; what is hidden since is not there either.
  await press(teacher.getByRole('button', { name: /Lead everybody to frame 1/ }))
  const front = await device(browser, server.url)
  await front.context().addCookies(await teacher.context().cookies())
  await front.goto(`/front/${new URL(teacher.url()).pathname.split('/').pop()!}`)
  await press(teacher.getByRole('button', { name: 'History …' }))
  const moment = teacher.getByRole('slider', { name: 'Moment' })
  await moment.focus()
  for (const key of ['Home', 'ArrowRight', 'ArrowRight']) await moment.press(key)
  await press(teacher.getByRole('button', { name: 'Show before and after in front' }))
  await expect(teacher.getByRole('dialog')).toHaveCount(0)
  const [before, now] = [front.getByRole('listitem').first(), front.getByRole('listitem').nth(1)]
  await expect(before).toContainText(/Before, \d/)
  await expect(before).toContainText('the Moon')
  await expect(before).not.toContainText('the wind')
  await expect(now).toContainText('the wind')
  await accessible(front)
  await teacher.getByRole('button', { name: /note: the Moon/ }).click()
  await press(teacher.getByRole('button', { name: 'Hide from class' }))
  await expect(before).not.toContainText('the Moon')
  await expect(now).not.toContainText('the Moon')

  await teacher.getByRole('button', { name: 'Finish' }).click()
  await teacher
    .getByRole('dialog')
    .getByRole('button', { name: /Finish/ })
    .click()
  await expect(teacher).toHaveURL(/\/records\//)
  await expect(teacher.getByRole('heading', { name: 'What happened' })).toBeVisible()
  await expect(teacher.getByText('End of the lesson')).toBeVisible()
  await expect(teacher.getByText('1. the Sun, 2. the Moon, 3. the wind').first()).toBeVisible()
  await accessible(teacher)
})
