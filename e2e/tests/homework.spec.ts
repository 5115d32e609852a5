import { expect, test } from '@playwright/test'
import { demo } from '../support/demo'
import { lesson } from '../support/frame'
import { accessible, addNote, device, join, phone, saved } from '../support/people'

const house = demo()

/** A moment as a field for days and times takes it, some minutes from now. */
const inMinutes = (minutes: number) => {
  const at = new Date(Date.now() + minutes * 60_000)
  const two = (n: number) => String(n).padStart(2, '0')
  return `${at.getFullYear()}-${two(at.getMonth() + 1)}-${two(at.getDate())}T${two(at.getHours())}:${two(at.getMinutes())}`
}

test('homework: left open until a date, handed in and taken back on a phone, reminded, more time for one, taken up again', async ({
  browser,
}) => {
  test.setTimeout(180_000)
  const { teacher, code, students } = await lesson(browser, house.url, 'Noor')
  const [noor] = students
  const vera = await device(browser, house.url, phone)
  await join(vera, code, 'Vera')

  await teacher.getByRole('button', { name: 'Homework…' }).click()
  const window = teacher.getByRole('dialog', { name: 'Homework' })
  await window.getByLabel('Until').fill('2020-01-01T10:00')
  await window.getByRole('button', { name: 'Leave it open' }).click()
  await expect(window.getByRole('alert').filter({ hasText: 'still to come' })).toBeVisible()
  await window.getByLabel('Until').fill(inMinutes(600))
  await window.getByRole('button', { name: 'Leave it open' }).click()
  await expect(window.getByRole('heading', { name: '0 of 2 students have handed in' })).toBeVisible()
  await accessible(teacher)

  // Each at their own pace; handing in keeps the work as it is until it is taken back.
  await expect(vera.getByRole('region', { name: 'Homework' })).toContainText('Homework until')
  await addNote(noor!, 'high tide at six')
  await vera.getByRole('button', { name: 'Hand in' }).click()
  await expect(vera.getByRole('region', { name: 'Homework' })).toContainText('Handed in')
  await expect(vera.getByRole('button', { name: 'Note', exact: true })).toHaveCount(0)
  await accessible(vera)
  await expect(window.getByText('1 of 2 students have handed in')).toBeVisible()
  await expect(window.getByRole('listitem').filter({ hasText: 'Noor' })).toContainText('at work; something on 1 frame')
  await vera.getByRole('button', { name: 'Take it back' }).click()
  await expect(vera.getByRole('button', { name: 'Hand in' })).toBeVisible()
  await vera.getByRole('button', { name: 'Hand in' }).click()

  // Who has not is reminded, and learns of it when they come back; one has more time.
  await noor!.goto('/')
  await window.getByRole('button', { name: 'Remind the one who has not' }).click()
  await expect(window.getByText('1 student was reminded.')).toBeVisible()
  await window.getByRole('button', { name: 'More time for Noor' }).click()
  const longer = teacher.getByRole('dialog', { name: 'More time for Noor' })
  await longer.getByLabel('Until').fill(inMinutes(5000))
  await longer.getByRole('button', { name: 'Give this time' }).click()
  await expect(window.getByRole('listitem').filter({ hasText: 'Noor' })).toContainText('Homework until')
  await noor!.goBack()
  await saved(noor!)
  await expect(noor!.getByText('Please remember your homework')).toBeVisible()

  // It is in the list of lessons with its date, and no lesson that was forgotten.
  await teacher.keyboard.press('Escape')
  await teacher.goto('/boards')
  await expect(teacher.getByText(/^Homework until/).first()).toBeVisible()
  await teacher.goBack()

  // Ended, it is taken up again another day: the same people, the same work, as homework.
  await teacher.getByRole('button', { name: 'Finish', exact: true }).click()
  await teacher.getByRole('button', { name: 'Finish and open the record' }).click()
  await expect(noor!.getByRole('heading', { name: /lesson is over|has ended/i })).toBeVisible()
  await teacher.getByRole('button', { name: 'Take up again…' }).click()
  await teacher.getByRole('button', { name: 'Leave it open' }).click()
  await expect(teacher.getByRole('button', { name: /^Homework until/ })).toBeVisible()
  await expect(noor!.getByRole('region', { name: 'Homework' })).toBeVisible()
  await expect(noor!.getByRole('button', { name: 'Your note: high tide at six' })).toBeVisible()
  await noor!.getByRole('button', { name: 'Hand in' }).click()
  await expect(noor!.getByRole('region', { name: 'Homework' })).toContainText('Handed in')
  await teacher.getByRole('button', { name: 'Finish', exact: true }).click()
  await teacher.getByRole('button', { name: 'Finish and open the record' }).click()
  await expect(teacher.getByLabel('On 2 days:')).toBeVisible()
  await teacher.getByLabel('On 2 days:').selectOption({ index: 2 })
  await accessible(teacher)

  // Searched for, what a student wrote leads there.
  await teacher.goto('/boards')
  await teacher.getByLabel('Search boards, lessons and what students wrote').fill('HIGH tide at s')
  const found = teacher.getByRole('link', { name: 'high tide at six' })
  await expect(found).toBeVisible()
  await accessible(teacher)
  await found.click()
  await expect(teacher.getByText('high tide at six')).toBeInViewport()
})
