import { expect, test, type Page } from '@playwright/test'
import { lesson } from '../support/frame'
import { accessible, device, join, saved } from '../support/people'
import { DemoServer } from '../support/server'

let server: DemoServer
test.beforeAll(async () => {
  server = await DemoServer.start()
})
test.afterAll(() => server?.remove())

test('a pause: every screen rests at once, what was begun is kept, late ones rest too, all go on', async ({
  browser,
}) => {
  const { teacher, code, students } = await lesson(browser, server.url, 'Ada')
  const [ada] = students as [Page]
  await ada.getByRole('button', { name: 'Note', exact: true }).click()
  await ada.getByLabel('Write here').fill('half a thou')
  const began = Date.now()
  await teacher.getByRole('button', { name: 'Pause', exact: true }).click()
  await expect(ada.getByRole('heading', { name: 'Your screen rests' })).toBeVisible()
  console.log(`a pause is seen after ${Date.now() - began} ms`)
  await accessible(ada)
  // The keyboard reaches nothing that lies under it; what was being written has arrived.
  await ada.keyboard.press('Tab')
  await ada.keyboard.press('n')
  await expect(ada.getByLabel('Write here')).toHaveCount(0)
  await expect(teacher.getByRole('button', { name: "Ada's note: half a thou" })).toBeVisible()
  const late = await device(browser, server.url)
  await join(late, code, 'Bo')
  await expect(late.getByRole('heading', { name: 'Your screen rests' })).toBeVisible()
  await accessible(teacher)
  await teacher.getByRole('button', { name: 'Go on', exact: true }).click()
  for (const page of [ada, late]) await expect(page.getByRole('heading', { name: 'Your screen rests' })).toHaveCount(0)
  await saved(ada)
})
