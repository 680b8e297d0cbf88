import { randomUUID } from 'node:crypto'
import { expect, test } from '@playwright/test'
import { Secret, TOTP } from 'otpauth'
import { button } from './job'
import { DEMO_PASSWORD } from './people'

const OWN = 'rope and lamp and tide'

test('a second factor is set up, asked for at sign-in and when a session has ended, and stood in for by a recovery code', async ({
  page,
  playwright,
  baseURL,
}) => {
  const office = await playwright.request.newContext({ ...(baseURL ? { baseURL } : {}) })
  await office.post('/api/v1/session', { data: { username: 'petra', password: DEMO_PASSWORD } })
  const username = `nessa-${randomUUID().slice(0, 6)}`
  const added = await office.post('/api/v1/people', {
    data: {
      id: randomUUID(),
      username,
      name: 'Nessa Brook',
      roles: ['planner'],
      password: 'four unlike words stand here',
    },
  })
  expect(added.ok()).toBe(true)

  await page.goto('/')
  const enter = async (password: string) => {
    await page.getByLabel('Name', { exact: true }).fill(username)
    await page.getByLabel('Password', { exact: true }).fill(password)
    await button(page, 'Sign in').click()
  }
  await enter('four unlike words stand here')
  await page.getByLabel('Present password').fill('four unlike words stand here')
  await page.getByLabel('New password').fill(OWN)
  await button(page, 'Change the password').click()
  await expect(page.getByText('The new password is in force.')).toBeVisible()

  await button(page, 'Set it up').click()
  await page.getByLabel('Password', { exact: true }).fill(OWN)
  await button(page, 'Show the key').click()
  const secret = (await page.locator('.secret').innerText()).replaceAll(' ', '')
  const codes = new TOTP({ secret: Secret.fromBase32(secret) })
  await page.getByLabel('Code').fill('000000')
  await button(page, 'Confirm').click()
  await expect(page.getByText(/That is not the code/)).toBeVisible()
  await page.getByLabel('Code').fill(codes.generate())
  await button(page, 'Confirm').click()
  const shown = page.getByRole('list', { name: 'Recovery codes' }).locator('li')
  await expect(shown).toHaveCount(10)
  const recovery = await shown.allInnerTexts()
  await button(page, 'They are kept').click()
  await expect(page.getByText(/A code of your authenticator is asked for/)).toBeVisible()

  // The code that set it up is used; the next one is good.
  await page.request.delete('/api/v1/session')
  await page.getByRole('link', { name: 'Equipment' }).click()
  await expect(page.getByText('Your session has ended')).toBeVisible()
  await page.getByLabel('Password', { exact: true }).fill(OWN)
  await page.getByLabel(/^Code of your authenticator/).fill(codes.generate())
  await button(page, 'Go on').click()
  await expect(page.getByText('That is not the code, or it was used.').first()).toBeVisible()
  await page.getByLabel('Password', { exact: true }).fill(OWN)
  await page
    .getByLabel(/^Code of your authenticator/)
    .fill(codes.generate({ timestamp: Date.now() + 30_000 }))
  await button(page, 'Go on').click()
  await expect(page.getByText('Your session has ended')).toHaveCount(0)

  await button(page, 'Nessa Brook').click()
  await page.getByRole('menu').getByText('Sign out').click()
  await enter(OWN)
  const code = page.getByLabel(/or a recovery code$/)
  await expect(code).toBeFocused()
  await code.fill(recovery[0] ?? '')
  await button(page, 'Sign in').click()
  await expect(page.getByRole('button', { name: 'Nessa Brook' })).toBeVisible()
})
