import { expect, it } from 'vitest'
import { readConfig } from './config'

const needed = {
  UVANTA_DATA: '/var/lib/uvanta',
  UVANTA_SESSION_SECRET: 'x',
  UVANTA_DB_PORT: '4880',
  UVANTA_DB_PASSWORD: 'x',
}
const set = {
  UVANTA_UTILITY: 'Example Water',
  UVANTA_UTILITY_PHONE: '555 0199',
  UVANTA_CERTIFICATE_PREFIX: 'EW',
  UVANTA_TIMEZONE: 'UTC',
  UVANTA_PUBLIC_URL: 'https://uvanta.example.org',
}

it('a utility’s installation begins with nothing of the demo', () => {
  const own = readConfig({ ...needed, UVANTA_KIND: 'own' }, '/opt/uvanta')
  expect(own.utility).toEqual({})
  expect(own).toMatchObject({ isDemo: false, isPublicUrlSet: false })
  // A server that is started without a kind, as in a cluster, uses nothing of the demo.
  expect(readConfig(needed, '/opt/uvanta')).toMatchObject({ isDemo: false, utility: {} })
  const demo = readConfig({ ...needed, UVANTA_KIND: 'demo' }, '/opt/uvanta')
  for (const field of ['name', 'authority', 'certificatePrefix', 'address', 'phone'] as const) {
    expect(demo.utility[field]).toBeTruthy()
    expect(JSON.stringify(own)).not.toContain(`"${demo.utility[field]}"`)
  }
})
it('an installation that was set up in its environment begins with that', () => {
  const own = readConfig({ ...needed, ...set, UVANTA_KIND: 'own' }, '/opt/uvanta')
  expect(own).toMatchObject({ isPublicUrlSet: true, publicUrl: set.UVANTA_PUBLIC_URL })
  expect(own.utility).toEqual({
    name: 'Example Water',
    phone: '555 0199',
    certificatePrefix: 'EW',
    timeZone: 'UTC',
  })
})
