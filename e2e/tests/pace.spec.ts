import { expect, test, type Page } from '@playwright/test'
import { accessible, addNote, device, draw, join, phone, saved, signIn } from '../support/people'
import { DemoServer } from '../support/server'

let server: DemoServer
test.beforeAll(async () => (server = await DemoServer.start()))
test.afterAll(() => server.stop())

/** Starts a session of the demo's board at own pace, with typed names, by keyboard where it matters. */
async function startAtOwnPace(teacher: Page): Promise<string> {
  await signIn(teacher)
  await teacher.getByRole('link', { name: 'Start a lesson of Moon and tides' }).click()
  await teacher.getByLabel('typed by the students').check()
  await teacher.getByLabel('own pace: students go from frame to frame').check()
  await accessible(teacher)
  await teacher.keyboard.press('Enter')
  const pill = teacher.getByRole('button', { name: /^Join code/ })
  await expect(pill).toBeVisible()
  return (await pill.innerText()).trim()
}

const heading = (page: Page, name: string) => expect(page.getByRole('heading', { level: 1, name })).toBeAttached()
const station = (page: Page, n: number) =>
  page
    .getByRole('navigation', { name: 'Frames of this board' })
    .getByRole('button', { name: new RegExp(`^Frame ${n}:`) })

test('own pace: each student goes their way, comes back to it, and is led again', async ({ browser }) => {
  const teacher = await device(browser, server.url)
  const code = await startAtOwnPace(teacher)
  const [noor, kenji] = [await device(browser, server.url, phone), await device(browser, server.url)]
  await join(noor, code, 'Noor')
  await join(kenji, code, 'Kenji')
  await accessible(noor)

  // Noor goes on with a finger, Kenji with the keyboard alone.
  await noor.getByRole('button', { name: 'Next frame' }).tap()
  await heading(noor, 'Where is the Moon?')
  await draw(noor, [
    [0.5, 0.3],
    [0.6, 0.4],
  ])
  await saved(noor)
  await expect(
    noor.getByRole('button', { name: 'Frame 2: Where is the Moon?, you have something on it' }),
  ).toHaveAttribute('aria-current', 'step')
  await kenji.getByRole('button', { name: /^Frame 3:/ }).focus()
  await kenji.keyboard.press('Enter')
  await heading(kenji, 'From new moon to new moon')
  await kenji.getByLabel('29.53 days').check()
  await saved(kenji)
  await accessible(kenji)

  // The teacher sees where they are, and moves nobody by looking.
  await expect(station(teacher, 2)).toHaveAccessibleName(/1 student is here now/)
  await expect(station(teacher, 3)).toHaveAccessibleName(/1 student is here now/)
  await expect(teacher.getByRole('complementary').getByText('on 3 ·')).toBeVisible()
  await station(teacher, 3).click()
  await expect(teacher.getByText('1 of 2 answered')).toBeVisible()
  await accessible(teacher)
  await heading(noor, 'Where is the Moon?')

  // One press on a name looks into that student's frame, wherever they are.
  await teacher.getByRole('button', { name: "Look into Noor's frame" }).click()
  await expect(
    teacher.getByRole('dialog', { name: "Noor's frame" }).getByRole('button', { name: /^Noor's drawn line/ }),
  ).toBeVisible()
  await teacher.keyboard.press('Escape')
  await expect(station(teacher, 2)).toHaveAttribute('aria-current', 'step')
  await station(teacher, 3).click()
  await heading(kenji, 'From new moon to new moon')

  // Noor's phone is put away and taken out again: the same frame, the same work.
  await noor.reload()
  await heading(noor, 'Where is the Moon?')
  await expect(noor.getByRole('button', { name: /^Your drawn line/ })).toBeVisible()

  // Without network she stays where she is, and is told why.
  await noor.context().setOffline(true)
  await expect(noor.getByText('no network')).toBeVisible()
  await expect(noor.getByRole('button', { name: 'Next frame' })).toHaveAttribute('aria-disabled', 'true')
  await expect(noor.getByText('Without network you stay on this frame. Your work is kept.')).toBeVisible()
  await noor.getByRole('button', { name: 'Next frame' }).tap({ force: true })
  await noor.context().setOffline(false)
  await saved(noor)
  await heading(noor, 'Where is the Moon?')

  // Open as far as frame 2: whoever is further on is brought back.
  await teacher.getByRole('button', { name: /^Pace: Own pace/ }).click()
  await teacher.getByLabel('Open as far as').selectOption({ label: '2: Where is the Moon?' })
  await heading(kenji, 'What do you notice?')
  await expect(kenji.getByRole('button', { name: /^Frame 3:/ })).toHaveCount(0)
  await heading(noor, 'Where is the Moon?')
  await accessible(teacher)

  // Leading again brings everybody to the teacher's frame.
  await teacher.getByLabel(/You lead/).check()
  await heading(noor, 'From new moon to new moon')
  await heading(kenji, 'From new moon to new moon')
  await expect(kenji.getByRole('navigation', { name: 'Frames you can go to' })).toHaveCount(0)
  await expect(kenji.getByLabel('29.53 days')).toBeChecked()
})

test('groups: one copy for each, seen by its own and by the teacher', async ({ browser }) => {
  const teacher = await device(browser, server.url)
  const code = await startAtOwnPace(teacher)
  const students = new Map<string, Page>()
  for (const name of ['Amara', 'Bilal', 'Chiara', 'Dmitri']) {
    const page = await device(browser, server.url, name === 'Amara' ? phone : undefined)
    await join(page, code, name)
    students.set(name, page)
  }
  await teacher.getByRole('button', { name: /^Change who shares/ }).click()
  await teacher.getByText('Each group', { exact: true }).click()
  await expect(
    teacher.getByText('Each group works on its own copy; the other groups do not see it.', { exact: false }),
  ).toBeVisible()
  await teacher.keyboard.press('Escape')
  await teacher.getByRole('button', { name: 'Groups', exact: true }).click()
  await teacher.getByLabel('Students in a group, at most').selectOption('2')
  await teacher.getByRole('button', { name: 'Shuffle' }).click()
  const dialog = teacher.getByRole('dialog', { name: 'Groups' })
  await expect(dialog.getByRole('heading', { name: 'Group 2' })).toBeVisible()
  await accessible(teacher)

  // Put Amara and Bilal together by keyboard, the other two into the other group.
  for (const [name, group] of [
    ['Amara', 'Group 1'],
    ['Bilal', 'Group 1'],
    ['Chiara', 'Group 2'],
    ['Dmitri', 'Group 2'],
  ] as const) {
    await dialog.getByLabel(`Group of ${name}`).selectOption({ label: group })
    await expect(dialog.getByLabel(`Group of ${name}`)).toHaveValue(group.slice(-1))
  }
  await teacher.keyboard.press('Escape')
  const [amara, bilal, chiara, dmitri] = [...students.values()] as [Page, Page, Page, Page]
  await expect(amara.getByText('group 1 with Bilal')).toBeVisible()
  await expect(dmitri.getByText('group 2 with Chiara')).toBeVisible()
  await addNote(amara, 'two high tides a day')
  await addNote(chiara, 'six hours apart')
  await expect(bilal.getByText('two high tides a day')).toBeVisible()
  await expect(dmitri.getByText('six hours apart')).toBeVisible()
  await expect(bilal.getByText('six hours apart')).toHaveCount(0)
  await expect(dmitri.getByText('two high tides a day')).toHaveCount(0)

  // The teacher looks into one group's frame and helps there.
  await teacher.getByRole('button', { name: /^Open the frame of Group 2 large. 1 thing/ }).click()
  const large = teacher.getByRole('dialog', { name: 'Group 2: their frame' })
  await expect(large.getByText('six hours apart')).toBeVisible()
  await accessible(teacher)
  await large.getByRole('button', { name: 'Note', exact: true }).click()
  await large.getByLabel('Write here').fill('Always exactly?')
  await large.getByLabel('Write here').blur()
  await expect(dmitri.getByText('Always exactly?')).toBeVisible()
  await expect(amara.getByText('Always exactly?')).toHaveCount(0)
  await teacher.keyboard.press('Escape')

  // Back to one frame for all: the groups' work is kept, and comes back with the groups.
  const share = async (how: string) => {
    await teacher.getByRole('button', { name: /^Change who shares/ }).click()
    await teacher.getByText(how, { exact: true }).click()
    await teacher.keyboard.press('Escape')
  }
  // What Bilal did meanwhile without network is kept, too.
  await bilal.context().setOffline(true)
  await addNote(bilal, 'written without network')
  await share('Whole class')
  await bilal.context().setOffline(false)
  await expect(bilal.getByText('shared with the class')).toBeVisible()
  await saved(bilal)
  await expect(bilal.getByText('two high tides a day')).toHaveCount(0)
  await addNote(amara, 'for all to see')
  await saved(amara)
  await share('Each group')
  await expect(teacher.getByRole('button', { name: /^Open the frame of Whole class large. 1 thing/ })).toBeVisible()
  await expect(amara.getByText('written without network')).toBeVisible()
  await expect(bilal.getByText('two high tides a day')).toBeVisible()

  await teacher.getByRole('button', { name: 'Finish' }).click()
  await teacher.getByRole('button', { name: 'Finish and open the record' }).click()
  await expect(teacher.getByText('two high tides a day').first()).toBeVisible()
  await expect(teacher.getByText('six hours apart').first()).toBeVisible()
})
