import axe from 'axe-core'
import {
  expect,
  test,
  type Browser,
  type BrowserContext,
  type BrowserContextOptions,
  type Page,
  type Locator,
} from '@playwright/test'
import type { Boards, Join, Seat, SignIn, Started, StartSession } from '../../ui/src/wire/types.gen'

export const desk = { width: 1280, height: 800 }
export const phone = { width: 390, height: 844 }

/** The devices of the test that runs. Those of tests before it are closed: they would go on asking for servers that are gone. */
let devices: { of: string; contexts: BrowserContext[] } = { of: '', contexts: [] }

async function keep(context: BrowserContext) {
  const of = test.info().testId
  if (devices.of !== of) {
    const before = devices.contexts
    devices = { of, contexts: [] }
    for (const one of before) await one.close()
  }
  devices.contexts.push(context)
}

/** At which server a device is. */
const addresses = new WeakMap<BrowserContext, string>()

/**
 * A page of its own, as on a device of its own. The page is not kept there for when there is no network, unless more
 * says that service workers are allowed: keeping it takes longer than most of what is tested.
 */
export async function device(
  browser: Browser,
  url: string,
  viewport = desk,
  more: BrowserContextOptions = {},
): Promise<Page> {
  const context = await browser.newContext({
    serviceWorkers: 'block',
    ...more,
    baseURL: url,
    viewport,
    hasTouch: viewport === phone,
    reducedMotion: 'reduce',
  })
  addresses.set(context, url)
  await keep(context)
  const page = await context.newPage()
  page.on('console', (message) => {
    // A missing network is part of the lesson; anything else on the console is a defect.
    if (message.type() === 'error' && !/Failed to load resource|WebSocket connection|ERR_/.test(message.text())) {
      throw new Error(`console: ${message.text()}`)
    }
  })
  page.on('pageerror', (error) => {
    throw error
  })
  return page
}

export const INES = 'ines.aldana@tern-harbour.example'

/** Asks the server what the interface would, as the person at this page. */
export async function ask<Reply>(page: Page, method: 'GET' | 'POST', path: string, data?: object): Promise<Reply> {
  const headers = { Origin: addresses.get(page.context())! }
  const reply = await page.request.fetch(`/api${path}`, { method, data, headers })
  expect(reply.ok(), `${path}: ${reply.status()}`).toBe(true)
  return (await reply.json()) as Reply
}

const enter = (page: Page, email: string) =>
  ask(page, 'POST', '/sign-in', { email, password: 'moon-and-tides' } satisfies SignIn)

/** Signs in, and opens the boards. How somebody signs in by hand is tested where that is the matter. */
export async function signIn(page: Page, email = INES) {
  await enter(page, email)
  await page.goto('/boards')
  await expect(page.getByRole('heading', { level: 1, name: 'Boards' })).toBeVisible()
}

export async function signInByHand(page: Page, email = INES) {
  await page.goto('/sign-in')
  await page.getByLabel('E-mail').fill(email)
  await page.getByLabel('Password').fill('moon-and-tides')
  await page.getByRole('button', { name: 'Sign in' }).click()
  await expect(page.getByRole('heading', { level: 1, name: 'Boards' })).toBeVisible()
}

/** Signs in and starts a session of the demo's board with typed names; gives its join code. */
export async function startLesson(page: Page): Promise<string> {
  await enter(page, INES)
  const { boards, classes } = await ask<Boards>(page, 'GET', '/boards')
  const board = boards.find((b) => b.title === 'Moon and tides')!.id
  const start: StartSession = { class: classes[0]!.id, pace: 'led' }
  const { session } = await ask<Started>(page, 'POST', `/boards/${board}/sessions`, start)
  await page.goto(`/run/${session}`)
  const pill = page.getByRole('button', { name: /^Join code/ })
  await expect(pill).toBeVisible()
  return (await pill.innerText()).trim()
}

/** Starts a session of the demo's board from the page of boards, and returns its join code. Names are typed unless they are to be from the list. */
export async function startSession(page: Page, names: 'typed' | 'listed' = 'typed'): Promise<string> {
  await page.getByRole('link', { name: 'Start a lesson of Moon and tides' }).click()
  if (names === 'typed') await page.getByLabel('typed by the students').check()
  await page.getByRole('button', { name: 'Start now' }).click()
  const pill = page.getByRole('button', { name: /^Join code/ })
  await expect(pill).toBeVisible()
  return (await pill.innerText()).trim()
}

/** Joins a lesson. How somebody does so by hand is tested where that is the matter. */
export async function join(page: Page, code: string, name: string) {
  const { session } = await ask<Seat>(page, 'POST', '/join', { code, name } satisfies Join)
  await page.goto(`/lesson/${session}`)
  await saved(page)
}

export async function joinByHand(page: Page, code: string, name: string) {
  await page.goto('/')
  await page.getByLabel('Code of the lesson').fill(code)
  await page.getByRole('button', { name: 'Go on', exact: true }).click()
  await page.getByLabel('Your name').fill(name)
  await page.getByRole('button', { name: 'Join', exact: true }).click()
  await expect(page).toHaveURL(/\/lesson\//)
  await saved(page)
}

/** Waits until the screen says that all is saved. */
export const saved = (page: Page) => expect(page.getByRole('status').filter({ hasText: /^saved$/ })).toBeVisible()

export async function addNote(page: Page, text: string) {
  await page.getByRole('button', { name: 'Note', exact: true }).click()
  await page.getByLabel('Write here').fill(text)
  await page.getByLabel('Write here').blur()
  await expect(page.getByRole('button', { name: `Your note: ${text}` })).toBeVisible()
}

/** Draws a line through points given as shares of the frame. */
export async function draw(page: Page, points: Array<[number, number]>) {
  await page.getByRole('button', { name: 'Draw', exact: true }).click()
  const box = (await page.locator('[data-part=frame]').boundingBox())!
  const at = ([x, y]: [number, number]) => [box.x + x * box.width, box.y + y * box.height] as const
  await page.mouse.move(...at(points[0]!))
  await page.mouse.down()
  for (const point of points.slice(1)) await page.mouse.move(...at(point), { steps: 6 })
  await page.mouse.up()
}

/** Fails when axe finds anything, or when there is nothing for it to look at. */
export async function accessible(page: Page) {
  await expect(page.getByRole('main').or(page.getByRole('dialog')).first()).toBeVisible()
  await expect(page.getByRole('heading').first()).toBeAttached()
  // What a page shows inside itself is looked at with it.
  for (const frame of page.frames())
    if (!(await frame.evaluate(() => 'axe' in globalThis)))
      await frame.evaluate(`${axe.source}; axe.configure({ allowedOrigins: ['<unsafe_all_origins>'] })`)
  const found = await page.evaluate(async () => {
    const { violations } = await (globalThis as unknown as { axe: typeof axe }).axe.run(document, {
      resultTypes: ['violations'],
    })
    const why = (v: (typeof violations)[number]) =>
      v.nodes.map((n) => `${n.html.slice(0, 200)} ${n.failureSummary ?? ''}`).join(', ')
    return violations.map((v) => `${v.id}: ${why(v)}`)
  })
  expect(found).toEqual([])
}

/** Presses something with the keyboard alone. */
export async function press(at: Locator, key = 'Enter') {
  await at.focus()
  await at.press(key)
}
