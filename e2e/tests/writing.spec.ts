import { expect, test, type Page } from '@playwright/test'
import { at, lesson, part, tool } from '../support/frame'
import { accessible, addNote, device, join, saved } from '../support/people'
import { demo } from '../support/demo'

const server = demo()

test('pictures from file, camera and clipboard; links; what is not safe is refused', async ({ browser }) => {
  const { students, teacher } = await lesson(browser, server.url, 'Sofi')
  const [sofi] = students as [Page]
  await sofi.context().grantPermissions(['camera', 'clipboard-read', 'clipboard-write'])
  const drawing = Buffer.from(
    '<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 40 20"><circle cx="10" cy="10" r="8" fill="#33448f"/></svg>',
  )
  await tool(sofi, 'Picture')
  await accessible(sofi)
  await sofi.locator('input[type=file]').setInputFiles({ name: 'moon.svg', mimeType: 'image/svg+xml', buffer: drawing })
  await expect(part(teacher, "Sofi's picture")).toBeVisible()
  const shown = teacher.getByRole('button', { name: "Sofi's picture" }).locator('img')
  expect(await shown.evaluate((img: HTMLImageElement) => img.decode().then(() => img.naturalWidth))).toBe(800)
  await sofi.getByRole('button', { name: 'Say what is on the picture' }).click()
  await sofi.getByRole('textbox', { name: 'Say what is on the picture' }).fill('the Moon, drawn')
  await sofi.keyboard.press('Escape')
  await expect(part(teacher, "Sofi's picture: the Moon, drawn")).toBeVisible()
  await tool(sofi, 'Picture')
  const evil = Buffer.from('<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 4 4"><script>alert(1)</script></svg>')
  await sofi.locator('input[type=file]').setInputFiles({ name: 'evil.svg', mimeType: 'image/svg+xml', buffer: evil })
  await expect(sofi.getByText('This picture cannot be read')).toBeVisible()
  await tool(sofi, 'Picture')
  await sofi.getByRole('button', { name: 'Take a picture' }).click()
  await expect(sofi.getByRole('button', { name: 'Take it' })).toBeEnabled()
  await sofi.getByRole('button', { name: 'Take it' }).click()
  await expect(part(teacher, /^Sofi's picture/)).toHaveCount(2)

  // One that is on its way can be stopped; one may be dropped on the frame.
  await sofi.route('**/pictures', async (route) => {
    await new Promise((resolve) => setTimeout(resolve, 12_000))
    await route.continue().catch(() => {})
  })
  await sofi.keyboard.press('Escape')
  await tool(sofi, 'Picture')
  await sofi.locator('input[type=file]').setInputFiles({ name: 'slow.svg', mimeType: 'image/svg+xml', buffer: drawing })
  await expect(sofi.getByRole('progressbar', { name: 'slow.svg' })).toBeVisible()
  await accessible(sofi)
  await sofi.getByRole('button', { name: 'Stop slow.svg' }).click()
  await expect(sofi.getByRole('progressbar')).toHaveCount(0)
  await sofi.unroute('**/pictures')
  await sofi.locator('[data-part=workplace]').evaluate((at, text) => {
    const dropped = new DataTransfer()
    dropped.items.add(new File([text], 'dropped.svg', { type: 'image/svg+xml' }))
    const box = at.getBoundingClientRect()
    at.dispatchEvent(
      new DragEvent('drop', {
        bubbles: true,
        cancelable: true,
        dataTransfer: dropped,
        clientX: box.x + 900,
        clientY: box.y + 400,
      }),
    )
  }, drawing.toString())
  await expect(part(teacher, /^Sofi's picture/)).toHaveCount(3)

  // Far too much at once is refused as a whole.
  await sofi.locator('[data-part=workplace]').focus()
  await sofi.evaluate(() => {
    const flood = new DataTransfer()
    const note = {
      id: 'x',
      z: 1,
      at: 1,
      x: 1,
      y: 1,
      w: 100,
      h: 100,
      kind: 'note',
      note: { text: 'flood', tint: 'moss' },
    }
    flood.setData('application/vnd.alpenglow.marks+json', JSON.stringify(Array.from({ length: 5000 }, () => note)))
    document.dispatchEvent(new ClipboardEvent('paste', { bubbles: true, cancelable: true, clipboardData: flood }))
  })
  await expect(sofi.getByText('That was too much at once')).toBeVisible()
  await expect(part(teacher, /flood/)).toHaveCount(0)

  // Words and addresses from other programs.
  await sofi.keyboard.press('Escape')
  const paste = async (text: string) => {
    await sofi.evaluate((words) => navigator.clipboard.writeText(words), text)
    await sofi.locator('[data-part=workplace]').focus()
    await sofi.keyboard.press('Control+v')
  }
  await paste('pasted from elsewhere')
  await expect(part(teacher, "Sofi's note: pasted from elsewhere")).toBeVisible()
  await paste('https://tides.example/table')
  await expect(part(teacher, /^Sofi's link/)).toBeVisible()
  await expect(teacher.getByText('tides.example')).toBeVisible()
  await tool(sofi, 'Link')
  await sofi.getByLabel('Web address').fill('javascript:alert(1)')
  await sofi.getByRole('button', { name: 'Add the link' }).click()
  await expect(sofi.getByRole('alert').filter({ hasText: 'no web address' })).toBeVisible()
  await accessible(sofi)
})

test('who writes where is seen, and one keeps what one is typing', async ({ browser }) => {
  const { teacher, students } = await lesson(browser, server.url, 'Juno')
  const [juno] = students as [Page]
  await addNote(juno, 'neap')
  await part(juno, 'Your note: neap').dblclick()
  await juno.keyboard.type(' tide')
  await expect(teacher.getByText('Juno is writing')).toBeVisible()
  await part(teacher, /Juno's note/).click()
  await teacher.getByRole('button', { name: 'light blue', exact: true }).click()
  await saved(teacher)
  await juno.keyboard.type('s are small')
  await juno.keyboard.press('Escape')
  await expect(part(teacher, "Juno's note: neap tides are small")).toBeVisible()
  await expect(teacher.getByText('Juno is writing')).toHaveCount(0)
  await teacher.evaluate(() => (document.activeElement as HTMLElement | null)?.blur())
  // What others do is told politely and in groups.
  await addNote(teacher, 'look here')
  await expect(juno.locator('[data-part=announcer]')).toContainText('Teacher added one thing.', { timeout: 8000 })
  // The way around the screen is offered, can be left, and called again.
  await juno.getByRole('button', { name: 'New here? Have a look around' }).click()
  await expect(juno.getByRole('dialog', { name: 'Show me around' })).toBeVisible()
  await accessible(juno)
  await juno.keyboard.press('Enter')
  await expect(juno.getByText('2 of 4')).toBeVisible()
  await juno.keyboard.press('Escape')
  await expect(juno.getByRole('dialog')).toHaveCount(0)
})

test('texts with lists; the view goes into the frame and never gets lost', async ({ browser }) => {
  const { students, teacher } = await lesson(browser, server.url, 'Ilse')
  const [ilse] = students as [Page]
  await tool(ilse, 'Text')
  await ilse.getByLabel('Write here').fill('new moon\nfull moon')
  await ilse.keyboard.press('Escape')
  const text = part(teacher, /^Ilse's text/)
  await expect(text).toBeVisible()
  await part(ilse, /^Your text/).click()
  await ilse.getByRole('button', { name: 'List with points' }).click()
  await ilse.getByRole('button', { name: 'Bold' }).click()
  await ilse.getByRole('button', { name: 'purple', exact: true }).click()
  await ilse.getByRole('button', { name: 'very large' }).click()
  await expect(text.getByRole('listitem')).toHaveText(['new moon', 'full moon'])
  await expect(text).toHaveCSS('font-weight', '700')
  await expect(text).toHaveCSS('font-size', '90px')
  await saved(ilse)

  // The wheel zooms about where it is, to 400 percent at most and 25 at least.
  await ilse.mouse.move(...(await at(ilse, 400, 700)))
  const before = await at(ilse, 400, 700)
  await ilse.mouse.wheel(0, -200)
  const zoom = () => ilse.getByRole('button', { name: /^Whole frame; now at/ }).getAttribute('aria-label')
  await expect.poll(zoom).toMatch(/at 1[0-9]{2} percent/)
  const after = await at(ilse, 400, 700)
  expect(Math.hypot(after[0] - before[0], after[1] - before[1])).toBeLessThan(3)
  await expect(ilse.locator('[data-part=overview]')).toBeVisible()
  for (const [wheel, most] of [
    [-4000, '400'],
    [9000, '25'],
  ] as const) {
    await ilse.keyboard.down('Control')
    await ilse.mouse.wheel(0, wheel)
    await ilse.keyboard.up('Control')
    await expect.poll(zoom).toContain(`at ${most} percent`)
  }
  await ilse.getByRole('button', { name: /^Whole frame/ }).click()
  for (const key of ['+', '+', '+', '+']) await ilse.keyboard.press(key)
  // Moved with the middle button, and with Space held down; a mark that gets the focus comes into sight.
  const corner = await at(ilse, 800, 500)
  await ilse.mouse.move(...corner)
  await ilse.mouse.down({ button: 'middle' })
  await ilse.mouse.move(corner[0] - 150, corner[1] - 100, { steps: 5 })
  await ilse.mouse.up({ button: 'middle' })
  const moved = await at(ilse, 800, 500)
  expect(Math.round(corner[0] - moved[0])).toBe(150)
  await ilse.locator('[data-part=workplace]').focus()
  await ilse.keyboard.down(' ')
  await ilse.mouse.down()
  await ilse.mouse.move(corner[0] - 1200, corner[1] - 900, { steps: 5 })
  await ilse.mouse.up()
  await ilse.keyboard.up(' ')
  await part(ilse, /^Your text/).focus()
  await expect(part(ilse, /^Your text/)).toBeInViewport({ ratio: 0.5 })
  await expect(part(ilse, /^Your text/)).toHaveCount(1) // nothing was drawn or moved by all that
  await expect(ilse.getByRole('button', { name: 'Redo' })).toBeDisabled()
})

test('dictated where the browser can, absent where it cannot; read aloud', async ({ browser }) => {
  const { code } = await lesson(browser, server.url)
  // The browser here has no speech of its own: one that always hears the same stands in for it.
  const mute = await device(browser, server.url)
  await mute.addInitScript(() => {
    delete (window as { SpeechRecognition?: unknown }).SpeechRecognition
    delete (window as { webkitSpeechRecognition?: unknown }).webkitSpeechRecognition
  })
  await join(mute, code, 'Wim')
  await tool(mute, 'Note')
  await expect(mute.getByLabel('Write here')).toBeVisible()
  await expect(mute.getByRole('button', { name: 'Dictate' })).toHaveCount(0)

  const heard = await device(browser, server.url)
  await heard.addInitScript(() => {
    class Hears {
      onresult: ((e: unknown) => void) | null = null
      onerror: ((e: { error: string }) => void) | null = null
      onend: (() => void) | null = null
      static silent = false
      start() {
        setTimeout(() => {
          if (Hears.silent) this.onerror?.({ error: 'no-speech' })
          else this.onresult?.({ results: [[{ transcript: 'spring tide' }]] })
          if (Hears.silent) this.onend?.()
        }, 300)
      }
      stop() {
        this.onend?.()
      }
    }
    Object.assign(window, { SpeechRecognition: Hears, said: [] as string[] })
    SpeechSynthesis.prototype.speak = (words) => void (window as unknown as { said: string[] }).said.push(words.text)
  })
  await join(heard, code, 'Xenia')
  await tool(heard, 'Note')
  await heard.getByLabel('Write here').fill('today a')
  // Hearing nothing is said, and the button stays; what is typed while it listens is not lost.
  await heard.evaluate(
    () => ((window as unknown as { SpeechRecognition: { silent: boolean } }).SpeechRecognition.silent = true),
  )
  await heard.getByRole('button', { name: 'Dictate' }).click()
  await expect(heard.getByText('Nothing was heard.')).toBeVisible()
  await heard.evaluate(
    () => ((window as unknown as { SpeechRecognition: { silent: boolean } }).SpeechRecognition.silent = false),
  )
  await heard.getByLabel('Write here').fill('today')
  await heard.getByRole('button', { name: 'Dictate' }).click()
  await heard.getByLabel('Write here').fill('today a')
  await expect(heard.getByLabel('Write here')).toHaveValue('today a spring tide')
  await heard.getByRole('button', { name: 'Stop dictating' }).click()
  await heard.getByLabel('Write here').press('Escape')
  await expect(part(mute, "Xenia's note: today a spring tide")).toBeVisible()
  await part(heard, /^Your note/).click()
  await heard.getByRole('button', { name: 'Read aloud' }).click()
  await heard.getByRole('button', { name: 'View', exact: true }).click()
  await heard.getByRole('menuitem', { name: 'Read the task aloud' }).click()
  const said = await heard.evaluate(() => (window as unknown as { said: string[] }).said)
  expect(said).toEqual(['today a spring tide', 'What do you notice in this tide table?'])
})
