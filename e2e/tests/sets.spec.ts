import { expect, test, type Locator, type Page } from '@playwright/test'
import { demo } from '../support/demo'
import { accessible, device, join, phone, press, saved, signIn } from '../support/people'

const server = demo()

/** A lesson with sets of questions: the first judged at once, the second when it is handed in, the third led. */
async function inRow(page: Page) {
  await signIn(page)
  await page.getByRole('link', { name: 'Start a lesson of Before you go: tides' }).click()
  await page.getByLabel('typed by the students').check()
  await page.getByRole('button', { name: 'Start now' }).click()
  const pill = page.getByRole('button', { name: /^Join code/ })
  await expect(pill).toBeVisible()
  return (await pill.innerText()).trim()
}

test('questions in a row: judged at once with two tries, handed in, led; by keys, on a phone, in front', async ({
  browser,
}) => {
  test.setTimeout(240_000)
  const teacher = await device(browser, server.url)
  const code = await inRow(teacher)
  const [ada, bo] = [await device(browser, server.url), await device(browser, server.url, phone)]
  await join(ada, code, 'Ada')
  await join(bo, code, 'Bo')
  const lead = (n: number) =>
    press(teacher.getByRole('button', { name: new RegExp(`Lead everybody to frame ${n}\\b`) }))
  const row = teacher.getByRole('region', { name: 'Questions in a row' })
  const check = (page: Page) => page.getByRole('button', { name: 'Check' })

  // Judged at once, with two tries: a wrong answer leaves one more, then what is right is said.
  await press(ada.getByRole('radio', { name: 'because the sea is tired' }), ' ')
  await expect(row.getByRole('status')).toContainText('0 answers of 10') // it is only chosen yet
  await press(check(ada))
  await expect(ada.getByText('You have one more try.')).toBeVisible()
  await expect(ada.getByText('There is a bulge towards the Moon')).toHaveCount(0)
  await press(ada.getByRole('radio', { name: 'because the Moon comes twice' }), ' ')
  await press(check(ada))
  await expect(ada.getByText('because the Earth turns under two bulges').last()).toBeVisible()
  await expect(ada.getByText('There is a bulge towards the Moon')).toBeVisible()
  await expect(ada.getByText('lets the Moon go around')).toHaveCount(0)
  await expect(ada.getByRole('radio', { name: 'because the sea is tired' })).toBeDisabled()
  await accessible(ada)
  await bo.getByText('because the Earth turns').tap()
  await check(bo).tap()
  await expect(bo.getByText('Right.', { exact: true })).toBeVisible()
  await expect(bo.getByRole('button', { name: 'Question 1: Right.' })).toBeVisible()
  await bo.getByRole('button', { name: 'Question 5:' }).tap()
  await bo.getByLabel(/Write a number/).fill('3.3')
  await bo.getByRole('button', { name: 'Give this answer' }).tap()
  await accessible(bo)
  await expect(row.getByRole('status')).toContainText('3 answers of 10')
  await expect(row.getByRole('row', { name: /Ada/ })).toContainText('2')
  await expect(row.getByRole('row', { name: /Bo/ }).getByRole('img', { name: 'right', exact: true })).toHaveCount(2)
  await press(row.getByRole('button', { name: /^Question 1:/ }))
  await expect(teacher.getByRole('region', { name: 'Why are there two high tides a day?' })).toContainText(
    '2 of 2 answered',
  )
  await accessible(teacher)

  // Handed in at the end; before that nothing is told, and after it nothing changes.
  await lead(2)
  // What is typed and not given is given by going on.
  await bo.getByLabel('Write a short answer.').fill('tidal perod')
  await bo.getByRole('button', { name: 'Next', exact: true }).tap()
  await bo.getByText('first quarter').tap()
  await bo.getByText('new moon').tap()
  await expect(bo.getByText('Right.', { exact: true })).toHaveCount(0)
  await bo.getByRole('button', { name: 'Next', exact: true }).tap()
  await bo.getByRole('button', { name: 'To the end' }).tap()
  await expect(bo.getByRole('heading', { name: 'One question has no answer yet' })).toBeVisible()
  await accessible(bo)
  await saved(bo)
  await bo.getByRole('button', { name: 'Hand in', exact: true }).tap()
  await bo.getByRole('button', { name: 'Yes, hand in' }).tap()
  await expect(bo.getByRole('heading', { name: '2 of 2 right' })).toBeVisible()
  await expect(row.getByRole('status')).toContainText('1 of 2 has handed in')
  await bo.getByRole('button', { name: 'Question 2: Right.' }).tap()
  await expect(bo.getByRole('radio', { name: 'first quarter' })).toBeDisabled()
  await press(teacher.getByRole('button', { name: 'Close and show what is right' }))
  await expect(ada.getByRole('button', { name: 'Question 1: not answered' })).toBeVisible()

  // Led from one to the next: nobody has the next question before it is asked.
  await lead(3)
  for (const page of [ada, bo])
    await expect(page.getByRole('group', { name: 'The far side of the Moon' })).toBeVisible()
  await expect(ada.getByRole('button', { name: /^Question \d/ })).toHaveCount(1)
  await press(ada.getByRole('radio', { name: 'false' }), ' ')
  await saved(ada)
  await expect(teacher.getByText('Question 1 of 3')).toBeVisible()
  await press(teacher.getByRole('button', { name: 'Next question' }))
  for (const page of [ada, bo]) await expect(page.getByRole('group', { name: 'Which is nearer to us' })).toBeVisible()
  await press(teacher.getByRole('button', { name: 'Next question' }))
  await press(teacher.getByRole('button', { name: 'Close the questions' }))
  await press(teacher.getByRole('button', { name: 'Show what is right' }))
  await ada.getByRole('button', { name: /^Question 1/ }).click()
  await expect(ada.getByText('Your answer is right.')).toBeVisible()
  await press(teacher.getByRole('button', { name: 'Ask all again' }))
  for (const page of [ada, bo]) await expect(page.getByText('Round 2')).toBeVisible()

  // A memory game: by keys and by touch, going on where it was left, counted without a name.
  await lead(4)
  await expect(ada.getByRole('button', { name: /^Card \d+, face down$/ })).toHaveCount(12)
  const cards = await turnAll(ada, (at) => press(at))
  expect(cards.turns).toBeGreaterThanOrEqual(6)
  await expect(ada.getByText(`You have found all pairs in ${cards.turns} turns.`)).toBeVisible()
  await accessible(ada)
  const down = bo.getByRole('button', { name: /, face down$/ })
  await expect(down).toHaveCount(12)
  const [one, other] = cards.pairs[0]!
  await bo.getByRole('button', { name: `Card ${one}, face down` }).tap()
  await bo.getByRole('button', { name: `Card ${cards.pairs[1]![0]}, face down` }).tap()
  await expect(bo.getByText('These do not belong together.')).toBeVisible()
  await accessible(bo)
  await bo.getByRole('button', { name: `Card ${one}: ` }).tap()
  await expect(down).toHaveCount(11) // the one that was tapped stays, the other is covered
  await bo.getByRole('button', { name: `Card ${other}, face down` }).tap()
  await expect(bo.getByText('1 of 6 pairs, 2 turns')).toBeVisible()
  await saved(bo)
  await bo.reload()
  await expect(bo.getByText('1 of 6 pairs, 2 turns')).toBeVisible()
  await press(teacher.getByRole('tab', { name: 'Answers' }))
  const game = teacher.getByRole('region', { name: 'What belongs together?' })
  await expect(game).toContainText(`Pairs found together: 7, in ${cards.turns + 2} turns`)
  await expect(game.getByRole('listitem').filter({ hasText: 'all 6 pairs' })).toContainText('1 answer')
  await accessible(teacher)
})

/** Turns cards two at a time until all pairs are found; gives the turns, and the numbers of each pair's cards. */
async function turnAll(page: Page, press: (at: Locator) => Promise<unknown>) {
  const card = (n: number) => page.getByRole('button', { name: new RegExp(`^Card ${n}\\b`) })
  const isFound = async (n: number) => ((await card(n).getAttribute('aria-label')) ?? '').endsWith(', found')
  const pairs: [number, number][] = []
  let turns = 0
  for (let one = 1; one <= 12; one++) {
    for (let other = one + 1; other <= 12 && !(await isFound(one)); other++) {
      if (await isFound(other)) continue
      await press(card(one))
      await press(card(other))
      turns++
      if (await isFound(one)) pairs.push([one, other])
    }
  }
  return { turns, pairs }
}

test('questions come in from a text, onto one frame or each on its own; a board saves its questions', async ({
  browser,
}) => {
  const teacher = await device(browser, server.url)
  await signIn(teacher)
  await teacher.getByRole('button', { name: 'New board' }).click()
  await teacher.getByLabel('Name of the new board').fill('From a text')
  await teacher.getByRole('button', { name: 'Create' }).click()
  await teacher.getByRole('button', { name: 'Add frame' }).click()
  await teacher.getByRole('tab', { name: 'From a file' }).click()
  const text = '# Tides\nchoose: Which?\n+ one\n- two = took it for one\n\nshort: ?\nis:\n\nopen: Why?\n'
  const file = { name: 'tides.txt', mimeType: 'text/plain', buffer: Buffer.from(text) }
  await teacher.getByLabel('Choose a file, or drop it here').last().setInputFiles(file)
  await expect(teacher.getByText('Line or number 6: There is no answer yet.')).toBeVisible()
  await accessible(teacher)
  await teacher.getByRole('button', { name: 'Add 2 frames' }).click()
  const row = teacher.getByRole('region', { name: 'Questions in a row' })
  await expect(row.getByRole('listitem')).toHaveCount(3) // and the button that adds one
  await expect(row).toContainText('Which?')
  await press(row.getByRole('button', { name: 'Question 1 down' }))
  await expect(row.getByRole('listitem').first()).toContainText('Why?')
  await press(row.getByRole('button', { name: 'Add a question' }))
  await teacher.getByLabel('Question', { exact: true }).fill('And the third?')
  await press(teacher.getByRole('button', { name: 'Done' }))
  await expect(row.getByRole('listitem')).toHaveCount(4)
  await teacher.getByRole('combobox', { name: 'Students learn what is right' }).selectOption('right after each answer')
  await teacher.getByRole('combobox', { name: 'Tries for each question' }).selectOption('3')
  await accessible(teacher)
  await expect(teacher.locator('[data-part=saved]')).toContainText('saved')

  await teacher.getByRole('link', { name: 'Boards', exact: true }).click()
  await teacher.getByRole('button', { name: 'More for From a text' }).click()
  await teacher.getByRole('menuitem', { name: 'Save its questions as a file' }).click()
  await expect(teacher.getByText('All 3 questions are held whole.')).toBeVisible()
  await teacher.getByRole('radio', { name: 'QTI 3.0 package' }).check()
  await expect(teacher.getByText('names of mistakes')).toBeVisible()
  await accessible(teacher)
  const download = teacher.waitForEvent('download')
  await teacher.getByRole('button', { name: 'Save the file' }).click()
  expect((await download).suggestedFilename()).toBe('from-a-text-qti3.zip')
})

test('a question is heard: recorded here, and played to who may answer it', async ({ browser }) => {
  const teacher = await device(browser, server.url)
  await signIn(teacher)
  await teacher.getByRole('button', { name: 'New board' }).click()
  await teacher.getByLabel('Name of the new board').fill('To be heard')
  await teacher.getByRole('button', { name: 'Create' }).click()
  await teacher.getByRole('button', { name: 'Poll', exact: true }).click()
  await teacher.getByLabel('Question', { exact: true }).fill('Which bird is that?')
  await teacher.getByLabel('Answer 1', { exact: true }).fill('a tern')
  await teacher.getByLabel('Answer 2', { exact: true }).fill('a gull')
  await press(teacher.getByRole('button', { name: 'Why, sure or not, something to hear, time limit' }))
  await teacher.getByRole('button', { name: 'Record', exact: true }).click()
  await expect(teacher.getByText(/^Recording: [1-9]/)).toBeVisible()
  await teacher.getByRole('button', { name: 'Stop recording' }).click()
  const length = (page: Page) => page.getByLabel('Listen').evaluate((a: HTMLAudioElement) => a.duration)
  await expect.poll(() => length(teacher)).toBeGreaterThan(0.5)
  const notSound = { name: 'a.mp3', mimeType: 'audio/mpeg', buffer: Buffer.from('no sound') }
  await teacher.getByLabel('Bring in a recording').last().setInputFiles(notSound)
  await expect(teacher.getByText('This cannot be heard here.')).toBeVisible()
  await teacher.getByLabel('An address to look at').fill('https://harbour.example/birds')
  await accessible(teacher)
  await press(teacher.getByRole('button', { name: 'Done' }))
  await expect(teacher.locator('[data-part=saved]')).toContainText('saved')
  await teacher.getByRole('link', { name: 'Start…' }).click()
  await teacher.getByRole('combobox', { name: 'Class' }).selectOption({ index: 1 })
  await teacher.getByLabel('typed by the students').check()
  await teacher.getByRole('button', { name: 'Start now' }).click()
  const pill = teacher.getByRole('button', { name: /^Join code/ })
  const ada = await device(browser, server.url, phone)
  await join(ada, (await pill.innerText()).trim(), 'Ada')
  await expect.poll(() => length(ada)).toBeGreaterThan(0.5)
  await expect(ada.getByRole('link', { name: /harbour.example/ })).toHaveAttribute('rel', /noopener/)
  await accessible(ada)
  const src = await ada.getByLabel('Listen').getAttribute('src')
  const nobody = await device(browser, server.url)
  expect((await nobody.request.get(server.url + src)).status()).toBeGreaterThanOrEqual(400)
})
