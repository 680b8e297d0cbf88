import { expect, test } from '@playwright/test'
import { button } from './job'
import { DEMO_PASSWORD } from './people'

test('a passkey is set up, signs in without password, once for each challenge, and is taken off', async ({
  browser,
  baseURL,
}) => {
  // Passkeys belong to a name, and this machine has one besides its number.
  const base = (baseURL ?? '').replace('127.0.0.1', 'localhost')
  const context = await browser.newContext({ baseURL: base })
  const page = await context.newPage()
  const cdp = await context.newCDPSession(page)
  await cdp.send('WebAuthn.enable')
  const { authenticatorId } = await cdp.send('WebAuthn.addVirtualAuthenticator', {
    options: {
      protocol: 'ctap2',
      transport: 'internal',
      hasResidentKey: true,
      hasUserVerification: true,
      isUserVerified: true,
      automaticPresenceSimulation: true,
    },
  })

  await page.goto('/sign-in?to=/account')
  await page.getByLabel('Name', { exact: true }).fill('jori')
  await page.getByLabel('Password', { exact: true }).fill(DEMO_PASSWORD)
  await button(page, 'Sign in').click()
  const passkeys = page.getByRole('region', { name: 'Passkeys' })
  await passkeys.getByRole('button', { name: 'Set a passkey up' }).click()
  await passkeys.getByLabel('What it is in').fill('Key ring')
  await passkeys.getByLabel('Password').fill('not this one')
  await passkeys.getByRole('button', { name: 'Set the passkey up' }).click()
  await expect(passkeys.getByText('That is not your password.')).toBeVisible()
  await passkeys.getByLabel('Password').fill(DEMO_PASSWORD)
  await passkeys.getByRole('button', { name: 'Set the passkey up' }).click()
  await expect(passkeys.getByText('Key ring')).toBeVisible()
  await expect(passkeys.getByText(/not used yet/)).toBeVisible()

  const signOut = async () => {
    await page.request.delete('/api/v1/session')
    await page.goto('/sign-in?to=/account')
  }
  await signOut()
  const sent = page.waitForRequest(/\/session\/passkey$/)
  await button(page, 'With a passkey').click()
  await expect(passkeys.getByText(/, used /)).toBeVisible()

  // What was sent once is an answer to nothing any more.
  const again = await browser.newContext({ baseURL: base })
  const answer = (await sent).postDataJSON() as object
  const replayed = await again.request.post('/api/v1/session/passkey', { data: answer })
  expect(replayed.status()).toBe(401)
  await again.request.post('/api/v1/session/passkey/begin')
  const asked = await again.request.post('/api/v1/session/passkey', { data: answer })
  expect(asked.status()).toBe(401)
  await again.close()

  // Whoever holds the device and does not prove himself to it is not its person.
  await signOut()
  await cdp.send('WebAuthn.setUserVerified', { authenticatorId, isUserVerified: false })
  await button(page, 'With a passkey').click()
  await expect(page.getByText(/No passkey was used/)).toBeVisible()
  await cdp.send('WebAuthn.setUserVerified', { authenticatorId, isUserVerified: true })
  await button(page, 'With a passkey').click()
  await passkeys.getByRole('button', { name: 'Take Key ring off' }).click()
  await expect(passkeys.getByText('Key ring')).toHaveCount(0)

  await signOut()
  await button(page, 'With a passkey').click()
  await expect(page.getByText(/This passkey signs nobody in/)).toBeVisible()
  await context.close()
})
