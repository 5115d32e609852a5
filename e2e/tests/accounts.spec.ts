import { expect, test } from '@playwright/test'
import { join } from 'node:path'
import { accessible, device, phone } from '../support/people'
import { DemoServer } from '../support/server'

test('a school moves in: from an empty database to the first account, a colleague, and a new password', async ({
  browser,
}) => {
  const house = await DemoServer.bare()
  try {
    const link = /http\S+\/invitation#\S+/.exec(house.said)![0]
    expect(house.said).toContain('Nobody has an account yet.')
    const rosa = await device(browser, house.url)
    await rosa.goto(link)
    await expect(rosa.getByText('You will look after the accounts')).toBeVisible()
    await accessible(rosa)
    const password = rosa.getByLabel('Password')
    await rosa.getByLabel('Your name').fill('Rosa Marlow')
    await rosa.getByLabel('E-mail').fill('rosa@tern-harbour.example')
    await password.fill('password1234')
    await rosa.keyboard.press('Enter')
    await expect(rosa.getByText('among the first that somebody would try')).toBeVisible()
    await password.fill('kettle and otter')
    await rosa.keyboard.press('Enter')
    await expect(rosa.getByRole('heading', { level: 1, name: 'Boards' })).toBeVisible()
    await rosa.getByRole('button', { name: 'New board' }).click()
    await rosa.getByLabel('Name').fill('Tides')
    await rosa.keyboard.press('Enter')
    await expect(rosa).toHaveURL(/\/boards\/.+/)
    // A class from a spreadsheet; a line that is no name is shown and stays out.
    await rosa.goto('/classes')
    await rosa.getByRole('button', { name: 'New class' }).click()
    await rosa.getByLabel('Name of the class').fill('8 Rowan')
    await rosa
      .getByLabel('Open a file')
      .last()
      .setInputFiles(join(import.meta.dirname, '../support/8-rowan.xlsx'))
    await expect(rosa.getByText('1 line is no name and stays out.')).toBeVisible()
    await expect(rosa.getByText('1 name is there twice. Both are kept.')).toBeVisible()
    await expect(rosa.getByLabel('Column 2')).toHaveValue('family')
    await accessible(rosa)
    await rosa.getByRole('button', { name: 'Make the class with 4 students' }).click()
    await rosa.getByRole('link', { name: '8 Rowan' }).click()
    await expect(rosa.getByRole('tabpanel').getByRole('listitem')).toHaveCount(4)
    await expect(rosa.getByText('in lessons: Noor Haddad 2')).toBeVisible()
    await rosa.getByRole('button', { name: 'What else about Zofia Novak' }).click()
    await rosa.getByRole('menuitem', { name: 'Take off the list' }).click()
    await expect(rosa.getByRole('button', { name: 'Bring Zofia Novak back' })).toBeVisible()
    await accessible(rosa)
    // The first lesson: students find their names.
    await rosa.goto('/boards')
    await rosa.getByRole('link', { name: 'Start a lesson of Tides' }).click()
    await rosa.getByRole('button', { name: 'Start now' }).click()
    const code = (await rosa.getByRole('button', { name: /^Join code/ }).innerText()).trim().replace(' ', '')
    const noor = await device(browser, house.url, phone)
    await noor.goto(`/join/${code}`)
    await expect(noor.getByText('Kenji Mori')).toBeVisible()
    // Two of one name are told apart; who has left is not there.
    await expect(noor.getByText('Noor Haddad', { exact: true })).toHaveCount(1)
    await expect(noor.getByText('Zofia')).toHaveCount(0)
    await noor.getByText('Noor Haddad 2').click()
    await noor.getByRole('button', { name: 'Join', exact: true }).click()
    await expect(noor).toHaveURL(/\/lesson\//)

    // The link was good once.
    const late = await device(browser, house.url, phone)
    await late.goto(link)
    await expect(late.getByText('This link was used already, or is too old.')).toBeVisible()

    // A colleague, by a link to hand on.
    await rosa.goto('/staff')
    await accessible(rosa)
    await rosa.getByRole('button', { name: 'Invite somebody' }).click()
    await rosa.getByLabel('E-mail address, if you know it').fill('ben.oduya@tern-harbour.example')
    await rosa.keyboard.press('Enter')
    const invitation = await rosa.getByLabel('Link to hand on').inputValue()
    await accessible(rosa)
    await rosa.keyboard.press('Escape')
    const ben = await device(browser, house.url, phone)
    await ben.goto(invitation)
    await expect(ben.getByLabel('E-mail')).toHaveValue('ben.oduya@tern-harbour.example')
    await ben.getByLabel('Your name').fill('Ben Oduya')
    await ben.getByLabel('Password').fill('harbour light seven')
    await ben.getByRole('button', { name: 'Make my account' }).click()
    await expect(ben.getByRole('heading', { level: 1, name: 'Boards' })).toBeVisible()
    // Nobody sees another teacher's boards, nor the accounts.
    await expect(ben.getByText('Tides')).toHaveCount(0)
    await expect(ben.getByRole('link', { name: 'Staff' })).toHaveCount(0)
    await ben.goto('/staff')
    await expect(ben.getByText('Only administrators may do this.').first()).toBeVisible()

    // His own account: another name and password, signed out elsewhere.
    await ben.goto('/account')
    await expect(ben.getByText('here', { exact: true })).toBeVisible()
    await accessible(ben)
    await ben.getByLabel('Present password').fill('harbour light seven')
    await ben.getByLabel('New password').fill('eight lamps at sea')
    await ben.getByRole('button', { name: 'Change the password' }).click()
    await expect(ben.getByText('Changed. You were signed out everywhere else.')).toBeVisible()

    // The last administrator stays; a colleague leaves, is out at once, and comes back.
    await rosa.reload()
    await rosa.getByRole('button', { name: 'More about Rosa Marlow' }).click()
    await rosa.getByRole('menuitem', { name: 'Let leave: no more signing in' }).click()
    await expect(rosa.getByText('Somebody has to look after the accounts.', { exact: false })).toBeVisible()
    await rosa.getByRole('button', { name: 'More about Ben Oduya' }).click()
    await rosa.getByRole('menuitem', { name: 'Let leave: no more signing in' }).click()
    await expect(rosa.getByRole('listitem').filter({ hasText: 'Ben Oduya' })).toContainText('has left')
    await ben.goto('/boards')
    await expect(ben).toHaveURL(/\/sign-in/)
    await rosa.getByRole('button', { name: 'More about Ben Oduya' }).click()
    await rosa.getByRole('menuitem', { name: 'Let come back' }).click()
    await ben.getByLabel('E-mail').fill('ben.oduya@tern-harbour.example')
    await ben.getByLabel('Password').fill('eight lamps at sea')
    await ben.getByRole('button', { name: 'Sign in' }).click()
    await expect(ben.getByRole('heading', { level: 1, name: 'Boards' })).toBeVisible()
  } finally {
    await house.remove()
  }
})
