import { expect, test, type Page } from '@playwright/test'
import { lesson, part } from '../support/frame'
import { accessible, device, joinByHand, phone } from '../support/people'
import { demo } from '../support/demo'

const server = demo()

/** Fingers that go from places on the screen to others, together. */
async function fingers(page: Page, ...ways: Array<[from: [number, number], to: [number, number]]>) {
  const touch = await page.context().newCDPSession(page)
  const at = (share: number) =>
    ways.map(([from, to], id) => ({
      id,
      x: from[0] + (to[0] - from[0]) * share,
      y: from[1] + (to[1] - from[1]) * share,
    }))
  await touch.send('Input.dispatchTouchEvent', { type: 'touchStart', touchPoints: at(0) })
  for (const share of [0.25, 0.5, 0.75, 1])
    await touch.send('Input.dispatchTouchEvent', { type: 'touchMove', touchPoints: at(share) })
  await touch.send('Input.dispatchTouchEvent', { type: 'touchEnd', touchPoints: [] })
  await touch.detach()
}

const frameOf = async (page: Page) => {
  // While the screen turns there is none for a moment.
  const frame = page.locator('[data-part=frame]')
  await expect.poll(() => frame.boundingBox()).not.toBeNull()
  return (await frame.boundingBox())!
}

test('on a phone a frame for drawing fills it, upright and turned; one finger draws, two move', async ({ browser }) => {
  const { teacher, code } = await lesson(browser, server.url)
  const ida = await device(browser, server.url, phone)
  await joinByHand(ida, code, 'Ida')
  await part(teacher, /Lead everybody to frame 2/).click()
  await expect(ida.getByRole('heading', { name: 'Where is the Moon?' })).toBeVisible()
  for (const [width, height] of [
    [360, 640],
    [390, 844],
  ] as const) {
    await ida.setViewportSize({ width, height })
    await expect.poll(async () => (await frameOf(ida)).width).toBeGreaterThan(width * 0.95)
    for (const name of ['Draw', 'Eraser', 'Note', 'Undo', 'I need help'])
      await expect(ida.getByRole('button', { name, exact: true })).toBeInViewport({ ratio: 1 })
  }
  const box = await frameOf(ida)
  const y = box.y + box.height / 2
  await fingers(ida, [
    [box.x + 40, y - 20],
    [box.x + 120, y + 30],
  ])
  await expect(part(ida, 'Your drawn line')).toHaveCount(1)
  // Two fingers that part zoom, and together move what is seen; nothing is drawn.
  await fingers(
    ida,
    [
      [box.x + 150, y],
      [box.x + 90, y],
    ],
    [
      [box.x + 190, y],
      [box.x + 250, y],
    ],
  )
  await expect.poll(async () => (await frameOf(ida)).width).toBeGreaterThan(box.width * 2)
  const before = await frameOf(ida)
  await fingers(
    ida,
    [
      [box.x + 150, y],
      [box.x + 190, y],
    ],
    [
      [box.x + 210, y],
      [box.x + 250, y],
    ],
  )
  await expect.poll(async () => (await frameOf(ida)).x).toBeGreaterThan(before.x + 20)
  await expect(part(ida, 'Your drawn line')).toHaveCount(1)
  await ida.getByRole('button', { name: /^Whole frame/ }).click()
  await ida.setViewportSize({ width: 844, height: 390 })
  await expect.poll(async () => (await frameOf(ida)).height).toBeGreaterThan(390 * 0.9)
  await expect(ida.getByRole('button', { name: 'Draw', exact: true })).toBeInViewport({ ratio: 1 })
  await accessible(ida)
})

test('the picture of a frame in columns fills the phone and begins where there is something', async ({ browser }) => {
  const { teacher, code } = await lesson(browser, server.url)
  const jon = await device(browser, server.url, phone)
  await joinByHand(jon, code, 'Jon')
  await teacher.getByRole('button', { name: 'Change who shares this frame and what students do' }).click()
  await teacher.getByText('In columns').click()
  await jon.getByRole('textbox', { name: 'Write a note' }).fill('the first')
  await jon.getByRole('button', { name: 'Add it' }).click()
  await jon.getByRole('button', { name: 'See the frame' }).click()
  const place = (await jon.locator('[data-part=viewport]').boundingBox())!
  await expect.poll(async () => (await frameOf(jon)).height).toBeGreaterThan(place.height - 2)
  const note = part(jon, 'Your note: the first')
  await expect(note).toBeInViewport({ ratio: 1 })
  // A finger beside everything moves what is seen.
  const before = await frameOf(jon)
  await fingers(jon, [
    [300, place.y + place.height - 120],
    [180, place.y + place.height - 120],
  ])
  await expect.poll(async () => (await frameOf(jon)).x).toBeLessThan(before.x - 60)
  await accessible(jon)
})
