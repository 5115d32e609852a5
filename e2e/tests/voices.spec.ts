import { expect, test, type Page } from '@playwright/test'
import { lesson } from '../support/frame'
import { accessible, device, join, phone } from '../support/people'
import { demo } from '../support/demo'

const server = demo()

test('help: the longest waiting first, and a word back; done is one tap', async ({ browser }) => {
  const { teacher, code, students } = await lesson(browser, server.url, 'Ada')
  const [ada] = students as [Page]
  const bo = await device(browser, server.url, phone)
  await join(bo, code, 'Bo')
  await ada.getByRole('button', { name: 'I need help' }).click()
  await expect(ada.getByText('Your teacher sees that you need help.')).toBeVisible()
  await bo.getByRole('button', { name: 'I need help' }).click()
  const help = teacher.locator('[data-part=help]')
  await expect(help.getByRole('heading', { name: '2 need help' })).toBeVisible()
  await expect(help.getByRole('listitem').first()).toContainText('Ada')
  await accessible(teacher)
  await accessible(bo)
  await help.getByRole('button', { name: 'Tell Bo: I am coming' }).focus()
  await teacher.keyboard.press('Enter')
  await expect(bo.getByText('“I am coming”, says your teacher.')).toBeVisible()
  await expect(ada.getByText('I am coming')).toHaveCount(0)
  await help.getByRole('button', { name: 'Bo was helped' }).click()
  await expect(bo.getByText('I am coming')).toHaveCount(0)
  await ada.getByRole('button', { name: 'I need help' }).click() // it goes without
  await expect(help.getByRole('heading')).toHaveCount(0)
  await bo.getByRole('button', { name: 'I am done' }).click()
  await expect(bo.getByRole('button', { name: 'I am done', pressed: true })).toBeVisible()
  await expect(
    teacher.getByRole('listitem').filter({ hasText: 'Bo' }).getByLabel('done', { exact: true }),
  ).toBeVisible()
})

test('questions: asked, agreed with, put in front, ticked off, hidden; names only where they are to be', async ({
  browser,
}) => {
  const { teacher, students } = await lesson(browser, server.url, 'Cem', 'Dia')
  const [cem, dia] = students as [Page, Page]
  const open = (page: Page) => page.getByRole('button', { name: 'Questions', exact: true }).click()
  await open(cem)
  await expect(cem.getByText('Only your teacher sees your question.')).toBeVisible()
  await cem.getByLabel('Ask a question').fill('Why are there two high tides?')
  await cem.getByRole('button', { name: 'Ask', exact: true }).click()
  await expect(cem.getByRole('listitem').filter({ hasText: 'Why are there two' })).toContainText('yours')
  await expect(teacher.getByRole('tab', { name: 'Questions 1' })).toBeVisible()
  await open(dia)
  await expect(dia.getByText('Why are there two')).toHaveCount(0)
  await teacher.getByRole('tab', { name: /Questions/ }).click()
  await teacher.getByLabel('The class sees questions').check()
  await dia.getByRole('button', { name: 'I would ask this too: Why are there two high tides?' }).click()
  const asked = teacher.locator('[data-part=class-questions]').getByRole('listitem')
  await expect(asked.filter({ hasText: 'Why are there two' }).getByLabel('1 more would ask this')).toBeVisible()
  await expect(dia.getByRole('listitem').filter({ hasText: 'Why are there two' })).not.toContainText('Cem')
  await teacher.getByLabel('with names').check()
  await expect(dia.getByRole('listitem').filter({ hasText: 'Why are there two' })).toContainText('Cem')
  await accessible(teacher)
  await accessible(dia)
  for (let i = 0; i < 4; i++) {
    await cem.getByLabel('Ask a question').fill(`And ${i}?`)
    await cem.getByLabel('Ask a question').press('Tab')
    await cem.keyboard.press('Enter')
    await expect(cem.getByRole('listitem').filter({ hasText: `And ${i}?` })).toBeVisible()
  }
  await cem.getByLabel('Ask a question').fill('One too many?')
  await cem.getByRole('button', { name: 'Ask', exact: true }).click()
  await expect(cem.getByText('Wait until your questions are answered')).toBeVisible()
  // The one with which most agree stands first, goes to the front, and is ticked off.
  await expect(asked.first()).toContainText('Why are there two')
  await asked
    .first()
    .getByRole('button', { name: /Show on the front screen/ })
    .click()
  await expect(teacher.getByRole('textbox', { name: 'Words for the front screen' })).toHaveValue(
    'Why are there two high tides?',
  )
  await teacher.getByRole('button', { name: 'Show this' }).click()
  await teacher.getByRole('button', { name: 'Answered: Why are there two high tides?' }).click()
  await expect(asked.filter({ hasText: 'Why are there two' })).toHaveCount(0)
  await expect(dia.getByRole('listitem').filter({ hasText: 'Why are there two' })).toContainText('answered')
  await teacher.getByRole('button', { name: 'Hide from the class: And 0?' }).click()
  await expect(dia.getByText('And 0?')).toHaveCount(0)
  await expect(cem.getByText('And 0?')).toBeVisible()
})
