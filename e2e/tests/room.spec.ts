import { expect, test, type Page } from '@playwright/test'
import { crowd } from '../support/crowd'
import { demo } from '../support/demo'
import { lesson } from '../support/frame'
import { accessible, addNote, device, draw, join, phone, press, saved, signIn } from '../support/people'

const server = demo()

/** Whether any two of the notes on a frame cover each other by more than a pixel. */
const covered = (page: Page) =>
  page.evaluate(() => {
    const boxes = [...document.querySelectorAll('[data-part=frame] [data-mark]')]
      .filter((e) => e.getAttribute('aria-label')?.includes('note:'))
      .map((e) => e.getBoundingClientRect())
    const over = (a: DOMRect, b: DOMRect) =>
      Math.min(a.right, b.right) - Math.max(a.left, b.left) > 1 &&
      Math.min(a.bottom, b.bottom) - Math.max(a.top, b.top) > 1
    return { notes: boxes.length, over: boxes.flatMap((a, i) => boxes.slice(i + 1).filter((b) => over(a, b))).length }
  })

test('thirty in the room: a whole lesson, which its teacher runs with keys alone', async ({ browser }) => {
  test.setTimeout(300_000)
  const { teacher, code, students } = await lesson(browser, server.url, 'Ada', 'Bo', 'Cem')
  const [ada, bo, cem] = students as [Page, Page, Page]
  const dia = await device(browser, server.url, phone)
  await join(dia, code, 'Dia')
  const session = new URL(teacher.url()).pathname.split('/').pop()!
  const front = await device(browser, server.url)
  await front.context().addCookies(await teacher.context().cookies())
  await front.goto(`/front/${session}`)
  const shows = (kind: string) => expect(front.locator(`[data-part=front][data-shows=${kind}]`)).toBeVisible()
  async function show(kind: string, more?: () => Promise<void>) {
    await teacher.keyboard.press('Alt+f')
    await press(teacher.getByRole('dialog').getByRole('radio', { name: kind }), ' ')
    await more?.()
    await press(teacher.getByRole('button', { name: 'Show this' }))
    await expect(teacher.getByRole('dialog')).toHaveCount(0)
  }
  const use = teacher.getByRole('button', { name: 'Change who shares this frame and what students do' })

  // Gathering; who is there begins, and answers the first note.
  await shows('gathering')
  await press(use)
  await press(teacher.getByLabel('Notes may be answered'), ' ')
  await teacher.keyboard.press('Escape')
  await addNote(ada, 'the sea comes twice')
  await press(bo.getByRole('button', { name: "Ada's note: the sea comes twice" }))
  await bo.getByLabel('Write a reply').fill('by how much?')
  await press(bo.getByRole('button', { name: 'Reply', exact: true }))
  await expect(ada.getByRole('button', { name: 'Your note: the sea comes twice, 1 reply' })).toBeVisible()
  crowd(server.url, code, 26)
  await expect(front.getByText(code)).toBeVisible()
  await expect(teacher.getByText('30 here')).toBeVisible({ timeout: 60_000 })
  await expect(front.getByRole('listitem').filter({ hasText: 'Dia' })).toBeVisible()
  await accessible(front)
  await accessible(teacher)

  // Columns, written into from a phone as well; the first note stands first, with its reply.
  await show("The class's frame, live")
  await press(use)
  await press(teacher.getByRole('radio', { name: 'In columns' }), ' ')
  await teacher.keyboard.press('Escape')
  await dia.getByRole('textbox', { name: 'Write a note' }).fill('later every day')
  await dia.getByRole('button', { name: 'Add it' }).click()
  await expect(dia.getByRole('region', { name: 'Yours' })).toContainText('later every day')
  await expect(front.getByText('the sea comes twice')).toBeVisible()
  await expect(front.getByRole('region').first()).toBeAttached()
  await expect.poll(async () => (await covered(teacher)).notes).toBeGreaterThan(5)
  expect((await covered(teacher)).over).toBe(0)
  await accessible(dia)

  // Free again, and spread out; nobody's note covers another's.
  await press(use)
  await press(teacher.getByRole('radio', { name: 'Free' }), ' ')
  await teacher.keyboard.press('Escape')
  // The class writes on meanwhile: what came after it is spread out once more.
  await expect(async () => {
    await press(teacher.getByRole('button', { name: 'Spread out', exact: true }))
    await expect.poll(async () => (await covered(teacher)).over, { timeout: 3000 }).toBe(0)
  }).toPass({ timeout: 40_000 })

  // The timer, on every screen.
  await teacher.keyboard.press('Alt+t')
  await teacher.getByPlaceholder('Minutes').fill('2')
  await teacher.keyboard.press('Enter')
  for (const page of [ada, dia, front]) await expect(page.getByRole('timer')).toBeVisible()
  await press(teacher.getByRole('button', { name: 'Stop the timer' }))

  // A pause, a lock, and one at the board.
  await teacher.keyboard.press('Alt+p')
  for (const page of [ada, dia]) await expect(page.getByRole('heading', { name: 'Your screen rests' })).toBeVisible()
  await teacher.keyboard.press('Alt+p')
  await expect(dia.getByRole('heading', { name: 'Your screen rests' })).toHaveCount(0)
  await teacher.keyboard.press('Alt+l')
  await press(teacher.getByRole('menuitemcheckbox', { name: 'all frames' }))
  await teacher.keyboard.press('Escape')
  await expect(cem.getByText('Only looking now').first()).toBeVisible()
  await press(teacher.getByRole('button', { name: 'More about Cem' }))
  await press(teacher.getByRole('menuitem', { name: 'Cem, come to the board' }))
  await draw(cem, [
    [0.5, 0.5],
    [0.7, 0.6],
  ])
  await expect(front.locator('[aria-label="Cem\'s drawn line"]')).toHaveCount(1)
  await teacher.keyboard.press('Alt+l')
  await press(teacher.getByRole('menuitemcheckbox', { name: 'all frames' }))
  await teacher.keyboard.press('Escape')

  // What the teacher points at and draws is seen by all at once.
  const frame = (await teacher.locator('[data-part=frame]').boundingBox())!
  await press(teacher.getByRole('button', { name: 'Pointer', exact: true }))
  await teacher.mouse.move(frame.x + frame.width / 2, frame.y + frame.height / 2)
  await teacher.mouse.down()
  await teacher.mouse.move(frame.x + frame.width / 2 + 40, frame.y + frame.height / 2, { steps: 10 })
  for (const page of [ada, front]) await expect(page.locator('[data-part=pointer] > span').first()).toBeVisible()
  await teacher.mouse.up()

  // A question from the class, put in front.
  await dia.getByRole('button', { name: 'Questions', exact: true }).click()
  await dia.getByLabel('Ask a question').fill('Why two?')
  await dia.getByRole('button', { name: 'Ask', exact: true }).click()
  await press(teacher.getByRole('tab', { name: 'Questions 1' }))
  await press(teacher.getByRole('button', { name: /^Show on the front screen/ }))
  await press(teacher.getByRole('button', { name: 'Show this' }))
  await expect(front.getByText('Why two?')).toBeVisible()
  await press(teacher.getByRole('button', { name: 'Answered: Why two?' }))
  await press(teacher.getByRole('tab', { name: 'Students' }))
  await dia.keyboard.press('Escape')

  // Side by side.
  await press(teacher.getByRole('button', { name: /Lead everybody to frame 2/ }))
  for (const page of [ada, bo]) await expect(page.getByRole('heading', { name: 'Where is the Moon?' })).toBeVisible()
  await addNote(ada, 'at the upper side')
  await addNote(bo, 'at the lower side')
  await show('Frames of students, side by side', async () => {
    for (const name of ['Ada', 'Bo']) await press(teacher.getByRole('checkbox', { name, exact: true }), ' ')
  })
  for (const text of ['at the upper side', 'at the lower side']) await expect(front.getByText(text)).toBeVisible()
  await accessible(front)

  // A question on the spot, its answers in front.
  await press(teacher.getByRole('button', { name: 'Change the lesson' }))
  await press(teacher.getByRole('menuitem', { name: 'Ask a question now…' }))
  await teacher.getByLabel('Question', { exact: true }).fill('Is it clear now?')
  await press(teacher.getByRole('button', { name: 'Yes · No · Not sure' }))
  await press(teacher.getByRole('button', { name: 'Ask the class' }))
  await dia.getByText('Yes', { exact: true }).click()
  await expect(teacher.getByText(/of 30 answered/)).toBeVisible()
  await show('A poll', async () => {
    await press(teacher.getByLabel('With the answers so far'), ' ')
  })
  await shows('poll')
  await expect(front.getByRole('group').getByText('Is it clear now?')).toBeVisible()

  // The laptop dies; the lesson goes on where it stood.
  await teacher.context().close()
  const second = await device(browser, server.url)
  await signIn(second)
  await press(second.locator(`a[href="/run/${session}"]`).first())
  await expect(second.getByRole('button', { name: /^Frame 3: Is it clear now\?/ })).toHaveAttribute(
    'aria-current',
    'step',
  )
  await shows('poll')
  await second.keyboard.press('Alt+f')
  await press(second.getByRole('dialog').getByRole('radio', { name: 'Nothing' }), ' ')
  await press(second.getByRole('button', { name: 'Show this' }))
  await shows('nothing')
  await accessible(second)
  for (const page of [ada, bo, cem, dia]) await saved(page)
})
