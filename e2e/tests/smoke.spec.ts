// The shortest lesson that goes through everything: make quick runs this one alone.
import { expect, test } from '@playwright/test'
import { lesson, part } from '../support/frame'
import { addNote, saved } from '../support/people'
import { demo } from '../support/demo'

const server = demo()

test('a lesson from its start to its record', async ({ browser }) => {
  const { teacher, students } = await lesson(browser, server.url, 'Noor')
  const noor = students[0]!
  await addNote(noor, 'high tide comes twice')
  await expect(part(teacher, "Noor's note: high tide comes twice")).toBeVisible()
  await part(teacher, /Lead everybody to frame 3/).click()
  await noor.getByRole('radio', { name: '29.53 days' }).check()
  await saved(noor)
  await expect(teacher.getByText('1 of 1 answered')).toBeVisible()
  await teacher.getByRole('button', { name: 'Show the right answer' }).click()
  await expect(noor.getByText('Your answer is right.')).toBeVisible()
  await teacher.getByRole('button', { name: 'Finish' }).click()
  await teacher.getByRole('button', { name: 'Finish and open the record' }).click()
  await expect(noor.getByRole('heading', { name: 'The lesson has ended' })).toBeVisible()
  await expect(teacher.getByRole('heading', { name: 'Record: Moon and tides' })).toBeVisible()
  await expect(teacher.getByText('high tide comes twice').first()).toBeVisible()
})
