import { expect, test, type Page } from '@playwright/test'
import { readFile } from 'node:fs/promises'
import {
  accessible,
  addNote,
  desk,
  device,
  draw,
  joinByHand,
  phone,
  saved,
  signInByHand,
  startLesson,
  startSession,
} from '../support/people'
import { DemoServer } from '../support/server'

let server: DemoServer
test.beforeAll(async () => {
  server = await DemoServer.start()
})
test.afterAll(() => server?.remove())

const lead = (teacher: Page, n: number) =>
  teacher.getByRole('button', { name: new RegExp(`Lead everybody to frame ${n}`) }).click()
const note = (page: Page, name: string | RegExp) => page.getByRole('button', { name })

/** Devices that keep the page for when there is no network. */
const kept = { serviceWorkers: 'allow' } as const

test('a whole lesson, with a network that breaks and a server that restarts', async ({ browser }) => {
  // The teacher signs in and starts.
  const teacher = await device(browser, server.url, desk, kept)
  await teacher.goto('/sign-in')
  await accessible(teacher)
  await signInByHand(teacher)
  await expect(teacher.getByRole('img', { name: 'What do you notice?' })).toBeVisible()
  await accessible(teacher)
  const code = await startSession(teacher)
  expect(code).toMatch(/^[2-9A-HJKMNP-Z]{3} [2-9A-HJKMNP-Z]{3}$/)
  await accessible(teacher)
  await teacher.getByRole('button', { name: /^Join code/ }).click()
  const dialog = teacher.getByRole('dialog')
  await expect(dialog.getByText(`/join/${code.replace(' ', '')}`)).toBeVisible()
  const qr = dialog.getByRole('img', { name: /^QR code/ })
  await expect.poll(() => qr.evaluate((img: HTMLImageElement) => img.naturalWidth)).toBeGreaterThan(20)
  await accessible(teacher)
  await teacher.keyboard.press('Escape')

  // Three students come in: by code, by link, and one with a taken name.
  const noor = await device(browser, server.url, phone, kept)
  await noor.goto('/')
  await accessible(noor)
  await noor.getByLabel('Code of the lesson').fill('K7M')
  await noor.getByRole('button', { name: 'Go on', exact: true }).click()
  await expect(noor.getByRole('alert').filter({ hasText: 'six letters and digits' })).toBeVisible()
  await joinByHand(noor, ` ${code.toLowerCase().replace(' ', '-')} `, 'Noor')
  const kenji = await device(browser, server.url, desk, kept)
  await kenji.goto(`/join/${code.replace(' ', '')}`)
  await expect(kenji.getByText('Lesson: Moon and tides, 8 Juniper')).toBeVisible()
  await accessible(kenji)
  await kenji.getByLabel('Your name').fill('')
  await kenji.getByRole('button', { name: 'Join', exact: true }).click()
  await expect(kenji.getByRole('alert').filter({ hasText: 'Type your name' })).toBeVisible()
  await kenji.getByLabel('Your name').fill('Kenji')
  await kenji.getByRole('button', { name: 'Join', exact: true }).click()
  await saved(kenji)
  const twin = await device(browser, server.url, desk, kept)
  await joinByHand(twin, code, 'noor')
  await expect(twin.getByText('Noor 2', { exact: true })).toBeVisible()
  await expect(teacher.getByText('3 of 26 here')).toBeVisible()

  // Notes appear everywhere at once; each changes only their own.
  await addNote(noor, 'High tide is later every day')
  await expect(note(kenji, "Noor's note: High tide is later every day")).toBeVisible()
  await expect(note(teacher, "Noor's note: High tide is later every day")).toBeVisible()
  await accessible(noor)
  await addNote(kenji, 'always two highs')
  const own = note(kenji, 'Your note: always two highs')
  const before = (await own.boundingBox())!
  await own.hover()
  await kenji.mouse.down()
  await kenji.mouse.move(before.x + before.width / 2 + 150, before.y + before.height / 2 + 120, { steps: 5 })
  await kenji.mouse.up()
  await expect.poll(async () => Math.round((await own.boundingBox())!.x - before.x)).toBe(150)
  await kenji.getByRole('button', { name: 'light green', exact: true }).click()
  await kenji.getByRole('button', { name: 'Arrange' }).click()
  await kenji.getByRole('button', { name: 'Wider' }).click()
  await own.focus()
  await kenji.keyboard.press('Enter')
  await kenji.getByLabel('Write here').fill('always two highs and two lows')
  await kenji.keyboard.press('Escape')
  await expect(note(noor, "Kenji's note: always two highs and two lows")).toBeVisible()
  const foreign = note(kenji, "Noor's note: High tide is later every day")
  const still = (await foreign.boundingBox())!
  await foreign.focus()
  await kenji.keyboard.press('ArrowRight')
  await kenji.keyboard.press('Delete')
  expect(await foreign.boundingBox()).toEqual(still)
  await expect(kenji.getByRole('button', { name: 'Remove' })).toHaveCount(0)

  // Undo and redo one's own: the last was the text.
  await kenji.getByRole('button', { name: 'Undo' }).click()
  await expect(note(kenji, 'Your note: always two highs')).toBeVisible()
  await kenji.getByRole('button', { name: 'Redo' }).click()
  await expect(note(noor, "Kenji's note: always two highs and two lows")).toBeVisible()

  // The teacher hides a note, brings it back, and removes one.
  await note(teacher, /Kenji's note/).click()
  await teacher.getByRole('button', { name: 'Hide from class' }).click()
  await expect(note(noor, /Kenji's note/)).toHaveCount(0)
  await expect(note(kenji, /always two highs/)).toHaveCount(0)
  await noor.reload()
  await saved(noor)
  await expect(note(noor, /Your note: High tide/)).toBeVisible()
  await expect(note(noor, /Kenji's note/)).toHaveCount(0)
  await teacher.getByRole('button', { name: '1 hidden or removed' }).click()
  await accessible(teacher)
  await teacher.getByRole('button', { name: 'Bring back' }).click()
  await expect(teacher.getByRole('dialog')).toHaveCount(0)
  await expect(note(noor, /Kenji's note/)).toBeVisible()
  await addNote(twin, 'something silly')
  await note(teacher, /something silly/).click()
  await teacher.getByRole('button', { name: 'Remove' }).click()
  await expect(note(twin, /something silly/)).toHaveCount(0)

  // The teacher leads to the second frame; a late student comes there too.
  await lead(teacher, 2)
  await expect(noor.getByRole('heading', { name: 'Where is the Moon?' })).toBeVisible()
  await draw(noor, [
    [0.5, 0.3],
    [0.6, 0.25],
    [0.7, 0.35],
  ])
  await expect(noor.getByRole('button', { name: 'Undo' })).toBeEnabled()
  await noor.getByRole('button', { name: 'Select', exact: true }).click()
  await expect(note(noor, 'Your drawn line')).toHaveCount(1)
  await noor.getByRole('button', { name: 'Undo' }).click()
  await expect(note(noor, 'Your drawn line')).toHaveCount(0)
  await noor.getByRole('button', { name: 'Redo' }).click()
  await expect(note(noor, 'Your drawn line')).toHaveCount(1)
  await saved(noor)
  const late = await device(browser, server.url, desk, kept)
  await joinByHand(late, code, 'Vera')
  await expect(late.getByRole('heading', { name: 'Where is the Moon?' })).toHaveCount(1)
  await expect(late.getByRole('button', { name: "Noor's drawn line" })).toHaveCount(0)
  await accessible(late)
  await expect(teacher.getByRole('button', { name: /Open Noor's frame large. 1 thing/ })).toBeVisible()
  await expect(teacher.getByRole('button', { name: /Open Vera's frame large. nothing yet/ })).toBeVisible()
  await accessible(teacher)

  // Kenji's network is cut; what he does stays on the device and comes in once.
  await kenji.context().setOffline(true)
  await expect(kenji.getByRole('status').filter({ hasText: 'no network' })).toBeVisible()
  await draw(kenji, [
    [0.45, 0.8],
    [0.5, 0.85],
    [0.55, 0.8],
  ])
  await draw(kenji, [
    [0.45, 0.7],
    [0.5, 0.75],
    [0.55, 0.7],
  ])
  await addNote(kenji, 'half moon at the bottom')
  await expect(kenji.getByRole('status').filter({ hasText: '3 things kept on this device' })).toBeVisible()
  await lead(teacher, 1)
  await lead(teacher, 2)
  await kenji.context().setOffline(false)
  await saved(kenji)
  await expect(teacher.getByRole('button', { name: /Open Kenji's frame large. 3 things/ })).toBeVisible()

  // Offline again, and the page is reloaded on return: kept, and sent once.
  await kenji.context().setOffline(true)
  await draw(kenji, [
    [0.3, 0.7],
    [0.35, 0.75],
    [0.4, 0.7],
  ])
  await expect(kenji.getByRole('status').filter({ hasText: '1 thing kept on this device' })).toBeVisible()
  await kenji.context().setOffline(false)
  await kenji.reload()
  await saved(kenji)
  await expect(note(kenji, 'Your drawn line')).toHaveCount(3)
  await expect(teacher.getByRole('button', { name: /Open Kenji's frame large. 4 things/ })).toBeVisible()

  // The server restarts under everybody; nothing is lost, work goes on.
  await server.stop()
  await expect(noor.getByRole('status').filter({ hasText: 'no network' })).toBeVisible({ timeout: 20_000 })
  await addNote(noor, 'written while the server was away')
  await server.run()
  await saved(noor)
  await expect(teacher.getByRole('button', { name: /Open Noor's frame large. 2 things/ })).toBeVisible({
    timeout: 20_000,
  })
  await teacher.getByRole('button', { name: /Open Noor's frame large/ }).click()
  await expect(
    teacher.getByRole('dialog').getByRole('button', { name: "Noor's note: written while the server was away" }),
  ).toBeVisible()
  await accessible(teacher)
  // Escape leaves the writing, then what is picked up, and only then the window.
  await teacher.getByRole('dialog').getByRole('button', { name: 'Note', exact: true }).click()
  await teacher.getByLabel('Write here').fill('well seen')
  await teacher.keyboard.press('Escape')
  await expect(teacher.getByRole('dialog').getByRole('button', { name: 'Your note: well seen' })).toBeFocused()
  await teacher.keyboard.press('Escape')
  await expect(teacher.getByRole('dialog').getByRole('button', { name: 'Your note: well seen' })).toBeVisible()
  await teacher.keyboard.press('Escape')
  await expect(teacher.getByRole('dialog')).toHaveCount(0)

  // The poll: answers may change until it closes; then the right one is shown.
  await lead(teacher, 3)
  await noor.getByRole('radio', { name: '7 days', exact: true }).check()
  await noor.getByRole('radio', { name: '29.53 days' }).check()
  await saved(noor)
  await accessible(noor)
  await kenji.getByRole('radio', { name: '14.77 days' }).check()
  await saved(kenji)
  await expect(teacher.getByText('2 of 4 answered')).toBeVisible()
  await expect(
    teacher.getByRole('group', { name: 'How long is it' }).getByText('1 answer', { exact: true }),
  ).toHaveCount(2)
  await expect(teacher.getByText('right answer', { exact: true })).toHaveCount(0)
  await noor.reload()
  await expect(noor.getByRole('radio', { name: '29.53 days' })).toBeChecked()
  await teacher.getByRole('button', { name: 'Close the poll' }).click()
  await expect(kenji.getByRole('radio', { name: '7 days', exact: true })).toBeDisabled()
  await teacher.getByRole('button', { name: 'Show the right answer' }).click()
  await expect(noor.getByText('Your answer is right.')).toBeVisible()
  await expect(kenji.getByText('Your answer is not right.')).toBeVisible()
  await accessible(kenji)

  // Asked once more: a round of its own, with answers of its own.
  await teacher.getByRole('button', { name: 'Ask again' }).click()
  await expect(kenji.getByText('Round 2')).toBeVisible()
  await expect(kenji.getByRole('radio', { checked: true })).toHaveCount(0)
  await expect(kenji.getByText('right answer', { exact: true })).toHaveCount(0)
  await expect(teacher.getByText('0 of 4 answered')).toBeVisible()
  await kenji.getByRole('radio', { name: '29.53 days' }).check()
  await saved(kenji)
  await expect(teacher.getByText('1 of 4 answered')).toBeVisible()
  await teacher.getByRole('button', { name: 'Show the right answer' }).click()
  await expect(kenji.getByText('Your answer is right.')).toBeVisible()
  await accessible(teacher)

  // The end, and the record.
  await teacher.getByRole('button', { name: 'Finish' }).click()
  await accessible(teacher)
  await teacher.getByRole('button', { name: 'Finish and open the record' }).click()
  await expect(noor.getByRole('heading', { name: 'The lesson has ended' })).toBeVisible()
  await accessible(noor)
  await expect(teacher.getByRole('heading', { name: 'Record: Moon and tides' })).toBeVisible()
  await expect(teacher.getByRole('img', { name: "Noor's work on frame 2" })).toBeVisible()
  await accessible(teacher)
  const download = teacher.waitForEvent('download')
  await teacher.getByRole('link', { name: 'Download CSV' }).click()
  const text = await readFile((await (await download).path())!, 'utf8')
  const rows = text
    .replace('\uFEFF', '')
    .trim()
    .split('\r\n')
    .map((row) => row.slice(1, -1).split('","').slice(0, 6).join('|'))
  expect(rows).toContain('Noor|1|What do you notice?|note|High tide is later every day|')
  expect(rows).toContain('Noor|2|Where is the Moon?|drawing|1 strokes|')
  expect(rows).toContain('Noor|3|From new moon to new moon|answer|29.53 days|right')
  expect(rows).toContain('Kenji|2|Where is the Moon?|drawing|3 strokes|')
  expect(rows).toContain('Kenji|3|From new moon to new moon|answer|14.77 days|wrong')
  expect(rows).toContain('Vera|1|What do you notice?|nothing||')
  expect(rows.filter((row) => row.includes('something silly'))).toEqual([])
  await expect(teacher.getByText('something silly')).toHaveCount(0)

  // The old code leads nowhere.
  await late.goto('/')
  await late.getByLabel('Code of the lesson').fill(code)
  await late.getByRole('button', { name: 'Go on', exact: true }).click()
  await expect(late.getByRole('alert').filter({ hasText: 'No lesson has this code now' })).toBeVisible()
  expect(server.log).not.toContain('High tide is later')
})

test('a student with the keyboard alone', async ({ browser }) => {
  const teacher = await device(browser, server.url)
  const code = await startLesson(teacher)
  const liv = await device(browser, server.url)
  await liv.goto('/')
  const press = (...keys: string[]) =>
    keys.reduce((before, key) => before.then(() => liv.keyboard.press(key)), Promise.resolve())
  const reach = async (key: string, name: string) => {
    for (let i = 0; i < 40; i++) {
      await press(key)
      const focused = await liv.evaluate(
        () => document.activeElement?.getAttribute('aria-label') ?? document.activeElement?.textContent,
      )
      if (focused?.startsWith(name)) return
    }
    throw new Error(`no way to ${name} by ${key}`)
  }
  const tabTo = (name: string) => reach('Tab', name)
  // The marks of a frame may be many: there is a way past them. The tools are one stop; arrows go along them.
  const tools = async () => {
    await tabTo('To the tools')
    await press('Enter')
  }
  await expect(liv.getByLabel('Code of the lesson')).toBeFocused()
  await liv.keyboard.type(code)
  await press('Enter')
  await expect(liv.getByLabel('Your name')).toBeFocused()
  await liv.keyboard.type('Liv')
  await press('Enter')
  await saved(liv)
  await tools()
  await reach('ArrowRight', 'Note')
  await press('Enter')
  await liv.keyboard.type('Is it the Moon that moves?')
  await press('Escape')
  await saved(liv)
  const mine = note(liv, 'Your note: Is it the Moon that moves?')
  await liv.evaluate(() => (document.activeElement as HTMLElement | null)?.blur())
  await tabTo('Your note')
  const before = (await mine.boundingBox())!
  await press('ArrowRight', 'ArrowRight', 'Shift+ArrowDown')
  await expect.poll(async () => (await mine.boundingBox())!.x).toBeGreaterThan(before.x + 5)
  await tabTo('white')
  await reach('ArrowRight', 'lilac')
  await press('Enter')
  await saved(liv)
  await liv.reload()
  await expect(mine).toBeVisible()
  expect((await mine.boundingBox())!.y).toBeGreaterThan(before.y + 20)
  await tabTo('Your note')
  await press('Delete')
  await expect(note(teacher, /Is it the Moon/)).toHaveCount(0)
  await expect(liv.locator('[data-part=workplace]:focus, [data-mark]:focus')).toHaveCount(1)
  await liv.evaluate(() => (document.activeElement as HTMLElement | null)?.blur())
  await tools()
  await reach('ArrowLeft', 'Undo')
  await press('Enter')
  await expect(note(teacher, "Liv's note: Is it the Moon that moves?")).toBeVisible()
})

test('a pen draws, and the palm beside it does not', async ({ browser }) => {
  const teacher = await device(browser, server.url)
  const code = await startLesson(teacher)
  const hana = await device(browser, server.url, phone)
  await joinByHand(hana, code, 'Hana')
  await lead(teacher, 2)
  await hana.getByRole('heading', { name: 'Where is the Moon?' }).waitFor()
  await hana.getByRole('button', { name: 'Draw', exact: true }).click()
  const box = (await hana.locator('[data-part=frame]').boundingBox())!
  const cdp = await hana.context().newCDPSession(hana)
  const pen = (type: 'mousePressed' | 'mouseMoved' | 'mouseReleased', x: number, y: number) =>
    cdp.send('Input.dispatchMouseEvent', {
      type,
      x: box.x + x,
      y: box.y + y,
      button: 'left',
      buttons: 1,
      clickCount: 1,
      pointerType: 'pen',
      force: 0.8,
    })
  const finger = (type: 'touchStart' | 'touchMove' | 'touchEnd', points: Array<{ x: number; y: number }>) =>
    cdp.send('Input.dispatchTouchEvent', { type, touchPoints: points.map((p) => ({ x: box.x + p.x, y: box.y + p.y })) })
  const lines = hana.getByRole('button', { name: 'Your drawn line' })
  // A finger draws.
  await finger('touchStart', [{ x: 40, y: 40 }])
  await finger('touchMove', [{ x: 70, y: 60 }])
  await finger('touchEnd', [])
  await expect(lines).toHaveCount(1)
  // A pen draws, and while it is in use a touch does not.
  await pen('mousePressed', 100, 100)
  await pen('mouseMoved', 130, 120)
  await pen('mouseReleased', 130, 120)
  await expect(lines).toHaveCount(2)
  await finger('touchStart', [{ x: 200, y: 200 }])
  await finger('touchMove', [{ x: 220, y: 200 }])
  await finger('touchEnd', [])
  await saved(hana)
  await expect(lines).toHaveCount(2)
})

test('a network that lets no WebSocket through', async ({ browser }) => {
  const teacher = await device(browser, server.url)
  const code = await startLesson(teacher)
  const yusuf = await device(browser, server.url)
  await yusuf.addInitScript(() => Reflect.deleteProperty(globalThis, 'WebSocket'))
  await joinByHand(yusuf, code, 'Yusuf')
  expect(await yusuf.evaluate(() => 'WebSocket' in globalThis)).toBe(false)
  await addNote(yusuf, 'through the proxy')
  await saved(yusuf)
  await expect(note(teacher, "Yusuf's note: through the proxy")).toBeVisible()
  await lead(teacher, 2)
  await expect(yusuf.getByRole('heading', { name: 'Where is the Moon?' })).toHaveCount(1)
})

test('a student begins with at most 180 KB of script; the rest is there before the network breaks', async ({
  browser,
}) => {
  const teacher = await device(browser, server.url)
  const code = await startLesson(teacher)
  // What a service worker fetches would be counted twice: there is none.
  const page = await device(browser, server.url)
  const cdp = await page.context().newCDPSession(page)
  await cdp.send('Network.enable')
  const [scripts, over] = [new Set<string>(), new Set<string>()]
  let [bytes, last] = [0, 0]
  cdp.on('Network.responseReceived', ({ requestId, type }) => type === 'Script' && scripts.add(requestId))
  cdp.on('Network.loadingFinished', ({ requestId, encodedDataLength }) => {
    if (!scripts.has(requestId)) return
    over.add(requestId)
    bytes += encodedDataLength
    last = Date.now()
  })
  await joinByHand(page, code, 'Uma')
  await expect.poll(() => over.size).toBe(scripts.size)
  console.log(`script for a student: ${(bytes / 1024).toFixed(1)} KB compressed in ${scripts.size} files`)
  expect(bytes).toBeGreaterThan(20_000)
  expect(bytes).toBeLessThan(180 * 1024)

  // Parts that were not needed yet come by themselves, once all is still.
  const still = () => over.size === scripts.size && Date.now() - last > 1500
  await expect.poll(() => bytes > 200_000 && still(), { timeout: 30_000 }).toBe(true)
  console.log(`script for a student in the end: ${(bytes / 1024).toFixed(0)} KB compressed`)
  expect(bytes).toBeLessThan(280 * 1024)
  await page.context().setOffline(true)
  await expect(page.getByText('no network')).toBeVisible()
  await page.getByRole('button', { name: 'View', exact: true }).click()
  await page.getByRole('menuitem', { name: 'Everything as a list' }).click()
  await expect(page.getByRole('dialog')).toBeVisible()
  await page.keyboard.press('Escape')
  await addNote(page, 'written without network')
  await page.getByRole('button', { name: 'Your note: written without network' }).click()
  await page.getByRole('button', { name: 'lilac', exact: true }).click()
  await page.context().setOffline(false)
  await saved(page)
})
