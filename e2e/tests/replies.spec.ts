import { expect, test, type Page } from '@playwright/test'
import { lesson } from '../support/frame'
import { accessible, addNote, device, join, phone, saved } from '../support/people'
import { demo } from '../support/demo'

const server = demo()

test('replies: under a note, on a frame and on a phone, agreed with, hidden, in the record', async ({ browser }) => {
  const { teacher, code, students } = await lesson(browser, server.url, 'Ada', 'Bo')
  const [ada, bo] = students as [Page, Page]
  await addNote(ada, 'There are two high tides')
  const change = teacher.getByRole('button', { name: 'Change who shares this frame and what students do' })
  await change.click()
  await teacher.getByLabel('Notes may be answered').check()
  await teacher.keyboard.press('Escape')
  // On the frame: the note is selected with the keyboard, the reply is written beside it.
  const note = bo.getByRole('button', { name: "Ada's note: There are two high tides" })
  await note.focus()
  await bo.keyboard.press('Enter')
  const beside = bo.getByRole('region', { name: 'Replies' })
  await beside.getByLabel('Write a reply').fill('Why not one?')
  await beside.getByRole('button', { name: 'Reply', exact: true }).click()
  await expect(ada.getByRole('button', { name: 'Your note: There are two high tides, 1 reply' })).toBeVisible()
  await accessible(bo)
  await ada.getByRole('button', { name: /^Your note: There are two/ }).click()
  await ada.getByRole('button', { name: 'I agree: Why not one?' }).click()
  await expect(beside.getByText('1 agrees')).toBeVisible()
  // On a phone, where the notes stand in columns, it is read under its note.
  await change.click()
  await teacher.getByText('In columns', { exact: true }).click()
  await teacher.keyboard.press('Escape')
  const cem = await device(browser, server.url, phone)
  await join(cem, code, 'Cem')
  await cem.getByRole('button', { name: 'Replies · 1' }).click()
  await expect(cem.getByText('Why not one?')).toBeVisible()
  await cem.getByLabel('Write a reply').fill('Because of the Moon')
  await cem.getByRole('button', { name: 'Reply', exact: true }).click()
  await expect(cem.getByRole('button', { name: 'Replies · 2' })).toBeVisible()
  await accessible(cem)
  await saved(cem)
  // The teacher hides one: it leaves everybody's sight.
  await teacher.getByRole('button', { name: "Ada's note: There are two high tides, 2 replies" }).click()
  await teacher.getByRole('button', { name: 'Hide from the class: Why not one?' }).click()
  await expect(cem.getByText('Why not one?')).toHaveCount(0)
  await accessible(teacher)
  // The record says what it answers.
  const session = new URL(teacher.url()).pathname.split('/').pop()!
  const csv = await teacher.request.get(`/api/sessions/${session}/record.csv`)
  expect(await csv.text()).toMatch(/"Cem".*"reply","Because of the Moon".*"There are two high tides"/)
})

test('stacks: notes that say the same become one with a count, on every screen, and come apart again', async ({
  browser,
}) => {
  const { teacher, code, students } = await lesson(browser, server.url, 'Dia', 'Eli', 'Finn')
  for (const [i, page] of students.entries()) await addNote(page, ['two a day', 'twice a day', 'it is the Moon'][i]!)
  const [dia, eli] = students as [Page, Page]
  const note = (page: Page, name: RegExp | string) => page.getByRole('button', { name })
  // With the keyboard alone: one is selected, the other added to it.
  await note(teacher, "Dia's note: two a day").focus()
  await teacher.keyboard.press('Space')
  await note(teacher, "Eli's note: twice a day").focus()
  await teacher.keyboard.press('Shift+Space')
  await teacher.getByRole('button', { name: 'Make one stack' }).click()
  await expect(note(eli, "Dia's note: two a day, 2 in this stack")).toBeVisible()
  await expect(note(eli, 'Your note: twice a day')).toHaveCount(0)
  await note(dia, /Your note: two a day/).click()
  const beside = dia.getByRole('region', { name: '2 notes in this stack' })
  await expect(beside.getByText('twice a day')).toBeVisible()
  await expect(beside.getByText('Eli')).toBeVisible()
  await expect(beside.getByRole('button')).toHaveCount(0)
  await accessible(dia)
  // In columns on a phone, the others who say the same are named.
  await teacher.getByRole('button', { name: 'Change who shares this frame and what students do' }).click()
  await teacher.getByText('In columns', { exact: true }).click()
  await teacher.keyboard.press('Escape')
  const cem = await device(browser, server.url, phone)
  await join(cem, code, 'Cem')
  await expect(cem.getByText('Also: Eli')).toBeVisible()
  await note(teacher, /Dia's note: two a day/).click()
  await accessible(teacher)
  await teacher.getByRole('button', { name: 'Take apart' }).click()
  await expect(note(eli, 'Your note: twice a day')).toBeVisible()
  await teacher.getByRole('button', { name: 'Undo', exact: true }).click()
  await expect(note(eli, "Dia's note: two a day, 2 in this stack")).toBeVisible()
})
