import { expect, test, type Page } from '@playwright/test'
import { lesson, part } from '../support/frame'
import { accessible, addNote, device, join, phone, saved } from '../support/people'
import { demo } from '../support/demo'

const server = demo()

const change = async (teacher: Page, item: string) => {
  await teacher.getByRole('button', { name: 'Change the lesson' }).click()
  await teacher.getByRole('menuitem', { name: item }).click()
}

test('a lesson changes while it runs: everybody has it, work stays, and its board takes it if it is to', async ({
  browser,
}) => {
  const { teacher, code, students } = await lesson(browser, server.url, 'Gil')
  const [gil] = students as [Page]
  await addNote(gil, 'kept')

  // Other words.
  await teacher.getByRole('button', { name: 'Change who shares this frame and what students do' }).click()
  await teacher.getByLabel('Task for students').fill('What is different from day to day?')
  await teacher.getByLabel('Task for students').blur()
  await expect(gil.getByText('What is different from day to day?').first()).toBeVisible()
  await expect(part(gil, 'Your note: kept')).toBeVisible()
  await accessible(teacher)
  await teacher.keyboard.press('Escape')

  // A question on the spot, with the keyboard alone, answered on a phone.
  const hana = await device(browser, server.url, phone)
  await join(hana, code, 'Hana')
  await teacher.getByRole('button', { name: 'Change the lesson' }).focus()
  await teacher.keyboard.press('Enter')
  await teacher.keyboard.press('Enter')
  await expect(teacher.getByRole('dialog', { name: 'Ask a question now' })).toBeVisible()
  await accessible(teacher)
  await teacher.keyboard.type('Is the Moon there by day, too?')
  await teacher.getByRole('button', { name: 'Yes · No · Not sure' }).focus()
  await teacher.keyboard.press('Enter')
  await teacher.getByLabel('Answer 3', { exact: true }).focus()
  await teacher.keyboard.press('Enter')
  for (const page of [gil, hana]) await expect(page.getByText('Is the Moon there by day, too?').first()).toBeVisible()
  await accessible(hana)
  await hana.getByText('Not sure', { exact: true }).click()
  await expect(teacher.getByText('1 of 2 answered')).toBeVisible()
  await expect(part(teacher, /^Frame 2: Is the Moon there by day, too\?/)).toHaveAttribute('aria-current', 'step')

  // Everything else is changed where boards are prepared, in another window.
  const opened = teacher.context().waitForEvent('page')
  await change(teacher, 'Frames, pictures and order…')
  const desk = await opened
  await expect(desk.getByText('This lesson is running.')).toBeVisible()
  await accessible(desk)
  // What the class has been on stays, and so does what was answered.
  await desk.getByRole('button', { name: 'Delete this frame' }).click()
  await expect(desk.getByText('The class has been on this frame, so it stays for this lesson.')).toBeVisible()
  await expect(desk.getByRole('option', { name: /^Frame \d/ })).toHaveCount(4)
  await desk.getByRole('option', { name: /^Frame 2:/ }).click()
  await desk
    .locator('[data-mark]')
    .first()
    .click({ position: { x: 30, y: 12 } })
  await desk.keyboard.press('Delete')
  await expect(desk.getByText('This poll has answers already.', { exact: false })).toBeVisible()
  await expect(desk.getByText('Not sure').first()).toBeVisible()
  // Written on the first frame, for the class that comes back there; the last frame comes earlier.
  await desk.getByRole('option', { name: /^Frame 1:/ }).click()
  await desk.getByRole('toolbar').getByRole('button', { name: 'Text', exact: true }).click()
  await desk.getByLabel('Write here').fill('Look at Wednesday')
  await desk.getByLabel('Write here').blur()
  await desk.getByRole('option', { name: /^Frame 4:/ }).click()
  await desk.keyboard.press('Alt+ArrowLeft')
  await saved(desk)
  await expect(part(teacher, /^Frame 3: From new moon to new moon/)).toBeVisible()
  await part(teacher, /Lead everybody to frame 1/).click()
  await expect(part(gil, 'Your note: kept')).toBeVisible()
  await expect(gil.getByText('Look at Wednesday')).toBeVisible()
  await desk.close()

  // Taken into the board one by one, during the lesson and afterwards.
  await change(teacher, 'What was changed…')
  const differ = teacher.getByRole('dialog', { name: 'What was changed in this lesson' })
  await expect(differ.getByRole('listitem')).toHaveCount(4)
  await accessible(teacher)
  await differ.getByRole('button', { name: /another title or task$/ }).click()
  await expect(differ.getByText('taken', { exact: true })).toHaveCount(1)
  await teacher.keyboard.press('Escape')
  await part(teacher, 'Finish').click()
  await teacher.getByRole('button', { name: 'Finish and open the record' }).click()
  await expect(teacher.getByRole('heading', { name: 'Record: Moon and tides' })).toBeVisible()
  await teacher.getByRole('button', { name: 'What was changed…' }).click()
  await expect(differ.getByRole('listitem')).toHaveCount(3)
  await differ.getByRole('button', { name: /a new frame$/ }).click()
  await expect(differ.getByText('taken', { exact: true })).toHaveCount(1)
  await teacher.goto('/boards')
  await teacher.getByRole('link', { name: 'Prepare Moon and tides' }).click()
  await expect(teacher.getByLabel('Task for students')).toHaveValue('What is different from day to day?')
  await expect(teacher.getByRole('option', { name: /^Frame \d/ })).toHaveCount(4)
  await expect(teacher.getByRole('option', { name: /^Frame 2: Is the Moon there by day, too\?/ })).toBeVisible()
  await expect(teacher.getByRole('option', { name: /^Frame 3: Where is the Moon\?/ })).toBeVisible()
})
