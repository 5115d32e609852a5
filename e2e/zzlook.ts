import { test } from '@playwright/test'
import { device, phone, signIn, join } from './support/people'
import { DemoServer } from './support/server'
test('look', async ({ browser }) => {
  test.setTimeout(200000)
  const server = await DemoServer.start()
  try {
    const ines = await device(browser, server.url)
    await signIn(ines)
    const shot = (p: typeof ines, n: string) => p.screenshot({ path: `/tmp/shots/${n}.png` })
    await ines.waitForTimeout(800)
    await shot(ines, 'boards')
    await ines.goto('/classes'); await ines.waitForTimeout(500); await shot(ines, 'classes')
    await ines.getByText('8 Juniper').click(); await ines.waitForTimeout(500); await shot(ines, 'class')
    await ines.getByRole('tab', { name: 'Groups' }).click(); await shot(ines, 'groups')
    await ines.getByRole('tab', { name: 'Seats' }).click(); await shot(ines, 'seats')
    await ines.getByRole('tab', { name: 'Teachers' }).click(); await shot(ines, 'teachers')
    await ines.getByRole('link', { name: 'Name cards' }).click(); await ines.waitForTimeout(600); await shot(ines, 'cards')
    await ines.goto('/settings'); await ines.waitForTimeout(500); await ines.screenshot({ path: '/tmp/shots/settings.png', fullPage: true })
    await ines.goto('/school'); await ines.waitForTimeout(500); await shot(ines, 'school')
    await ines.goto('/account'); await ines.waitForTimeout(500); await ines.getByRole('button', { name: 'Set it up' }).click(); await ines.waitForTimeout(500); await ines.screenshot({ path: '/tmp/shots/account.png', fullPage: true })
    await ines.goto('/staff'); await ines.waitForTimeout(500); await shot(ines, 'staff')
    await ines.goto('/classes'); await ines.getByRole('button', { name: 'New class' }).click()
    await ines.getByLabel('Name of the class').fill('8 Larch')
    await ines.getByLabel('Names', { exact: true }).fill('No.\tSurname\tFirst name\tBorn\n1\tHaddad\tNoor\t2012\n2\tMori\tKenji\t2013\n3\t...\t\t\n4\tHaddad\tNoor\t2012')
    await ines.waitForTimeout(900); await shot(ines, 'newclass')
    await ines.keyboard.press('Escape')
    const noor = await device(browser, server.url, phone)
    await noor.goto('/card'); await noor.waitForTimeout(400); await shot(noor, 'card-phone')
    await noor.goto('/'); await noor.waitForTimeout(400); await shot(noor, 'start-phone')
  } finally { await server.remove() }
})
