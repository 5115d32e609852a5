import { expect, test, type Page } from '@playwright/test'
import { execFileSync } from 'node:child_process'
import { readFileSync } from 'node:fs'
import { accessible, addNote, desk, device, joinByHand, phone, saved, signIn, startSession } from '../support/people'
import { DemoServer } from '../support/server'
import { timeCode } from '../support/totp'

let server: DemoServer
test.beforeAll(async () => {
  server = await DemoServer.fromNothing()
})
test.afterAll(() => server?.remove())

/** One figure from the database. */
const figure = (query: string) => Number(execFileSync('psql', [server.database, '-qtAc', query]).toString().trim())

/** The last letter in the mailbox with these words. */
async function letter(page: Page, subject: RegExp) {
  await page.goto('/mailbox')
  const found = page.getByRole('listitem').filter({ has: page.getByRole('heading', { name: subject }) })
  await expect(found.first()).toBeVisible({ timeout: 20_000 })
  return (await found.first().getByRole('link').getAttribute('href'))!
}

/** Lets the first request there wait on its way, so that the next would overtake it. */
async function slowAtFirst(page: Page, path: string) {
  let first = true
  await page.route(path, async (route) => {
    const wait = first
    first = false
    if (wait) await new Promise((over) => setTimeout(over, 1500))
    await route.continue()
  })
}

test('a colleague comes by mail, forgets the password, and sets up a second factor', async ({ browser }) => {
  const ines = await device(browser, server.url)
  await signIn(ines)
  await ines.getByRole('link', { name: 'Staff' }).click()
  await ines.getByRole('button', { name: 'Invite somebody' }).click()
  await ines.getByLabel('E-mail address, if you know it').fill('ben.oduya@tern-harbour.example')
  await ines.keyboard.press('Enter')
  await expect(ines.getByText('on its way to ben.oduya@tern-harbour.example')).toBeVisible()
  await ines.keyboard.press('Escape')
  await expect(ines.getByRole('listitem').filter({ hasText: 'ben.oduya' })).toContainText(/mail (sent|is on its way)/)
  await accessible(ines)

  const ben = await device(browser, server.url)
  await ben.goto(await letter(ben, /^Invitation to Tern Harbour School/))
  await ben.getByLabel('Your name').fill('Ben Oduya')
  await ben.getByLabel('Password').fill('harbour light seven')
  await ben.getByRole('button', { name: 'Make my account' }).click()
  await expect(ben.getByRole('heading', { level: 1, name: 'Boards' })).toBeVisible()
  await ben.getByRole('button', { name: 'Sign out' }).click()

  // Forgotten: a link by mail, and in with another password.
  await ben.goto('/sign-in')
  await ben.getByRole('link', { name: 'Forgotten your password?' }).click()
  await accessible(ben)
  await ben.getByLabel('E-mail').fill('ben.oduya@tern-harbour.example')
  await ben.keyboard.press('Enter')
  await expect(ben.getByText('a link is on its way')).toBeVisible()
  await ben.goto(await letter(ben, /^A new password/))
  await ben.getByLabel('Password').fill('nine lamps at sea')
  await ben.getByRole('button', { name: 'Use this password' }).click()
  await expect(ben.getByRole('heading', { level: 1, name: 'Boards' })).toBeVisible()

  // A second factor: the secret is typed into an app, which makes the codes.
  await ben.getByRole('link', { name: 'Ben Oduya' }).click()
  await ben.getByRole('link', { name: 'Your account' }).click()
  await ben.getByRole('button', { name: 'Set it up' }).click()
  const secret = (await ben.locator('.font-mono').innerText()).replace(/\s/g, '')
  await ben.getByLabel('Code from the app').fill('000000')
  await ben.getByLabel('Present password').first().fill('nine lamps at sea')
  await ben.getByRole('button', { name: 'Turn it on' }).click()
  await expect(ben.getByText('This code is not right')).toBeVisible()
  await ben.getByLabel('Code from the app').fill(timeCode(secret))
  await ben.getByRole('button', { name: 'Turn it on' }).click()
  await expect(ben.getByText('It is on. 10 recovery codes are left.')).toBeVisible()
  await accessible(ben)
  const recovery = await ben
    .getByRole('status')
    .filter({ hasText: 'Recovery codes' })
    .getByRole('listitem')
    .first()
    .innerText()
  const again = await device(browser, server.url, phone)
  await again.goto('/sign-in')
  await again.getByLabel('E-mail').fill('ben.oduya@tern-harbour.example')
  await again.getByLabel('Password').fill('nine lamps at sea')
  await again.getByRole('button', { name: 'Sign in' }).click()
  await again.getByLabel('Code from the app').fill(recovery)
  await accessible(again)
  await again.getByRole('button', { name: 'Sign in' }).click()
  await expect(again.getByRole('heading', { level: 1, name: 'Boards' })).toBeVisible()
  // Who did what stands in the journal.
  await ines.goto('/journal')
  await expect(ines.getByRole('listitem').first()).toContainText('set up a second factor')
  await accessible(ines)
})

test('a name card on another device, a typed name tied, and the groups of the class', async ({ browser }) => {
  const ines = await device(browser, server.url)
  await signIn(ines)
  await ines.getByRole('link', { name: 'Classes' }).click()
  await ines.getByRole('link', { name: /^8 Juniper/ }).click()
  await ines.getByRole('link', { name: 'Name cards' }).click()
  const card = ines.getByRole('listitem').filter({ hasText: 'Noor' })
  const code = (await card.getByText(/^[0-9A-Z]{4} [0-9A-Z]{4}$/).innerText()).trim()
  await accessible(ines)
  await ines.goto('/boards')
  const lesson = await startSession(ines, 'typed')

  // Noor writes on the laptop, and goes on as herself on a phone, with the card.
  const laptop = await device(browser, server.url)
  await joinByHand(laptop, lesson, 'noor')
  await addNote(laptop, 'from the laptop')
  await saved(laptop)
  const mobile = await device(browser, server.url, phone)
  await mobile.goto('/')
  await mobile.getByRole('link', { name: 'I have a name card' }).click()
  await accessible(mobile)
  await mobile.getByLabel('The code on your card').fill('K7M2')
  await mobile.keyboard.press('Enter')
  await expect(mobile.getByText('has eight letters and digits')).toBeVisible()
  await mobile.goto(`/card#${code.replace(' ', '')}`)
  await expect(mobile).toHaveURL(/\/lesson\//)
  await expect(mobile.getByText('from the laptop').first()).toBeVisible()

  // Kenji mistypes his name: one tap says who he is.
  const kenji = await device(browser, server.url, phone)
  await joinByHand(kenji, lesson, 'Kenij')
  const row = ines.locator('[data-part=people]').getByRole('listitem').filter({ hasText: 'Kenij' })
  await expect(row.getByLabel('not listed')).toBeVisible()
  await row.getByRole('button', { name: 'More about Kenij' }).click()
  await ines.getByRole('menuitem', { name: 'Who is Kenij?' }).click()
  const likely = ines.getByRole('heading', { name: 'Likely' }).locator('..')
  await expect(likely.getByRole('button').first()).toHaveText('Kenji')
  await accessible(ines)
  await likely.getByRole('button', { name: 'Kenji' }).click()
  await expect(row.getByLabel('not listed')).toHaveCount(0)
  const tied = () =>
    figure(`SELECT count(*) FROM participants p JOIN students t ON t.id = p.student_id
      WHERE p.name IN ('Kenij', 'Noor') AND t.name IN ('Kenji', 'Noor') AND p.joined_at > now() - interval '5 minutes'`)
  await expect.poll(tied).toBe(2)

  // Liva is nobody's name; she is told apart later, on the record.
  const liv = await device(browser, server.url, phone)
  await joinByHand(liv, lesson, 'Liva')
  const record = await ines.context().newPage()
  await record.goto(ines.url().replace('/run/', '/records/'))
  await record.getByRole('button', { name: 'Who is Liva?' }).click()
  await record.getByRole('button', { name: 'Liv', exact: true }).click()
  await expect(record.getByRole('heading', { level: 3, name: 'Liv (Liva)' })).toBeVisible()
  await expect(record.getByRole('heading', { level: 3, name: 'Kenji (Kenij)' })).toBeVisible()
  await accessible(record)
  await record.close()

  // A lost card is replaced: the phone is out, the laptop goes on.
  await ines.goto('/classes')
  await ines.getByRole('link', { name: /^8 Juniper/ }).click()
  await ines.getByRole('button', { name: 'What else about Noor' }).click()
  await ines.getByRole('menuitem', { name: 'The card was lost' }).click()
  await ines.getByRole('button', { name: 'Stop the old card' }).click()
  await expect(ines.getByRole('dialog')).toHaveCount(0)
  await mobile.goto(`/card#${code.replace(' ', '')}`)
  await expect(mobile.getByText('No name card has this code now.')).toBeVisible()
  await laptop.reload()
  await saved(laptop)

  // Seats and groups are kept for lessons.
  await ines.getByRole('tab', { name: 'Seats' }).click()
  await accessible(ines)
  await slowAtFirst(ines, '**/api/classes/*/plan')
  await ines.getByRole('button', { name: 'Row 1, seat 1: Amara' }).click()
  await ines.getByRole('button', { name: 'Row 5, seat 6: free' }).click()
  await ines.getByRole('button', { name: 'Row 1, seat 2: ' }).click()
  await ines.getByRole('button', { name: 'Row 1, seat 1: free' }).click()
  const seated = ines.waitForResponse('**/api/classes')
  await expect(ines.getByRole('button', { name: 'Row 5, seat 6: Amara' })).toBeVisible()
  await seated
  await expect(ines.getByRole('button', { name: 'Row 5, seat 6: Amara' })).toBeVisible()
  await expect(ines.getByRole('button', { name: 'Row 1, seat 2: free' })).toBeVisible()
  await ines.getByRole('tab', { name: 'Groups' }).click()
  await ines.getByLabel('One student').selectOption('Liv')
  await ines.getByLabel('The other student').selectOption('Uma')
  await ines.getByRole('button', { name: 'Keep apart' }).click()
  await expect(ines.getByRole('button', { name: 'Let Liv and Uma be together again' })).toBeVisible()
  await accessible(ines)
})

test('what is kept about a student is exported, and erased with a receipt', async ({ browser }) => {
  const ines = await device(browser, server.url)
  await signIn(ines)
  await ines.goto('/classes')
  await ines.getByRole('link', { name: /^8 Juniper/ }).click()
  const marks = `SELECT count(*) FROM marks m WHERE m.mark->>'author' IN
    (SELECT p.id::text FROM participants p JOIN students t ON t.id = p.student_id WHERE t.name = 'Priya')`
  const others = `SELECT count(*) FROM marks m WHERE m.mark->>'author' NOT IN
    (SELECT p.id::text FROM participants p JOIN students t ON t.id = p.student_id WHERE t.name = 'Priya')`
  const [had, all] = [figure(marks), figure(others)]
  expect(had).toBeGreaterThan(0)
  await ines.getByRole('button', { name: 'What else about Priya' }).click()
  const [file] = await Promise.all([
    ines.waitForEvent('download'),
    ines.getByRole('menuitem', { name: 'Everything about them, as a file' }).click(),
  ])
  const archive = (await file.path())!
  const dossier = JSON.parse(execFileSync('unzip', ['-p', archive, 'person.json']).toString()) as {
    lessons: Array<{ work: unknown[] }>
  }
  expect(dossier.lessons.flatMap((l) => l.work)).toHaveLength(had)
  expect(readFileSync(archive).length).toBeGreaterThan(1000)
  await ines.getByRole('button', { name: 'What else about Priya' }).click()
  await ines.getByRole('menuitem', { name: 'Erase everywhere' }).click()
  await ines.getByRole('button', { name: 'Erase', exact: true }).click()
  await expect(ines.getByRole('dialog', { name: 'Priya was erased' })).toContainText(`Things on frames${had}`)
  await accessible(ines)
  expect(figure(marks)).toBe(0)
  expect(figure(others)).toBe(all)
  expect(figure(`SELECT count(*) FROM students WHERE name = 'Priya'`)).toBe(0)
  await ines.keyboard.press('Escape')
  await expect(ines.getByRole('button', { name: 'What else about Priya' })).toHaveCount(0)
})

test('somebody begins without an account, and takes it into one', async ({ browser }) => {
  const guest = await device(browser, server.url)
  await guest.goto('/')
  await guest.getByRole('button', { name: 'Try teaching without an account' }).click()
  await expect(guest.getByText('You teach without an account.')).toBeVisible()
  await expect(guest.getByRole('link', { name: 'Classes' })).toHaveCount(0)
  await accessible(guest)
  await guest.getByRole('button', { name: 'New board' }).click()
  await guest.getByLabel('Name').fill('Only today')
  await guest.keyboard.press('Enter')
  await expect(guest).toHaveURL(/\/boards\/.+/)
  await guest.goto('/boards')
  await guest.getByRole('link', { name: 'Start a lesson of Only today' }).click()
  await guest.getByRole('button', { name: 'Start now' }).click()
  const code = (await guest.getByRole('button', { name: /^Join code/ }).innerText()).trim()
  const noor = await device(browser, server.url, phone)
  await joinByHand(noor, code, 'Noor')
  await guest.goto('/boards')
  await guest.getByRole('link', { name: 'Keep it in an account' }).click()
  await guest.getByLabel('E-mail').fill('emil.sorensen@tern-harbour.example')
  await guest.getByLabel('Password').fill('moon-and-tides')
  await guest.getByRole('button', { name: 'Sign in' }).click()
  await expect(guest.getByRole('link', { name: 'Prepare Only today' })).toBeVisible()
  await expect(guest.getByRole('link', { name: 'Emil Sorensen' })).toBeVisible()
})

test('a teacher works in German, with a class in English; the school sets its levels', async ({ browser }) => {
  const ines = await device(browser, server.url)
  await signIn(ines)
  await ines.getByRole('link', { name: 'Ines Aldana' }).click()
  await accessible(ines)
  // Of two choices made at once the first is slow on its way; both hold.
  await slowAtFirst(ines, '**/api/settings')
  await ines.getByLabel("The class's language").selectOption('en')
  await ines.getByLabel('Your language').selectOption('de')
  await expect(ines.getByRole('heading', { level: 1, name: 'Einstellungen' })).toBeVisible()
  await expect(ines.locator('html')).toHaveAttribute('lang', 'de')
  await ines.getByLabel('Dunkler Bildschirm vorne').click()
  await accessible(ines)
  await ines.getByRole('link', { name: 'Die Schule' }).click()
  await ines.getByRole('button', { name: 'Eine Stufe hinzufügen' }).click()
  await ines.getByLabel('Name der Stufe 5').fill('Am Gipfel')
  await ines.getByRole('button', { name: 'Stufen speichern' }).click()
  await expect(ines.getByText('Gespeichert', { exact: true })).toBeVisible()
  await accessible(ines)
  expect(figure(`SELECT json_array_length(settings->'scale') FROM house`)).toBe(5)
  await ines.goto('/boards')
  await expect(ines.getByRole('heading', { level: 1, name: 'Tafeln' })).toBeVisible()
  await accessible(ines)
  await ines.getByRole('link', { name: 'Eine Stunde mit Moon and tides beginnen' }).click()
  await ines.getByLabel('von den Lernenden getippt').check()
  await ines.getByRole('button', { name: 'Jetzt beginnen' }).click()
  const code = (await ines.getByRole('button', { name: /^Code/ }).innerText()).trim()
  const noor = await device(browser, server.url, phone)
  await joinByHand(noor, code, 'Noor')
  await expect(noor.getByRole('button', { name: 'I need help' })).toBeVisible()
  const front = await ines.context().newPage()
  await front.setViewportSize(desk)
  await front.goto(ines.url().replace('/run/', '/front/'))
  await expect(front.getByText('is in', { exact: false }).first()).toBeVisible()
  await expect(front.locator('[data-night]')).toHaveCount(1)
  await accessible(ines)
})
