import { expect, test } from '@playwright/test'
import { spawn } from 'node:child_process'
import { lesson } from './support/frame'
import { device, phone } from './support/people'
import { DemoServer } from './support/server'
test('look', async ({ browser }) => {
  const server = await DemoServer.start()
  const { teacher, code, students } = await lesson(browser, server.url, 'Ada')
  const crowd = spawn('../bin/alpenglow', ['rehearse', '-url', server.url, '-code', code.replace(' ', ''), '-students', '27', '-pace', '0.2'])
  const screen = await device(browser, server.url)
  await screen.goto('/front')
  await expect(screen.locator('[data-part=front-code]')).toHaveText(/^\w{4}$/)
  await screen.screenshot({ path: '/tmp/f0.png' })
  const c = await screen.locator('[data-part=front-code]').innerText()
  await teacher.keyboard.press('Alt+f')
  await teacher.getByLabel('Code of another screen').fill(c.toLowerCase())
  await teacher.getByRole('button', { name: 'Connect' }).click()
  await expect(screen).toHaveURL(/front\//)
  await teacher.waitForTimeout(9000)
  await teacher.screenshot({ path: '/tmp/f1.png' })
  await screen.screenshot({ path: '/tmp/f2.png' })
  await teacher.getByLabel("The class's frame, live").check()
  await teacher.waitForTimeout(1500)
  await teacher.screenshot({ path: '/tmp/f3.png' })
  await teacher.getByRole('button', { name: 'Show this' }).click()
  await teacher.keyboard.press('Alt+t')
  await teacher.getByRole('button', { name: 'Start 2 min' }).click()
  await screen.waitForTimeout(1500)
  await screen.screenshot({ path: '/tmp/f4.png' })
  await teacher.screenshot({ path: '/tmp/f5.png' })
  await students[0]!.screenshot({ path: '/tmp/f6.png' })
  crowd.kill()
  server.remove()
})
