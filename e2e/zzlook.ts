import { test } from '@playwright/test'
import { crowd } from './support/crowd'
import { device, join, signIn } from './support/people'
import { DemoServer } from './support/server'
test('look', async ({ browser }) => {
  test.setTimeout(400_000)
  const server = await DemoServer.start()
  try {
    const page = await device(browser, server.url, { width: 1280, height: 800 })
    page.on('console', (m) => m.type() === 'error' && console.log('console', m.text()))
    page.on('pageerror', (e) => console.log('error', e.message))
    await signIn(page)
    await page.getByRole('link', { name: 'Start a lesson of What do you know of the tides?' }).click()
    await page.getByLabel('typed by the students').check()
    await page.getByRole('button', { name: 'Start now' }).click()
    const code = (await page.getByRole('button', { name: /^Join code/ }).innerText()).trim()
    crowd(server.url, code, 26, 0.15)
    const ada = await device(browser, server.url, { width: 390, height: 844 })
    await join(ada, code, 'Ada')
    await page.waitForTimeout(6000)
    for (let n = 1; n <= 12; n++) {
      if (n > 1) {
        await page.getByRole('button', { name: new RegExp(`Frame ${n}:?|^Go to frame ${n}`) }).first().click()
        await page.waitForTimeout(6500)
      }
      await page.getByRole('tab', { name: 'Answers' }).click()
      await page.waitForTimeout(700)
      await page.screenshot({ path: `/tmp/look/a${n}.png` })
      await ada.screenshot({ path: `/tmp/look/s${n}.png` })
      if (n === 1) {
        await page.getByRole('button', { name: 'Make pairs' }).click()
        await page.waitForTimeout(800)
        await ada.screenshot({ path: `/tmp/look/s1talk.png` })
        await page.screenshot({ path: `/tmp/look/a1talk.png` })
        await page.getByRole('button', { name: 'Ask again' }).first().click()
        await page.waitForTimeout(6500)
        await page.screenshot({ path: `/tmp/look/a1again.png`, fullPage: true })
      }
    }
  } finally {
    await server.remove()
  }
})
