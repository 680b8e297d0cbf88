import type { UtilityFields } from '@uvanta/contract'
import { beforeAll, describe, expect, it } from 'vitest'
import type { App } from './context'
import { verifyChains } from './service/integrity/verifyChains'
import { KeptUtility } from './service/settings/keptUtility'
import { type Agent, codeOf, makeTestApp, populate, serve, signedIn } from './testing/app'

const PLAIN = {
  name: '',
  authority: '',
  certificatePrefix: '',
  address: '',
  phone: '',
  timeZone: '',
}
const OURS: UtilityFields = {
  name: 'Example Water',
  authority: 'Example Water Authority',
  certificatePrefix: 'EW',
  address: '3 Mill Lane, Example',
  phone: '555 0199',
  timeZone: 'America/Chicago',
  zoneWithin: 60,
  gaugePressureUnit: 'bar',
  differentialUnit: 'kPa',
}

let app: App
let administrator: Agent
let tester: Agent
beforeAll(async () => {
  app = await makeTestApp()
  await populate(app)
  await app.db.utility.update(PLAIN, { where: {}, individualHooks: true })
  const server = serve(app)
  administrator = await signedIn(server, 'administrator')
  tester = await signedIn(server, 'tester')
})
const read = async () => (await administrator.get('/api/v1/settings').expect(200)).body
const change = (fields: object, version: number) =>
  administrator.put('/api/v1/settings').set('If-Match', `"${version}"`).send(fields)

describe('what a utility is', () => {
  it('is missing at first, and everybody hears that certificates wait for it', async () => {
    expect((await read()).missing).toEqual(Object.keys(PLAIN))
    const me = (await tester.get('/api/v1/session').expect(200)).body
    expect(me).toMatchObject({ isSetUp: false, utility: '' })
  })

  it.each([
    [{ certificatePrefix: 'ew' }],
    [{ certificatePrefix: 'E/W' }],
    [{ phone: 'ask at the desk' }],
    [{ timeZone: 'Larkhaven/Quay' }],
    [{ zoneWithin: 841 }],
    [{ gaugePressureUnit: 'stone' }],
    [{ name: ' ' }],
    [{ extra: 'x' }],
  ])('is refused when it cannot be: %j', async (wrong) => {
    const { version } = await read()
    const refused = await change({ ...OURS, ...wrong }, version)
    expect(refused.status).toBe(422)
    expect((await read()).version).toBe(version)
  })

  it('is said by the administrator alone, against the version that was read, and audited', async () => {
    await tester.get('/api/v1/settings').expect(403)
    await tester.put('/api/v1/settings').set('If-Match', '"1"').send(OURS).expect(403)
    const { version } = await read()
    const changed = (await change(OURS, version).expect(200)).body
    expect(changed).toMatchObject({ ...OURS, missing: [], version: version + 1 })
    expect(codeOf(await change({ ...OURS, phone: '555 0000' }, version))).toBe('stale')
    const [line] = (await administrator.get('/api/v1/audit').expect(200)).body.items
    expect(line.subject).toContain('Example Water')
    expect(line.action).toContain('utility')
  })

  it('holds at once: zone of the legal date, units, name', async () => {
    expect((await tester.get('/api/v1/session').expect(200)).body).toMatchObject({
      isSetUp: true,
      utility: 'Example Water',
      house: { gaugePressure: 'bar', differential: 'kPa' },
    })
    expect(app.today()).toBe(app.now().setZone('America/Chicago').toISODate())
  })

  it('is held against its seal', async () => {
    expect((await verifyChains(app)).faults).toEqual([])
    await app.db.sequelize.query("UPDATE utility SET name = 'Another' WHERE id = 1")
    expect((await verifyChains(app)).faults.map((f) => f.of)).toContain('utility')
    await app.db.sequelize.query("UPDATE utility SET name = 'Example Water' WHERE id = 1")
    expect((await verifyChains(app)).faults).toEqual([])
  })

  it('follows the environment until it is changed, though a command ran without that before', async () => {
    const fresh = await makeTestApp()
    const opened = async (utility: typeof app.config.utility) =>
      (await KeptUtility.open(fresh.db, { ...fresh.config, utility })).current
    await fresh.db.utility.destroy({ where: {} })
    expect(await opened({})).toMatchObject({ name: '', units: { gaugePressure: 'psi' } })
    const set = { name: 'Example Water', gaugePressureUnit: 'bar' }
    const units = { gaugePressure: 'bar', differential: 'psi' }
    expect(await opened(set)).toMatchObject({ name: 'Example Water', units })
    expect(await opened({})).toMatchObject({ name: 'Example Water', units })
  })

  it('stays as it was changed, whatever the environment says', async () => {
    const again = await KeptUtility.open(app.db, {
      ...app.config,
      utility: { ...app.config.utility, name: 'From the environment' },
    })
    expect(again.current.name).toBe('Example Water')
  })

  it('wants an address that people reach', async () => {
    const unreachable = await KeptUtility.open(app.db, { ...app.config, isPublicUrlSet: false })
    expect(unreachable.current.missing).toEqual(['publicUrl'])
    const demo = await KeptUtility.open(app.db, {
      ...app.config,
      isPublicUrlSet: false,
      isDemo: true,
    })
    expect(demo.current.missing).toEqual([])
  })

  it('is Larkhaven’s for good in the demo', async () => {
    Object.assign(app.config, { isDemo: true })
    const refused = await change(OURS, (await read()).version)
    Object.assign(app.config, { isDemo: false })
    expect(codeOf(refused)).toBe('demo-settings')
  })
})
