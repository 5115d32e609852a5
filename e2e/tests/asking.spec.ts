import { expect, test, type Locator, type Page } from '@playwright/test'
import { demo } from '../support/demo'
import { accessible, desk, device, join, phone, press, saved, signIn } from '../support/people'

const server = demo()

/** A lesson of the board with a question of each kind. */
async function asking(page: Page) {
  await signIn(page)
  await page.getByRole('link', { name: 'Start a lesson of What do you know of the tides?' }).click()
  await page.getByLabel('typed by the students').check()
  await page.getByRole('button', { name: 'Start now' }).click()
  const pill = page.getByRole('button', { name: /^Join code/ })
  await expect(pill).toBeVisible()
  return (await pill.innerText()).trim()
}

test('a question of each kind: answered by keys and by touch, counted, judged only when it is shown', async ({
  browser,
}) => {
  test.setTimeout(300_000)
  const teacher = await device(browser, server.url)
  const code = await asking(teacher)
  const [ada, bo] = [await device(browser, server.url), await device(browser, server.url, phone)]
  await join(ada, code, 'Ada')
  await join(bo, code, 'Bo')
  const tab = () => press(teacher.getByRole('tab', { name: 'Answers' }))
  const now = (what: string) => teacher.getByRole('region', { name: what })
  /** The class is led on, and both have come there. */
  async function lead(n: number, question: string) {
    await press(teacher.getByRole('button', { name: new RegExp(`Lead everybody to frame ${n}\\b`) }))
    for (const page of [ada, bo]) await expect(page.getByRole('group', { name: question })).toBeVisible()
    await tab()
  }
  const reveal = () => press(teacher.getByRole('button', { name: 'Show the right answer' }))

  // Choose one, and say how sure; then talk, and ask again.
  const month = 'How long is it from one new moon to the next?'
  await tab()
  await press(ada.getByRole('radio', { name: '14.77 days' }), ' ')
  await press(ada.getByRole('radio', { name: 'sure', exact: true }), ' ')
  await bo.getByText('29.53 days').tap()
  await bo.getByText('not sure', { exact: true }).tap()
  for (const page of [ada, bo]) await saved(page)
  await expect(now(month).getByRole('status')).toContainText('2 of 2 answered')
  await expect(now(month).getByRole('status')).toContainText('1 sure and wrong')
  await expect(now('Sure, and not right')).toContainText('Ada')
  await expect(now('Known mistakes')).toContainText('took new moon to full moon 1')
  await expect(now('What you might do next')).toContainText('Let neighbours talk, then ask again')
  await expect(now('What you might do next')).toContainText('Not certain: with 2 answers')
  for (const page of [ada, bo]) await expect(page.getByText('took new moon to full moon')).toHaveCount(0)
  await accessible(teacher)
  await press(teacher.getByRole('button', { name: 'Make pairs' }))
  await expect(ada.getByText('Talk with Bo about this question.')).toBeVisible()
  await expect(bo.getByText('Talk with Ada about this question.')).toBeVisible()
  await accessible(bo)
  await press(now('What you might do next').getByRole('button', { name: 'Ask again' }))
  await expect(ada.getByText('Round 2')).toBeVisible()
  await press(ada.getByRole('radio', { name: '29.53 days' }), ' ')
  await bo.getByText('29.53 days').tap()
  const moved = now('Who moved, from round 1 to round 2')
  await expect(moved).toContainText('Of 2 who answered both times, 1 came to what is right, 0 left it, 1 stayed right.')
  await expect(moved).toContainText('The class gained 1 of what it could gain')
  await press(teacher.getByRole('button', { name: 'The talking is over' }))
  await expect(ada.getByText('Talk with Bo')).toHaveCount(0)
  await expect(ada.getByText(/The Moon is around in 27/)).toHaveCount(0)
  await reveal()
  await expect(ada.getByText('Your answer is right.')).toBeVisible()
  await expect(ada.getByText(/The Moon is around in 27/)).toBeVisible()

  // A number, read as it was written, with its unit; what cannot be read is told.
  const gap = 'How long is it from one high tide to the next?'
  await lead(2, gap)
  await ada.getByLabel('Write a number.').fill('half a day')
  await press(ada.getByRole('button', { name: 'Give this answer' }))
  await expect(ada.getByText('This cannot be read as a number.')).toBeVisible()
  await ada.getByLabel('Write a number.').fill('745 min')
  await ada.getByLabel('Write a number.').press('Enter')
  await expect(ada.getByText('Read as 745 min.')).toBeVisible()
  await bo.getByLabel('Write a number.').fill('12')
  await bo.getByRole('button', { name: 'Give this answer' }).tap()
  await expect(now('Known mistakes')).toContainText('took half a day 1')
  await expect(now(gap).getByRole('img', { name: /^The numbers in order: 12; 12\.417/ })).toBeVisible()
  await expect(now(gap)).toContainText('1 right · 50 %')
  await accessible(teacher)
  await reveal()
  await expect(ada.getByText('Your answer is right.')).toBeVisible()
  await expect(bo.getByText('Your answer is not right.')).toBeVisible()
  await expect(bo.getByText('Right is: 12.42 h')).toBeVisible()

  await lead(3, 'What makes the tides?')
  await press(ada.getByRole('checkbox', { name: 'the Moon' }), ' ')
  await press(ada.getByRole('checkbox', { name: 'the Sun' }), ' ')
  await bo.getByText('the wind').tap()
  await expect(now('What makes the tides?')).toContainText('1 right · 50 %')
  await expect(now('Known mistakes')).toContainText('took waves for tides')

  await lead(4, 'The far side of the Moon is always dark.')
  await press(ada.getByRole('radio', { name: 'False' }), ' ')
  await bo.getByText('Not sure', { exact: true }).tap()
  await expect(now('The far side of the Moon is always dark.')).toContainText('1 not right · 50 %')

  const word = 'What is the force called with which the Moon pulls the water?'
  await lead(5, word)
  await ada.getByLabel('Write a short answer.').fill('Gravty')
  await ada.getByLabel('Write a short answer.').press('Enter')
  await bo.getByLabel('Write a short answer.').fill('magnetism')
  await bo.getByRole('button', { name: 'Give this answer' }).tap()
  await expect(
    now(word).getByRole('listitem').filter({ hasText: 'Gravty' }).getByRole('img', { name: 'right' }),
  ).toBeVisible()
  await expect(now('Known mistakes')).toContainText('took magnets for it')
  await reveal()
  await expect(ada.getByText('It is spelt a little differently.')).toBeVisible()

  // The right order, which nobody is shown before.
  const phases = 'Put the phases in order, from new moon on.'
  await lead(6, phases)
  const right = ['new moon', 'first quarter', 'full moon', 'last quarter']
  const list = ada.getByRole('group', { name: phases }).getByRole('listitem')
  const stands = async () => (await list.allInnerTexts()).map((text) => right.find((r) => text.includes(r))!)
  expect(await stands()).not.toEqual(right)
  for (const [at, name] of right.entries())
    while ((await stands()).indexOf(name) > at) await press(ada.getByRole('button', { name: `Up: ${name}` }))
  await press(ada.getByRole('button', { name: 'That is my order' }))
  await bo.getByRole('button', { name: 'That is my order' }).tap()
  await expect(now(phases)).toContainText('1 right · 50 %')
  await accessible(ada)

  await lead(7, 'What belongs to what?')
  const belongs = (page: Page, what: string) => page.getByLabel(`What belongs to: ${what}`)
  for (const [what, to] of [
    ['spring tide', /in one line/],
    ['neap tide', /right angle/],
    ['ebb', /goes down/],
  ] as const) {
    const words = await belongs(ada, what).getByRole('option').allInnerTexts()
    await belongs(ada, what).selectOption(words.find((w) => to.test(w))!)
  }
  const far = (await belongs(bo, 'spring tide').getByRole('option').allInnerTexts()).find((w) => /far away/.test(w))!
  await belongs(bo, 'spring tide').selectOption(far)
  await expect(now('What belongs to what?')).toContainText('1 right · 50 %')
  await expect(now('Known mistakes')).toContainText('took spring for the season 1')
  await accessible(bo)
  await accessible(teacher)

  await lead(8, 'Fill the blanks.')
  await ada.getByLabel('Blank 1').fill('moon')
  await ada.getByLabel('Blank 2').selectOption('higher')
  await press(ada.getByRole('button', { name: 'Give this answer' }))
  await bo.getByLabel('Blank 1').fill('Sun')
  await bo.getByRole('button', { name: 'Give this answer' }).tap()
  await expect(now('Fill the blanks.')).toContainText('1 right · 50 %')

  await lead(9, 'What shines by itself?')
  const home = {
    'the Sun': 'shines by itself',
    'the Moon': 'is lit',
    'a lamp': 'shines by itself',
    'the Earth': 'is lit',
  }
  for (const [thing, box] of Object.entries(home))
    await press(ada.getByRole('group', { name: thing }).getByRole('radio', { name: box }), ' ')
  await bo.getByRole('group', { name: 'the Moon' }).getByText('shines by itself').tap()
  await expect(now('What shines by itself?')).toContainText('1 right · 50 %')
  await reveal()
  await expect(ada.getByText('Your answer is right.')).toBeVisible()
  await expect(bo.getByText('Your answer is not right.')).toBeVisible()
  await accessible(bo)

  await lead(10, 'How well could you explain the tides to somebody at home?')
  await press(ada.getByRole('radio', { name: '5: very well' }), ' ')
  // Without network an answer is kept, and comes too late: it counts nowhere, and both are told.
  await bo.context().setOffline(true)
  await expect(bo.getByRole('status').filter({ hasText: 'no network' })).toBeVisible()
  await bo.getByText('3', { exact: true }).tap()
  await expect(now('How well could you explain')).toContainText('1 of 1 answered')
  await press(teacher.getByRole('button', { name: 'Close the poll' }))
  await bo.context().setOffline(false)
  await expect(bo.getByText('Your answer came after the end.')).toBeVisible({ timeout: 40_000 })
  await expect(now('How well could you explain')).toContainText('1 of 2 answered')
  await expect(now('How well could you explain')).toContainText('1 late')
  await expect(teacher.getByRole('button', { name: 'Show the right answer' })).toHaveCount(0)

  await lead(11, 'What shall we look at next?')
  await press(ada.getByRole('button', { name: 'That is my order' }))
  await bo.getByRole('button', { name: 'That is my order' }).tap()
  await expect(now('What shall we look at next?')).toContainText('W = ')

  // In one's own words: on the front only once no more can come unread.
  await lead(12, 'What do you still wonder about?')
  await ada.getByLabel('Write it in your own words.').fill('the Moon pulls the water')
  await press(ada.getByRole('button', { name: 'Give this answer' }))
  await bo.getByLabel('Write it in your own words.').fill('The moon pulls the water!')
  await bo.getByRole('button', { name: 'Give this answer' }).tap()
  await expect(now('What do you still wonder about?').getByRole('listitem')).toContainText('2 times')
  await press(teacher.getByRole('button', { name: 'What says the same' }))
  await expect(teacher.getByRole('textbox', { name: 'Name of this group of 2 notes' })).toHaveValue(/moon/i)
  await accessible(teacher)
  await teacher.keyboard.press('Escape')
  await press(teacher.getByRole('button', { name: 'Everybody’s answer …' }))
  await expect(teacher.getByRole('row', { name: /Ada/ })).toContainText('the Moon pulls the water')
  await accessible(teacher)
  await teacher.keyboard.press('Escape')

  // What was written and not given is given when the question closes: late, and kept; the first one counts.
  const cem = await device(browser, server.url)
  await join(cem, code, 'Cem')
  await cem.getByLabel('Write it in your own words.').fill('still writing')
  await press(teacher.getByRole('button', { name: 'Close the poll' }))
  await expect(ada.getByText('The poll is closed.')).toBeVisible()
  await expect(cem.getByText('Your answer came after the end.')).toBeVisible()
  await expect(now('What do you still wonder about?').getByRole('status')).toContainText('1 late')
})

test('a question is written: of any kind, tried as students would answer, asked on the spot', async ({ browser }) => {
  test.setTimeout(180_000)
  const teacher = await device(browser, server.url, desk)
  const code = await asking(teacher)
  const ada = await device(browser, server.url, phone)
  await join(ada, code, 'Ada')
  await press(teacher.getByRole('button', { name: 'Change the lesson' }))
  await press(teacher.getByRole('menuitem', { name: 'Ask a question now…' }))
  const write = teacher.getByRole('dialog', { name: 'Ask a question now' })
  const kind = write.getByLabel('How it is answered')
  const offered = await kind.getByRole('option').allInnerTexts()
  expect(offered).toHaveLength(15)
  for (const one of offered) {
    await kind.selectOption(one)
    await accessible(teacher)
  }
  await kind.selectOption('A number')
  await write.getByLabel('Question', { exact: true }).fill('How many moons has the Earth?')
  await write.getByLabel('Right number').fill('one')
  await expect(write.getByRole('alert')).toContainText('This cannot be read as a number.')
  await write.getByLabel('Right number').fill('1')
  await press(write.getByRole('button', { name: 'Another known mistake' }))
  await write.getByLabel('Wrong answer 1', { exact: true }).fill('2')
  await write.getByLabel('Wrong answer 1, up to').fill('100')
  await write.getByLabel('Name of mistake 1').fill('took moons of others')
  await write.getByText('Try it: answer as a student would').click()
  await write.getByLabel('Write a number.').fill('53')
  await write.getByLabel('Write a number.').press('Enter')
  await expect(write.getByRole('status').filter({ hasText: 'not right' })).toContainText('took moons of others')
  // Without network it is refused in sight of the window, which stays with what was written.
  await teacher.context().setOffline(true)
  const network = teacher.locator('[role=status]', { hasText: /^no network$/ })
  await expect(network).toBeAttached()
  await press(write.getByRole('button', { name: 'Ask the class' }))
  await expect(teacher.getByRole('status').filter({ hasText: 'Without network this cannot be done' })).toBeVisible()
  await teacher.context().setOffline(false)
  await expect(network).toHaveCount(0)
  await expect(write.getByLabel('Question', { exact: true })).toHaveValue('How many moons has the Earth?')
  await press(write.getByRole('button', { name: 'Ask the class' }))
  await expect(ada.getByRole('group', { name: 'How many moons has the Earth?' })).toBeVisible()
  await ada.getByLabel('Write a number.').fill('53')
  await ada.getByRole('button', { name: 'Give this answer' }).tap()
  await press(teacher.getByRole('tab', { name: 'Answers' }))
  await expect(teacher.getByRole('region', { name: 'Known mistakes' })).toContainText('took moons of others 1')

  // A time limit is seen running, and closes the question by itself.
  await press(teacher.getByRole('button', { name: 'Change the lesson' }))
  await press(teacher.getByRole('menuitem', { name: 'Ask a question now…' }))
  await write.getByLabel('How it is answered').selectOption('True or false')
  await write.getByLabel('Question', { exact: true }).fill('Is the Moon a star?')
  await press(write.getByRole('button', { name: 'Why, sure or not, something to hear, time limit' }))
  await write.getByLabel('Time limit in seconds, 0 for none').fill('6')
  await press(write.getByRole('button', { name: 'Ask the class' }))
  await expect(ada.getByRole('group', { name: 'Is the Moon a star?' })).toContainText(/[1-6] seconds? left/)
  await expect(ada.getByText('The poll is closed.')).toBeVisible()
  await expect(ada.getByRole('radio', { name: 'True' })).toBeDisabled()
  await expect(teacher.getByRole('button', { name: 'Close the poll' })).toHaveCount(0)
})

test('places in a picture, and a drawing: prepared, pointed at by touch and by keys, shown', async ({ browser }) => {
  test.setTimeout(180_000)
  const teacher = await device(browser, server.url, desk)
  await signIn(teacher)
  await teacher
    .getByRole('link', { name: 'Prepare Shadows' })
    .or(teacher.getByRole('link', { name: /^Prepare Light and shadow/ }))
    .first()
    .click()
  await teacher.getByRole('button', { name: 'Add frame' }).click()
  await teacher.getByRole('tab', { name: 'Blank or template' }).click()
  await teacher.getByRole('button', { name: 'Blank frame' }).click()
  await expect(teacher.getByRole('dialog')).toHaveCount(0)
  await teacher.getByRole('toolbar').getByRole('button', { name: 'Poll', exact: true }).click()
  const write = teacher.getByRole('dialog', { name: 'Poll' })
  await write.getByLabel('How it is answered').selectOption('Point at a picture')
  await write.getByLabel('Question', { exact: true }).fill('Where is the upper half?')
  await press(write.getByRole('button', { name: 'Choose the picture' }))
  await teacher.getByLabel('Search by word').fill('moon')
  await teacher.getByRole('button', { name: 'full moon' }).click()
  const picture = write.locator('img').first()
  await expect.poll(() => picture.evaluate((i: HTMLImageElement) => i.naturalWidth)).toBeGreaterThan(0)
  await picture.scrollIntoViewIfNeeded()
  // An area drawn, and one by keys; one is right, the other a known mistake.
  const box = (await picture.boundingBox())!
  await teacher.mouse.move(box.x + 2, box.y + 2)
  await teacher.mouse.down()
  await teacher.mouse.move(box.x + box.width - 2, box.y + box.height / 2, { steps: 5 })
  await teacher.mouse.up()
  await write.getByLabel('Name of area 1').fill('upper half')
  await press(write.getByRole('button', { name: 'Another area' }))
  await write.getByLabel('Answer 2 is right').uncheck()
  await write.getByLabel('Name of mistake 2').fill('took down for up')
  for (const [edge, at] of [
    ['left', 0],
    ['top', 50],
    ['right', 100],
    ['bottom', 100],
  ] as const)
    await write.getByLabel(`Area 2, ${edge} edge in percent`).fill(`${at}`)
  await accessible(teacher)
  await press(write.getByRole('button', { name: 'Done' }))
  await saved(teacher)

  await teacher
    .getByRole('link', { name: /^Start/ })
    .or(teacher.getByRole('button', { name: /^Start/ }))
    .first()
    .click()
  await teacher.getByLabel('typed by the students').check()
  await teacher.getByRole('button', { name: 'Start now' }).click()
  const code = (await teacher.getByRole('button', { name: /^Join code/ }).innerText()).trim()
  const [ada, bo] = [await device(browser, server.url), await device(browser, server.url, phone)]
  await join(ada, code, 'Ada')
  await join(bo, code, 'Bo')
  await press(teacher.getByRole('button', { name: /Lead everybody to frame 2/ }))
  for (const page of [ada, bo])
    await expect(page.getByRole('group', { name: 'Where is the upper half?' })).toBeVisible()
  await press(ada.getByRole('button', { name: 'Put a place in the middle' }))
  const place = ada.getByRole('button', { name: /^Place 1:/ })
  for (let i = 0; i < 10; i++) await press(place, 'ArrowUp')
  await expect(place).toHaveAccessibleName(/30 % from the top/)
  const shown = bo.getByRole('group', { name: 'Where is the upper half?' }).locator('img')
  const at = (await shown.boundingBox())!
  await bo.touchscreen.tap(at.x + at.width / 2, at.y + at.height * 0.8)
  await press(teacher.getByRole('tab', { name: 'Answers' }))
  const region = teacher.getByRole('region', { name: 'Where is the upper half?' })
  await expect(region).toContainText('1 right · 50 %')
  await expect(region).toContainText('took down for up')
  await accessible(teacher)
  await accessible(bo)
  await press(teacher.getByRole('button', { name: 'Show the right answer' }))
  await expect(ada.getByText('Your answer is right.')).toBeVisible()
  await expect(bo.getByText('Your answer is not right.')).toBeVisible()

  // A drawing on the spot: the frame is the answer.
  await press(teacher.getByRole('button', { name: 'Change the lesson' }))
  await press(teacher.getByRole('menuitem', { name: 'Ask a question now…' }))
  await teacher.getByLabel('How it is answered').selectOption('Draw it')
  await teacher.getByLabel('Question', { exact: true }).fill('Draw a half moon.')
  await press(teacher.getByRole('button', { name: 'Ask the class' }))
  await ada.getByRole('button', { name: 'My drawing is done' }).click()
  await expect(ada.getByText('You said that your drawing is done.')).toBeVisible()
  await press(teacher.getByRole('tab', { name: 'Answers' }))
  await expect(teacher.getByRole('region', { name: 'Draw a half moon.' })).toContainText('1 of 2 answered')
})

test('dragging beside buttons and lists: an order, pairs, boxes', async ({ browser }) => {
  test.setTimeout(120_000)
  const teacher = await device(browser, server.url)
  const code = await asking(teacher)
  const ada = await device(browser, server.url)
  await join(ada, code, 'Ada')
  const lead = async (n: number, question: string) => {
    await press(teacher.getByRole('button', { name: new RegExp(`Lead everybody to frame ${n}\\b`) }))
    await expect(ada.getByRole('group', { name: question })).toBeVisible()
  }
  const middle = async (at: Locator) => {
    const box = (await at.boundingBox())!
    return [box.x + box.width / 2, box.y + box.height / 2] as const
  }
  /** Takes something by its grip, and lets it go over something else. */
  const drag = async (what: string, to: Locator) => {
    await ada.mouse.move(...(await middle(ada.locator('[data-drag]', { hasText: what }).locator('svg').first())))
    await ada.mouse.down()
    await ada.mouse.move(...(await middle(to)), { steps: 12 })
    await ada.mouse.up()
  }
  await lead(6, 'Put the phases in order')
  const rows = ada.locator('[data-drags] li')
  const before = await rows.allInnerTexts()
  await drag(before[0]!.split('\n').at(-1)!, rows.last())
  await expect
    .poll(async () => (await rows.allInnerTexts()).map((t) => t.split('\n').at(-1)))
    .not.toEqual(before.map((t) => t.split('\n').at(-1)))
  await expect(rows.last()).toContainText(before[0]!.split('\n').at(-1)!)

  await lead(7, 'What belongs to what?')
  await drag('Sun and Moon at a right angle', ada.locator('[data-drop]', { hasText: 'neap tide' }).first())
  const neap = ada.getByRole('combobox', { name: /neap tide/ })
  await expect
    .poll(() => neap.evaluate((s: HTMLSelectElement) => s.selectedOptions[0]?.text))
    .toContain('Sun and Moon at a right angle')

  await lead(9, 'What shines by itself?')
  await drag('a lamp', ada.locator('[data-drop]').first())
  await expect(ada.getByRole('group', { name: 'a lamp' }).getByRole('radio').first()).toBeChecked()
  await accessible(ada)
})
