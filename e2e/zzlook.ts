import { test } from '@playwright/test'
import { spawn } from 'node:child_process'
import { lesson } from './support/frame'
import { addNote, device, join, phone } from './support/people'
import { DemoServer } from './support/server'
test('look', async ({ browser }) => {
  test.setTimeout(240_000)
  const server = await DemoServer.start()
  const { teacher, code, students } = await lesson(browser, server.url, 'Ada', 'Bo')
  const [ada, bo] = students as any
  const crowd = spawn('../bin/alpenglow', ['rehearse', '-url', server.url, '-code', code, '-students', '26', '-pace', '0.5'], { stdio: 'ignore' })
  try {
    await teacher.waitForTimeout(15000)
    const shot = (p: any, n: string) => p.screenshot({ path: `/tmp/look/${n}.png` })
    await shot(teacher, 'run')
    await teacher.keyboard.press('Alt+l')
    await teacher.waitForTimeout(300)
    await shot(teacher, 'lockmenu')
    await teacher.getByRole('menuitemcheckbox', { name: 'all frames' }).nth(1).click()
    await teacher.keyboard.press('Escape')
    await teacher.waitForTimeout(6000)
    await addNote(ada, 'The Moon pulls the water towards itself').catch((e: any) => console.log(String(e)))
    await ada.waitForTimeout(1000)
    await shot(ada, 'ada')
    await shot(teacher, 'run2')
    await teacher.getByRole('button', { name: 'Read', exact: true }).click()
    await teacher.waitForTimeout(500)
    await shot(teacher, 'queue')
    await teacher.keyboard.press('n')
    await teacher.keyboard.type('Say it in your own words')
    await shot(teacher, 'queue-no')
    await teacher.keyboard.press('Enter')
    await teacher.waitForTimeout(500)
    await teacher.keyboard.press('y')
    await teacher.keyboard.press('y')
    await teacher.waitForTimeout(1500)
    await shot(teacher, 'queue2')
    await teacher.keyboard.press('Escape')
    await teacher.getByRole('tab', { name: "Everyone's work" }).click()
    await teacher.waitForTimeout(1500)
    await shot(teacher, 'everyone')
  } finally {
    crowd.kill()
    await server.remove()
  }
})
