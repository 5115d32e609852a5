import { expect, test, type Page } from '@playwright/test'
import { at, drag, lesson, part, place, tool } from '../support/frame'
import { accessible, addNote, device, join, phone, saved } from '../support/people'
import { demo } from '../support/demo'

const server = demo()

test('ink: seen while it grows, tidied, erased in part, taken back after a reload', async ({ browser }) => {
  const { students } = await lesson(browser, server.url, 'Noor', 'Kenji')
  const [noor, kenji] = students as [Page, Page]
  await tool(noor, 'Draw')
  await drag(
    noor,
    [
      [900, 400],
      [1000, 450],
      [1100, 400],
    ],
    false,
  )
  // The line is under the others' eyes before the pen is lifted.
  await expect(kenji.locator('[data-part=others-lines]')).toHaveAttribute('data-lines', '1')
  await noor.mouse.move(...(await at(noor, 1300, 450)), { steps: 8 })
  await noor.mouse.up()
  await expect(part(kenji, "Noor's drawn line")).toHaveCount(1)
  await expect(kenji.locator('[data-part=others-lines]')).toHaveAttribute('data-lines', '0')

  // The eraser shows what it takes, splits the line, and leaves others' lines alone.
  await tool(noor, 'Eraser')
  await drag(
    noor,
    [
      [1100, 300],
      [1100, 600],
    ],
    false,
  )
  await expect(noor.locator('[data-part=eraser]')).toBeVisible()
  await noor.mouse.up()
  await expect(part(noor, 'Your drawn line')).toHaveCount(2)
  await expect(part(kenji, "Noor's drawn line")).toHaveCount(2)
  await tool(kenji, 'Eraser')
  await drag(kenji, [
    [1000, 300],
    [1000, 600],
  ])
  await saved(kenji)
  await expect(part(noor, 'Your drawn line')).toHaveCount(2)
  await expect(kenji.getByText('no longer on the frame')).toHaveCount(0)
  await saved(noor)
  await noor.reload()
  await saved(noor)
  await noor.getByRole('button', { name: 'Undo' }).click()
  await expect(part(noor, 'Your drawn line')).toHaveCount(1)
  await noor.getByRole('button', { name: 'Redo' }).click()
  await expect(part(kenji, "Noor's drawn line")).toHaveCount(2)

  // A round line is offered as a circle; nothing is offered for a scribble.
  await tool(noor, 'Draw')
  const round: Array<[number, number]> = []
  for (let i = 0; i <= 36; i++)
    round.push([500 + 150 * Math.cos(i / 5.7) + 2 * Math.sin(i), 700 + 150 * Math.sin(i / 5.7)])
  await drag(noor, round)
  await expect(noor.getByText('Make it a clean circle?')).toBeVisible()
  await accessible(noor)
  await noor.getByRole('button', { name: 'Yes' }).click()
  await expect(part(kenji, "Noor's ellipse")).toBeVisible()
  await expect(part(noor, 'Your drawn line')).toHaveCount(2)
  await noor.getByRole('button', { name: 'Undo' }).click()
  await expect(part(noor, 'Your drawn line')).toHaveCount(3)
  await drag(noor, [
    [1000, 700],
    [1200, 900],
    [1010, 720],
    [1300, 690],
    [1020, 900],
    [1250, 800],
  ])
  await saved(noor)
  // What is asked now is answered after what was asked about the scribble.
  await addNote(noor, 'that was a scribble')
  await saved(noor)
  await expect(noor.getByText('Make it a clean')).toHaveCount(0)
})

test('picking up, arranging, grouping, copying: each one step to take back', async ({ browser }) => {
  const { students } = await lesson(browser, server.url, 'Vera', 'Tomo')
  const [vera, tomo] = students as [Page, Page]
  await addNote(tomo, "somebody else's")
  await tool(vera, 'Shape')
  await part(vera, 'diamond').click()
  await drag(vera, [
    [200, 600],
    [360, 760],
  ])
  await addNote(vera, 'one')
  await addNote(vera, 'two')
  const one = () => place(vera, 'Your note: one')
  const two = () => place(vera, 'Your note: two')
  // The server may have found them other places than the device: where others see them, they stay.
  for (const [own, words] of [
    [one, 'one'],
    [two, 'two'],
  ] as const)
    await expect
      .poll(async () => JSON.stringify(await own()) === JSON.stringify(await place(tomo, `Vera's note: ${words}`)))
      .toBe(true)
  const [a, b] = [await one(), await two()]
  // Notes begun without a place do not lie on each other.
  expect(a.x >= b.x + b.w || b.x >= a.x + a.w || a.y >= b.y + b.h || b.y >= a.y + a.h).toBe(true)

  // All of one's own moves together, and nobody else's does.
  const foreign = await place(vera, "Tomo's note: somebody else's")
  await vera.keyboard.press('Control+a')
  await expect(vera.getByText('3 selected')).toBeVisible()
  await vera.keyboard.press('Shift+ArrowDown')
  await expect.poll(async () => (await one()).y - a.y).toBe(50)
  expect((await two()).y - b.y).toBe(50)
  expect(await place(vera, "Tomo's note: somebody else's")).toEqual(foreign)
  await vera.keyboard.press('Control+z')
  await expect.poll(async () => (await one()).y).toBe(a.y)
  expect((await two()).y).toBe(b.y)

  // Lined up, grouped; a group is picked up as one.
  await vera.getByRole('button', { name: 'Arrange' }).click()
  await vera.getByRole('button', { name: 'Line up at the left' }).click()
  await expect.poll(async () => (await one()).x - (await two()).x).toBe(0)
  await vera.keyboard.press('Control+g')
  await saved(vera)
  await vera.keyboard.press('Escape')
  await part(vera, 'Your note: one').click()
  await expect(vera.getByText('3 selected')).toBeVisible()
  await vera.context().grantPermissions(['clipboard-read', 'clipboard-write'])
  await vera.getByRole('button', { name: 'Arrange' }).click()
  await vera.getByRole('button', { name: 'Copy as a picture' }).click()
  await expect
    .poll(() => vera.evaluate(async () => (await navigator.clipboard.read())[0]?.types.join()))
    .toBe('image/png')
  await accessible(vera)

  // Copied to the same frame, and taken back in one step.
  await vera.keyboard.press('Control+c')
  await vera.keyboard.press('Control+v')
  await expect(part(vera, /^Your/)).toHaveCount(6)
  await expect(part(tomo, "Vera's note: one")).toHaveCount(2)
  await vera.keyboard.press('Control+z')
  await expect(part(vera, /^Your/)).toHaveCount(3)
  // The same clipboard in another tab: the copies are whose tab it is.
  await tomo.locator('[data-part=workplace]').focus()
  await tomo.keyboard.press('Control+v')
  await expect(part(vera, "Tomo's note: two, in a group")).toBeVisible()
  await tomo.keyboard.press('Control+z')
  await expect(part(vera, /^Tomo's/)).toHaveCount(1)

  // Turned in steps of fifteen degrees, and by the handle.
  await vera.keyboard.press('Escape')
  await vera.keyboard.press('Escape')
  await addNote(vera, 'turns')
  await part(vera, 'Your note: turns').click()
  await vera.keyboard.press(']')
  await vera.keyboard.press(']')
  await expect(part(tomo, "Vera's note: turns")).toHaveCSS('rotate', '30deg')
  const knob = (await vera.locator('[data-part=turn]').boundingBox())!
  const mark = (await part(vera, 'Your note: turns').boundingBox())!
  const middle = [mark.x + mark.width / 2, mark.y + mark.height / 2] as const
  await vera.mouse.move(knob.x + knob.width / 2, knob.y + knob.height / 2)
  await vera.mouse.down()
  await vera.mouse.move(middle[0] - 120, middle[1] + 10, { steps: 6 })
  await vera.mouse.up()
  await expect
    .poll(() => part(vera, 'Your note: turns').evaluate((at) => parseFloat(getComputedStyle(at).rotate) % 15))
    .toBe(0)
  await vera.keyboard.press('Delete')
  await expect(part(tomo, "Vera's note: turns")).toHaveCount(0)

  // The lasso catches what lies inside.
  await vera.keyboard.press('Escape')
  await vera.getByRole('button', { name: 'Lasso' }).click()
  const box = await place(vera, 'Your diamond')
  const [x, y] = [box.x - 25, box.y - 25]
  await drag(vera, [
    [x, y],
    [x + box.w + 50, y],
    [x + box.w + 50, y + box.h + 50],
    [x, y + box.h + 50],
    [x, y + 30],
  ])
  await expect(vera.getByText('3 selected')).toBeVisible() // the diamond, with its group
})

test('an arrow follows what it is attached to; stamps; agreement; the teacher clears and takes it back', async ({
  browser,
}) => {
  const { teacher, students } = await lesson(browser, server.url, 'Ayo', 'Mila')
  const [ayo, mila] = students as [Page, Page]
  await addNote(ayo, 'cause')
  await addNote(ayo, 'effect')
  const centre = async (name: string) => {
    const p = await place(ayo, name)
    return [p.x + p.w / 2, p.y + p.h / 2] as [number, number]
  }
  await tool(ayo, 'Arrow')
  await drag(ayo, [await centre('Your note: cause'), await centre('Your note: effect')])
  const arrow = part(mila, "Ayo's arrow")
  await expect(arrow).toHaveCount(1)
  const before = await arrow.locator('path').last().getAttribute('d')
  await tool(ayo, 'Select')
  await part(ayo, 'Your note: effect').focus()
  await ayo.keyboard.press('Shift+ArrowUp')
  await expect.poll(() => arrow.locator('path').last().getAttribute('d')).not.toBe(before)
  // An end can be taken off what it holds, and put on again.
  const held = await arrow.locator('path').last().getAttribute('d')
  await tool(ayo, 'Select')
  await part(ayo, 'Your arrow').focus()
  await ayo.keyboard.press(' ')
  const end = (await ayo.locator('[data-part=end-to]').boundingBox())!
  await ayo.mouse.move(end.x + end.width / 2, end.y + end.height / 2)
  await ayo.mouse.down()
  await ayo.mouse.move(...(await at(ayo, 1300, 800)), { steps: 8 })
  await ayo.mouse.up()
  await expect.poll(() => arrow.locator('path').last().getAttribute('d')).toMatch(/L1300(\.\d)? 800/)
  await ayo.keyboard.press('Control+z')
  await expect.poll(() => arrow.locator('path').last().getAttribute('d')).toBe(held)
  await tool(ayo, 'Stamp')
  await ayo.getByRole('button', { name: 'idea', exact: true }).click()
  await ayo.mouse.click(...(await at(ayo, 1400, 300)))
  await expect(part(mila, "Ayo's stamp")).toBeVisible()

  // Names on everything, and one person's work alone.
  await addNote(mila, 'beside it')
  await teacher.getByRole('button', { name: 'View', exact: true }).click()
  await teacher.getByRole('menuitemcheckbox', { name: 'Show names' }).click()
  await expect(teacher.locator('[data-part=name]').getByText('Ayo')).toHaveCount(2) // the arrow and the stamp
  await teacher.getByRole('button', { name: 'View', exact: true }).click()
  await teacher.getByRole('menuitemradio', { name: 'Ayo' }).click()
  await expect(part(teacher, "Mila's note: beside it")).toHaveCSS('opacity', '0.15')
  await expect(part(teacher, "Ayo's note: cause")).toHaveCSS('opacity', '1')
  await teacher.getByRole('button', { name: 'Ayo', exact: true }).click()
  await teacher.getByRole('menuitemradio', { name: "everybody's work" }).click()
  await mila.keyboard.press('Control+z')
  await expect(part(teacher, "Mila's note: beside it")).toHaveCount(0)

  // Anybody may agree, once, and take it back; not with what is one's own.
  await part(mila, "Ayo's note: cause").click()
  await mila.getByRole('button', { name: 'I agree' }).click()
  await expect(part(ayo, 'Your note: cause, 1 agrees')).toBeVisible()
  await part(teacher, "Ayo's note: cause, 1 agrees").click()
  await teacher.getByRole('button', { name: 'I agree' }).click()
  await expect(part(ayo, 'Your note: cause, 2 agree')).toBeVisible()
  await mila.getByRole('button', { name: 'I agree' }).click()
  await expect(part(ayo, 'Your note: cause, 1 agrees')).toBeVisible()
  await tool(ayo, 'Select')
  await part(ayo, /Your note: cause/).click()
  await expect(ayo.getByRole('button', { name: 'I agree' })).toHaveCount(0)

  // What the teacher changed since is not taken back over their head.
  await teacher.keyboard.press('Escape') // what is selected has grips, which lie over what is beside it
  await part(teacher, /Ayo's note: effect/).dblclick()
  await teacher.getByLabel('Write here').fill('effect, or so')
  await teacher.keyboard.press('Escape')
  await expect(part(ayo, 'Your note: effect, or so')).toBeVisible()

  // The teacher clears everything, reloads, and takes it back.
  await addNote(mila, 'my own')
  await teacher.keyboard.press('Escape')
  await teacher.getByRole('button', { name: 'Clear …' }).click()
  await accessible(teacher)
  await teacher.getByRole('menuitem', { name: "Everybody's work" }).click()
  await expect(part(ayo, /^(Your|Mila's)/)).toHaveCount(0)
  await expect(ayo.getByRole('heading', { name: 'What do you notice in this tide table?' })).toBeVisible()
  await saved(teacher)
  await teacher.reload()
  await saved(teacher)
  await teacher.getByRole('button', { name: 'Undo' }).click()
  await expect(part(ayo, /^Your/)).toHaveCount(4)
  await expect(part(ayo, "Mila's note: my own")).toBeVisible()
  // Ayo's last deed was the stamp; before it, the move of a note that the teacher has changed since.
  await ayo.getByRole('button', { name: 'Undo' }).click()
  await ayo.getByRole('button', { name: 'Undo' }).click()
  await expect(ayo.getByText('Somebody else has changed this since')).toBeVisible()
  await expect(part(ayo, 'Your note: effect, or so')).toBeVisible()
})

test('the keyboard alone draws, lays down, reads as a list', async ({ browser }) => {
  const { students, teacher } = await lesson(browser, server.url, 'Liv')
  const [liv] = students as [Page]
  const press = async (...keys: string[]) => {
    for (const key of keys) await liv.keyboard.press(key)
  }
  await liv.getByRole('button', { name: 'Select', exact: true }).focus()
  await press('2') // the pen
  await liv.locator('[data-part=workplace]').focus()
  await press('Shift+ArrowRight', ' ', 'Shift+ArrowRight', 'Shift+ArrowRight', 'Shift+ArrowDown', ' ')
  await expect(part(teacher, "Liv's drawn line")).toHaveCount(1)
  await press('6', 'Shift+ArrowDown', ' ', 'Shift+ArrowRight', 'Shift+ArrowRight', 'Shift+ArrowDown', ' ')
  await expect(part(teacher, "Liv's rectangle")).toHaveCount(1)
  await expect(liv.getByRole('button', { name: 'Select', exact: true })).toHaveAttribute('aria-pressed', 'true')
  await press('8', ' ')
  await expect(part(teacher, "Liv's stamp")).toHaveCount(1)
  await press('3', 'Shift+ArrowUp', ' ', 'Shift+ArrowUp', 'Shift+ArrowUp', 'Shift+ArrowLeft', ' ')
  await saved(liv)
  await press('4')
  await expect(liv.getByLabel('Write here')).toBeFocused()
  await liv.keyboard.type('5 tides? 2!') // digits are words while one writes
  await press('Escape')
  await expect(part(liv, 'Your note: 5 tides? 2!')).toBeFocused()
  await press('?')
  await expect(liv.getByRole('dialog', { name: 'Keys' })).toBeVisible()
  await accessible(liv)
  await press('Escape')
  await expect(liv.getByRole('dialog')).toHaveCount(0)
  await liv.getByRole('button', { name: 'View', exact: true }).focus()
  await press('Enter')
  await liv.getByRole('menuitem', { name: 'Everything as a list' }).press('Enter')
  await expect(liv.getByRole('dialog').getByText('5 tides? 2!')).toBeVisible()
  await expect(liv.getByRole('dialog').getByText('Monday, 01:12')).toBeVisible()
  await accessible(liv)
  await liv.getByRole('button', { name: "Go to Liv's note" }).press('Enter')
  await expect(part(liv, 'Your note: 5 tides? 2!')).toBeFocused()
  await press('Alt+ArrowRight', '+')
  await expect(liv.getByRole('button', { name: 'Whole frame; now at 125 percent' })).toBeVisible()
})

test('two fingers zoom and move; a finger that rests asks whose it is; the phone folds its ledge', async ({
  browser,
}) => {
  const { code, students, teacher } = await lesson(browser, server.url, 'Hana')
  await addNote(students[0]!, 'Two tides a day')
  const kofi = await device(browser, server.url, phone)
  await join(kofi, code, 'Kofi')
  const cdp = await kofi.context().newCDPSession(kofi)
  const touch = (type: 'touchStart' | 'touchMove' | 'touchEnd', ...points: Array<[number, number]>) =>
    cdp.send('Input.dispatchTouchEvent', { type, touchPoints: points.map(([x, y], id) => ({ x, y, id })) })
  const [x, y] = await at(kofi, 800, 850)
  await touch('touchStart', [x - 40, y], [x + 40, y])
  for (let i = 1; i <= 8; i++) await touch('touchMove', [x - 40 - 8 * i, y], [x + 40 + 8 * i, y])
  await touch('touchEnd')
  await expect(kofi.getByRole('button', { name: /now at 2[0-9]{2} percent/ })).toBeVisible()
  await kofi.getByRole('button', { name: /Whole frame/ }).click()
  const box = (await part(kofi, "Hana's note: Two tides a day").boundingBox())!
  await touch('touchStart', [box.x + 20, box.y + 10])
  await expect(kofi.locator('[data-part=author]').getByText('Hana')).toBeVisible()
  await touch('touchEnd')
  await expect(kofi.getByRole('button', { name: 'Stamp', exact: true })).toHaveCount(0)
  await kofi.getByRole('button', { name: 'More', exact: true }).click()
  await kofi.getByRole('button', { name: 'Pointer', exact: true }).click()
  await accessible(kofi)
  // The pointer is seen by the others, with a name, and fades.
  await touch('touchStart', [x, y])
  for (let i = 1; i <= 5; i++) await touch('touchMove', [x + 6 * i, y])
  await expect(teacher.locator('[data-part=pointer]').getByText('Kofi')).toBeVisible()
  await touch('touchEnd')
  await expect(teacher.locator('[data-part=pointer]')).toHaveCount(0, { timeout: 4000 })
})

test('smoothing, spacing, stacking, resizing, duplicating, cutting', async ({ browser }) => {
  const { students, teacher } = await lesson(browser, server.url, 'Edda')
  const [edda] = students as [Page]
  // A shaky line becomes smoother, keeps its ends, and comes back whole.
  await tool(edda, 'Draw')
  await drag(
    edda,
    Array.from({ length: 40 }, (_, i): [number, number] => [
      900 + 12 * i,
      250 + (i === 0 || i === 39 ? 0 : i % 2 ? 7 : -7),
    ]),
  )
  const line = part(teacher, "Edda's drawn line")
  await expect(line).toHaveCount(1)
  const tall = async () => (await line.boundingBox())!.height
  const shaky = await tall()
  await saved(edda)
  await tool(edda, 'Select')
  await part(edda, 'Your drawn line').focus()
  await edda.keyboard.press(' ')
  await edda.getByRole('button', { name: 'Smooth the line' }).click()
  await expect.poll(tall).toBeLessThan(shaky - 4)
  await edda.keyboard.press('Control+z')
  await expect.poll(tall).toBe(shaky)
  // Ink is resized by its handle.
  const wide = (await place(teacher, "Edda's drawn line")).w
  const grip = (await edda.locator('[data-part=resize]').boundingBox())!
  await edda.mouse.move(grip.x + 11, grip.y + 11)
  await edda.mouse.down()
  await edda.mouse.move(grip.x + 91, grip.y + 60, { steps: 6 })
  await edda.mouse.up()
  await expect.poll(async () => (await place(teacher, "Edda's drawn line")).w).toBeGreaterThan(wide + 80)
  await edda.keyboard.press('Delete')
  await expect(line).toHaveCount(0)

  // Three boxes, spaced evenly; one duplicated, cut and pasted; one above another.
  for (const x of [150, 400, 900]) {
    await tool(edda, 'Shape')
    await drag(edda, [
      [x, 650],
      [x + 120, 750],
    ])
  }
  const boxes = () =>
    Promise.all(
      [0, 1, 2].map(async (i) => Math.round((await part(teacher, "Edda's rectangle").nth(i).boundingBox())!.x)),
    )
  await saved(edda)
  await edda.keyboard.press('Control+a')
  await edda.getByRole('button', { name: 'Arrange' }).click()
  await edda.getByRole('button', { name: 'Same gaps across' }).click()
  await expect
    .poll(async () => {
      const [a, b, c] = (await boxes()) as [number, number, number]
      return Math.abs(c - b - (b - a))
    })
    .toBeLessThanOrEqual(1)
  await edda.getByRole('button', { name: 'Dashed line' }).click()
  await expect(part(teacher, "Edda's rectangle").first().locator('[data-part=figure]')).toHaveAttribute(
    'stroke-dasharray',
    '14 12',
  )
  await edda.keyboard.press('Control+d')
  await expect(part(teacher, "Edda's rectangle")).toHaveCount(6)
  await edda.keyboard.press('Control+x')
  await expect(part(teacher, "Edda's rectangle")).toHaveCount(3)
  await edda.keyboard.press('Control+v')
  await expect(part(teacher, "Edda's rectangle")).toHaveCount(6)
  await edda.keyboard.press('Control+z')
  await edda.keyboard.press('Control+z')
  await expect(part(teacher, "Edda's rectangle")).toHaveCount(6)
  await edda.keyboard.press('Control+z')
  await expect(part(teacher, "Edda's rectangle")).toHaveCount(3)
  await edda.keyboard.press('Escape')
  await addNote(edda, 'under')
  await addNote(edda, 'over')
  const order = () =>
    teacher.locator('[data-part=frame] [data-mark]').evaluateAll((all) => all.map((m) => m.getAttribute('aria-label')!))
  await saved(edda)
  await part(edda, 'Your note: over').click()
  await edda.keyboard.press('Control+ArrowDown')
  await expect.poll(async () => (await order())[0]).toBe("Edda's note: over")
  await edda.keyboard.press('Control+ArrowUp')
  await expect.poll(async () => (await order()).at(-1)).toBe("Edda's note: over")

  // While something moves, lines show what it is in line with, and draw it there.
  const under = await place(edda, 'Your note: under')
  const over = await place(edda, 'Your note: over')
  const from: [number, number] = [over.x + 40, over.y + 60]
  await drag(edda, [from, [from[0] + 60, from[1] + 60], [from[0] + under.x - over.x + 4, from[1] + 150]], false)
  await expect(edda.locator('[data-part=tools] path.stroke-glow')).not.toHaveCount(0)
  await edda.mouse.up()
  await expect.poll(async () => Math.abs((await place(edda, 'Your note: over')).x - under.x)).toBeLessThanOrEqual(1)
})
