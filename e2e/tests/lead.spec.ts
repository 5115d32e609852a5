import { expect, test, type Page } from '@playwright/test'
import { lesson } from '../support/frame'
import { accessible, device, join, phone, saved, signIn } from '../support/people'
import { demo } from '../support/demo'

const server = demo()

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

test('a closed door: who comes late knocks, and is let in one by one, sent away, or all at once', async ({
  browser,
}) => {
  const { teacher, code } = await lesson(browser, server.url, 'Ada')
  await teacher.getByRole('button', { name: /^Join code/ }).click()
  await teacher.getByText('I let in each one', { exact: true }).click()
  await teacher.keyboard.press('Escape')
  async function knock(name: string) {
    const page = await device(browser, server.url, phone)
    await page.goto(`/join/${code.replace(' ', '')}`)
    await page.getByLabel('Your name').fill(name)
    await page.getByRole('button', { name: 'Join', exact: true }).click()
    await expect(page.getByRole('alert').filter({ hasText: 'Nobody new can come in now' })).toBeVisible()
    await page.getByRole('button', { name: 'Knock', exact: true }).click()
    await expect(page.getByText(`You have knocked, ${name}.`)).toBeVisible()
    return page
  }
  const long = 'Maximiliane-Theodora van den Bergen-Oduya'.slice(0, 40)
  const [bo, cem, dia] = [await knock('Bo'), await knock('Cem'), await knock(long)]
  await accessible(bo)
  const door = teacher.locator('[data-part=door]')
  await expect(door.getByRole('heading', { name: '3 at the door' })).toBeVisible()
  await accessible(teacher)
  // One is let in, with the keyboard, one is not, and may knock again.
  await door.getByRole('button', { name: 'Let Bo in' }).focus()
  await teacher.keyboard.press('Enter')
  await expect(bo).toHaveURL(/\/lesson\//)
  await saved(bo)
  await door.getByRole('button', { name: 'Not now: Cem' }).click()
  await expect(cem.getByRole('alert').filter({ hasText: 'You were not let in' })).toBeVisible()
  await cem.getByRole('button', { name: 'Knock', exact: true }).click()
  await expect(door.getByRole('button', { name: 'Let Cem in' })).toBeVisible()
  await door.getByRole('button', { name: 'Let all in' }).click()
  for (const page of [cem, dia]) await expect(page).toHaveURL(/\/lesson\//)
  await expect(door.getByRole('heading')).toHaveCount(0)
})

test("the teacher's second device: taken up where the lesson stands, and in step", async ({ browser }) => {
  const { teacher, students } = await lesson(browser, server.url, 'Eli')
  const [eli] = students as [Page]
  await teacher.getByRole('button', { name: /Lead everybody to frame 2/ }).click()
  await teacher.getByRole('button', { name: 'Pause', exact: true }).click()
  const at = new URL(teacher.url()).pathname
  const second = await device(browser, server.url)
  await signIn(second)
  await second.locator(`a[href="${at}"]`).first().click()
  await expect(second.getByRole('button', { name: 'Go on', exact: true })).toBeVisible()
  await expect(second.getByRole('button', { name: 'Where is the Moon?', exact: false }).first()).toBeVisible()
  // The first one is lost; the second goes on.
  await teacher.context().setOffline(true)
  await teacher.evaluate(() => dispatchEvent(new Event('offline')))
  await second.getByRole('button', { name: 'Go on', exact: true }).click()
  await expect(eli.getByRole('heading', { name: 'Your screen rests' })).toHaveCount(0)
  await second.keyboard.press('Alt+l')
  await second.getByRole('menuitemcheckbox', { name: 'all frames' }).click()
  await expect(eli.getByText('Only looking now').first()).toBeVisible()
  // What is pressed without network does not happen, and says so; back, both show the same.
  await teacher.getByRole('button', { name: 'Go on', exact: true }).click()
  await expect(teacher.getByText('Without network this cannot be done now.')).toBeVisible()
  await teacher.context().setOffline(false)
  await expect(teacher.getByRole('button', { name: 'Locked: students only look here' })).toBeVisible({
    timeout: 30_000,
  })
  await expect(teacher.getByRole('button', { name: 'Pause', exact: true })).toBeVisible()
})
