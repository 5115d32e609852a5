import type { Browser, Page } from '@playwright/test'
import { device, join, startLesson } from './people'

/** A mark, or a part of the ledge, by its name. */
export const part = (page: Page, name: string | RegExp) => page.getByRole('button', { name })
/** Takes up a tool, or lays down what it makes. */
export const tool = (page: Page, name: string) =>
  page.getByRole('toolbar').getByRole('button', { name, exact: true }).first().click()

/** A class of one teacher and some students on the frame that all share. */
export async function lesson(browser: Browser, url: string, ...names: string[]) {
  const teacher = await device(browser, url)
  const code = await startLesson(teacher)
  const students: Page[] = []
  for (const name of names) {
    const page = await device(browser, url)
    await join(page, code, name)
    students.push(page)
  }
  return { teacher, code, students }
}

/** Where a point of the frame lies on the screen. */
export async function at(page: Page, x: number, y: number): Promise<[number, number]> {
  const box = (await page.locator('[data-part=frame]').boundingBox())!
  return [box.x + (x * box.width) / 1600, box.y + (y * box.height) / 1000]
}

/** Draws through points of the frame, and lifts at the end. */
export async function drag(page: Page, points: Array<[number, number]>, lift = true) {
  await page.mouse.move(...(await at(page, ...points[0]!)))
  await page.mouse.down()
  for (const point of points.slice(1)) await page.mouse.move(...(await at(page, ...point)), { steps: 8 })
  if (lift) await page.mouse.up()
}

/** Where a mark lies, in frame units, rounded. */
export async function place(page: Page, name: string | RegExp) {
  const frame = (await page.locator('[data-part=frame]').boundingBox())!
  const box = (await part(page, name).first().boundingBox())!
  const k = 1600 / frame.width
  const round = (n: number) => Math.round(n * k)
  return { x: round(box.x - frame.x), y: round(box.y - frame.y), w: round(box.width), h: round(box.height) }
}
