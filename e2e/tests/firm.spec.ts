// What must not be lost, and what must go on: without network, after a refusal,
// in two windows, when a command cannot be given.
import { expect, test } from '@playwright/test'
import { addNote, desk, device, join, saved, startLesson } from '../support/people'
import { demo } from '../support/demo'

const server = demo()

test('the page opens without network once it has been open, and goes on when the network is back', async ({
  browser,
}) => {
  const teacher = await device(browser, server.url)
  const code = await startLesson(teacher)
  const noor = await device(browser, server.url, desk, { serviceWorkers: 'allow' })
  await join(noor, code, 'Noor')
  await noor.evaluate(() => navigator.serviceWorker.ready)
  await noor.reload() // from here on the worker keeps what the page is built of
  await saved(noor)
  await addNote(noor, 'before the network went')
  await saved(noor)
  await noor.context().setOffline(true)
  await addNote(noor, 'kept on this device')
  await noor.reload()
  await expect(noor.getByRole('heading', { name: 'No network' })).toBeVisible()
  await noor.context().setOffline(false)
  await expect(noor.getByRole('button', { name: 'Your note: kept on this device' })).toBeVisible({ timeout: 20_000 })
  await saved(noor)
  await expect(teacher.getByText('kept on this device').first()).toBeAttached()
  // What is kept is the page alone, and never an answer of the server.
  const kept = await noor.evaluate(async () =>
    (await (await caches.open('shell-1')).keys()).map((k) => new URL(k.url).pathname),
  )
  expect(kept).toContain('/')
  expect(kept.filter((path) => path.startsWith('/api'))).toEqual([])
})

test('writing that is refused can be copied out; a command without network is refused at once', async ({ browser }) => {
  const teacher = await device(browser, server.url)
  const code = await startLesson(teacher)
  const noor = await device(browser, server.url)
  await join(noor, code, 'Noor')
  await noor.context().setOffline(true)
  await addNote(noor, 'written when the lesson was over')
  await teacher.getByRole('button', { name: 'Finish' }).click()
  await teacher
    .getByRole('dialog')
    .or(teacher.getByRole('alertdialog'))
    .getByRole('button', { name: /Finish|End/ })
    .click()
  await expect(teacher).toHaveURL(/\/records\//)
  await noor.context().setOffline(false)
  await expect(noor.getByRole('heading', { name: 'The lesson has ended' })).toBeVisible({ timeout: 20_000 })
  const lost = noor.getByRole('region', { name: /not taken/ })
  await expect(lost).toContainText('written when the lesson was over')
  // Where the page may not copy, as without HTTPS, the writing is marked and the person told.
  await noor.evaluate(() => Object.defineProperty(navigator, 'clipboard', { value: undefined }))
  await lost.getByRole('button', { name: 'Copy' }).click()
  await expect(lost.getByRole('status')).toContainText('The writing is marked')
  expect(await noor.evaluate(() => getSelection()?.toString().trim())).toBe('written when the lesson was over')
  await lost.getByRole('button', { name: 'I do not need it' }).click()
  await expect(lost).toHaveCount(0)

  const another = await device(browser, server.url)
  await startLesson(another)
  await another.context().setOffline(true)
  await expect(another.getByText('no network', { exact: true })).toBeVisible()
  await another
    .getByRole('button', { name: /Go to frame 2|Frame 2/ })
    .first()
    .click()
  await expect(another.getByText('Without network this cannot be done now.')).toBeVisible()
  await another.context().setOffline(false)
  await saved(another)
  // What is told now comes after whatever was still to be told.
  await another.getByRole('button', { name: 'Pause', exact: true }).click()
  await expect(another.getByRole('button', { name: 'Go on', exact: true })).toBeVisible()
  await expect(another.locator('[data-part=trail] [aria-current=step]')).toHaveAttribute('aria-label', /Frame 1/)
})

test('what one window could not send, another one of the same student sends', async ({ browser }) => {
  const teacher = await device(browser, server.url)
  const code = await startLesson(teacher)
  const noor = await device(browser, server.url)
  await join(noor, code, 'Noor')
  const second = await noor.context().newPage()
  await second.goto(noor.url())
  await saved(second)
  // The first window loses its connection alone, and is closed with something unsent.
  await noor.context().setOffline(true)
  await addNote(noor, 'left by a window that is closed')
  await noor.close()
  await second.context().setOffline(false)
  await expect(second.getByRole('button', { name: 'Your note: left by a window that is closed' })).toBeVisible({
    timeout: 20_000,
  })
  await saved(second)
})

test('the teacher is led back to where the sign-in was asked for', async ({ browser }) => {
  const teacher = await device(browser, server.url)
  await teacher.goto('/start/01939f5c-8c1e-7d2a-9a3b-0123456789ab')
  await expect(teacher.getByRole('heading', { name: 'Sign in' })).toBeVisible()
  await teacher.getByLabel('E-mail').fill('ines.aldana@tern-harbour.example')
  await teacher.getByLabel('Password').fill('moon-and-tides')
  await teacher.getByRole('button', { name: 'Sign in' }).click()
  await expect(teacher).toHaveURL(/\/start\/01939f5c/)
})

test('an answer is not asked for before there is somewhere to put it', async ({ browser }) => {
  const teacher = await device(browser, server.url)
  const code = await startLesson(teacher)
  const noor = await device(browser, server.url)
  // A network on which the sheets of a frame take their time: nothing that follows them is there before.
  let late: (() => void)[] | null = null
  await noor.routeWebSocket(/realtime/, (socket) => {
    const there = socket.connectToServer()
    there.onMessage((message) => {
      if (late && (late.length > 0 || String(message).includes('"sheets"'))) late.push(() => socket.send(message))
      else socket.send(message)
    })
  })
  await join(noor, code, 'Noor')
  await saved(noor)
  late = []
  await teacher.getByRole('button', { name: /Lead everybody to frame 3/ }).click()
  const answer = noor.getByRole('radio', { name: '29.53 days' })
  await expect(answer).toBeDisabled()
  await expect(noor.getByRole('group').getByRole('status')).toHaveText('One moment …')
  for (const send of late.splice(0)) send()
  late = null
  await answer.check()
  await saved(noor)
  await noor.reload()
  await expect(answer).toBeChecked()
})
