import { expect, test, type Page } from '@playwright/test'
import { lesson } from '../support/frame'
import { accessible, addNote, desk, device, saved } from '../support/people'
import { demo } from '../support/demo'

const server = demo()

const shows = (page: Page, kind: string) => expect(page.locator(`[data-part=front][data-shows=${kind}]`)).toBeVisible()

/** Chooses something in the panel, looks at the picture of what will be seen, and shows it. */
async function show(teacher: Page, kind: string, more?: () => Promise<void>) {
  await teacher.keyboard.press('Alt+f')
  const panel = teacher.getByRole('dialog', { name: 'On the front screen' })
  await panel.getByRole('radio', { name: kind }).check()
  await more?.()
  await expect(panel.getByRole('img', { name: 'This will be seen' })).toBeVisible()
  const tapped = panel.getByRole('button', { name: 'Show this' }).evaluate((button: HTMLElement) => {
    button.click()
    return Date.now()
  })
  await expect(panel).toHaveCount(0)
  return tapped
}

/** When the front screen next shows something else. */
const changes = (screen: Page) =>
  screen.evaluate(
    () =>
      new Promise<number>((resolve) => {
        const before = document.querySelector<HTMLElement>('[data-part=front]')?.dataset.shows
        new MutationObserver((_, watch) => {
          if (document.querySelector<HTMLElement>('[data-part=front]')?.dataset.shows === before) return
          watch.disconnect()
          requestAnimationFrame(() => resolve(Date.now()))
        }).observe(document.body, { subtree: true, childList: true, attributes: true })
      }),
  )

test('the front screen: by a code, what the teacher chooses and no more, two alike, back by itself', async ({
  browser,
}) => {
  const { teacher, code, students } = await lesson(browser, server.url, 'Ada', 'Bo')
  const [ada, bo] = students as [Page, Page]
  const screen = await device(browser, server.url)
  await screen.goto('/front')
  const four = screen.locator('[data-part=front-code]')
  await expect(four).toHaveText(/^\w{4}$/)
  await accessible(screen)
  await teacher.keyboard.press('Alt+f')
  await teacher.getByLabel('Code of another screen').fill('2222')
  await teacher.getByRole('button', { name: 'Connect' }).click()
  await expect(teacher.getByText('No screen waits with this code')).toBeVisible()
  await teacher.getByLabel('Code of another screen').fill((await four.innerText()).toLowerCase())
  await teacher.keyboard.press('Enter')
  await expect(teacher.getByText('Connected. It shows the lesson now.')).toBeVisible()
  await accessible(teacher)
  await teacher.keyboard.press('Escape')

  // Gathering: the code as large as it can be, who is in, the first task.
  await shows(screen, 'gathering')
  await expect(screen.getByText(code)).toBeVisible()
  for (const name of ['Ada', 'Bo']) await expect(screen.getByRole('listitem').filter({ hasText: name })).toBeVisible()
  await expect(screen.getByRole('img', { name: /QR/ })).toBeVisible()
  await accessible(screen)
  const letters = await screen.getByText(code).evaluate((e) => parseFloat(getComputedStyle(e).fontSize))
  expect(letters).toBeGreaterThan(desk.height / 8)

  // The class's frame, live, on both screens; what is put away leaves it at once.
  const second = await device(browser, server.url)
  await second.context().addCookies(await teacher.context().cookies())
  const path = new URL(screen.url()).pathname
  await second.goto(path)
  const followed = changes(screen)
  const tapped = await show(teacher, "The class's frame, live")
  console.log(`the front screen follows after ${(await followed) - tapped} ms`)
  await shows(screen, 'frame')
  await addNote(ada, 'There are two high tides')
  for (const page of [screen, second]) await expect(page.getByText('There are two high tides')).toBeVisible()
  const note = teacher.getByRole('button', { name: "Ada's note: There are two high tides" })
  await note.click()
  await teacher.getByRole('button', { name: 'Hide from class' }).click()
  for (const page of [screen, second]) await expect(page.getByText('There are two high tides')).toHaveCount(0)
  await expect(screen.getByText(`Join at`)).toContainText(code)
  await accessible(screen)

  // Nothing on it can be reached but full screen.
  await screen.keyboard.press('Tab')
  await expect(screen.getByRole('button', { name: 'Full screen' })).toBeFocused()
  await screen.keyboard.press('Tab')
  expect(await screen.evaluate(() => document.activeElement === document.body)).toBe(true)

  // Words, and a student's own frame; another student's is not seen.
  await show(teacher, 'Words in large letters', () =>
    teacher.getByRole('textbox', { name: 'Words for the front screen' }).fill('Ebb and flood'),
  )
  await expect(screen.getByText('Ebb and flood')).toBeVisible()
  await teacher.getByRole('button', { name: /Where is the Moon/ }).click()
  await addNote(ada, 'behind the Earth')
  await addNote(bo, 'I do not know')
  await show(teacher, 'Frames of students, side by side', () =>
    teacher.getByRole('dialog').getByRole('checkbox', { name: 'Ada' }).check(),
  )
  await expect(screen.getByText('behind the Earth')).toBeVisible()
  await expect(screen.getByRole('heading', { name: 'Ada' })).toBeVisible()
  expect(await screen.content()).not.toContain('I do not know')

  // Without network it goes on showing, with a small sign, and comes back by itself.
  await screen.context().setOffline(true)
  await screen.evaluate(() => dispatchEvent(new Event('offline')))
  await expect(screen.getByLabel('No network at the moment')).toBeVisible()
  await screen.context().setOffline(false)
  await expect(screen.getByLabel('No network at the moment')).toHaveCount(0, { timeout: 30_000 })
  await show(teacher, 'Nothing')
  await shows(screen, 'nothing')
  await shows(second, 'nothing')

  // Taken off, the other computer shows no lesson; the teacher's own window does.
  await teacher.keyboard.press('Alt+f')
  await teacher.getByRole('button', { name: 'Take it off the others' }).click()
  await expect(screen.getByText('This screen shows no lesson now.')).toBeVisible()
  await shows(second, 'nothing')
  await saved(ada)
})

test('the timer: in step on every screen whatever clock a device has; at its end, only looking', async ({
  browser,
}) => {
  const { teacher, students } = await lesson(browser, server.url, 'Cem')
  const [cem] = students as [Page]
  const early = await device(browser, server.url)
  // A device whose clock is two hours fast.
  await early.addInitScript(() => {
    const now = Date.now.bind(Date)
    Date.now = () => now() + 7_200_000
  })
  const code = (await teacher.getByRole('button', { name: /^Join code/ }).innerText()).trim()
  await early.goto(`/join/${code.replace(' ', '')}`)
  await early.getByLabel('Your name').fill('Dia')
  await early.getByRole('button', { name: 'Join', exact: true }).click()
  await saved(early)
  await teacher.keyboard.press('Alt+t')
  await teacher.getByLabel('Then students only look').check()
  await accessible(teacher)
  await teacher.getByPlaceholder('Minutes').fill('0.5')
  await teacher.keyboard.press('Enter')
  const digits = async (page: Page) => {
    const text = await page.locator('[data-part=timer]').innerText()
    const [m, s] = text.trim().split(':')
    return Number(m) * 60 + Number(s)
  }
  for (const page of [cem, early]) await expect(page.getByRole('timer')).toBeVisible()
  const all = await Promise.all([teacher, cem, early].map(digits))
  expect(Math.max(...all) - Math.min(...all)).toBeLessThanOrEqual(1)
  await teacher.getByRole('button', { name: 'One minute more' }).click()
  await expect.poll(() => digits(cem)).toBeGreaterThan(60)
  await teacher.getByRole('button', { name: 'One minute less' }).click()
  await teacher.getByRole('button', { name: 'One minute less' }).click()
  for (const page of [cem, early]) await expect(page.getByText('Only looking now').first()).toBeVisible()
  await expect(cem.getByRole('button', { name: 'Note', exact: true })).toHaveCount(0)
  await accessible(cem)
  await teacher.getByRole('button', { name: 'Stop the timer' }).click()
  await addNote(cem, 'on we go')
})

test('locks: a frame, all frames, one student; what was done without network meanwhile is told', async ({
  browser,
}) => {
  const { teacher, students } = await lesson(browser, server.url, 'Eva', 'Finn')
  const [eva, finn] = students as [Page, Page]
  await eva.context().setOffline(true)
  await eva.evaluate(() => dispatchEvent(new Event('offline')))
  await teacher.keyboard.press('Alt+l')
  await teacher.getByRole('menuitemcheckbox', { name: 'this frame' }).click()
  await expect(finn.getByText('Only looking now').first()).toBeVisible()
  await addNote(eva, 'written without network')
  await eva.context().setOffline(false)
  await expect(eva.getByText('Your teacher lets you only look now').first()).toBeVisible({ timeout: 30_000 })
  await expect(eva.getByText('written without network').first()).toBeVisible() // to copy out
  await teacher.keyboard.press('Escape')
  await teacher.keyboard.press('Alt+l')
  await teacher.getByRole('menuitemcheckbox', { name: 'this frame' }).click()
  await addNote(finn, 'free again')
  await teacher.getByRole('button', { name: 'More about Finn' }).click()
  for (const name of ['Let Finn only look', 'until I say so']) {
    await teacher.getByRole('menuitem', { name }).focus()
    await teacher.keyboard.press('Enter')
  }
  await expect(finn.getByText('Only looking now').first()).toBeVisible()
  await expect(eva.getByText('Only looking now')).toHaveCount(0)
})

test('to the board: one student works on a locked frame, seen by all, until called back', async ({ browser }) => {
  const { teacher, students } = await lesson(browser, server.url, 'Gil', 'Hana')
  const [gil, hana] = students as [Page, Page]
  await teacher.keyboard.press('Alt+l')
  await teacher.getByRole('menuitemcheckbox', { name: 'all frames' }).click()
  await expect(gil.getByText('Only looking now').first()).toBeVisible()
  await teacher.keyboard.press('Escape')
  await teacher.getByRole('button', { name: 'More about Gil' }).click()
  await teacher.getByRole('menuitem', { name: 'Gil, come to the board' }).click()
  await expect(hana.getByText('Gil is at the board.')).toBeVisible()
  await expect(gil.getByText('You are at the board.')).toBeVisible()
  await addNote(gil, 'twice a day')
  await expect(hana.getByRole('button', { name: "Gil's note: twice a day" })).toBeVisible()
  await expect(hana.getByRole('button', { name: 'Note', exact: true })).toHaveCount(0)
  await accessible(teacher)
  await teacher.getByRole('button', { name: 'Thank you' }).click()
  await expect(gil.getByText('Only looking now').first()).toBeVisible()
  await expect(hana.getByText('Gil is at the board.')).toHaveCount(0)
})
