import { mkdtempSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import type { Endpoint, Person, Role } from '@uvanta/contract'
import { answerOf } from '@uvanta/contract/answers'
import { check } from '@uvanta/core/schema'
import { addDays } from '@uvanta/core/calendar'
import type { Library } from '@uvanta/core/library'
import { pino } from 'pino'
import supertest from 'supertest'
import { v7 as uuidv7 } from 'uuid'
import { inject } from 'vitest'
import type { App } from '../context'
import { openApp } from '../app'
import type { Config } from '../config'
import { atOnce, type HeavyWork } from '../heavy/heavyWork'
import { makeServer } from '../http/server'
import { addCalibration, createGauge } from '../service/instruments/gauges'
import { addLicence, createPerson } from '../service/people/people'
import { createCustomer } from '../service/register/customers'
import { createEquipment } from '../service/register/equipment'
import { createSite } from '../service/register/sites'
import { blankDatabase, createDatabase, migrate, type Where } from './blankDatabase'

export const PASSWORD = 'correct horse battery'
const root = join(import.meta.dirname, '..', '..')

type Fill = (database: { port: number; password: string; name: string }) => Promise<void> | void

async function filledDatabase(where: Where, fill: Fill): Promise<string> {
  const database = await createDatabase(where)
  await fill({ ...where, name: database })
  await migrate({ ...where, database })
  return database
}

const SHIPPED = join(root, 'library')
const DEMO_LAYERS = [SHIPPED, join(SHIPPED, 'demo')]
let shipped: Promise<Library> | undefined
/** To read and prove the library that is shipped takes longer than most tests: all of a thread share it. */
const heavy: HeavyWork = {
  ...atOnce,
  library: (layers) =>
    layers === DEMO_LAYERS ? (shipped ??= atOnce.library(layers)) : atOnce.library(layers),
}

/**
 * An application on a new, empty database, or on one that is filled before it is brought up to date.
 * @param fill runs between making the database and migrating it
 */
export async function makeTestApp(fill?: Fill): Promise<App> {
  const where = { host: '127.0.0.1', user: 'uvanta', ...inject('mariadb') }
  const database = fill ? await filledDatabase(where, fill) : await blankDatabase(where)
  const dataDirectory = mkdtempSync(join(tmpdir(), 'uvkeys-'))
  const config: Config = {
    port: 0,
    publicUrl: 'http://127.0.0.1:4870',
    dataDirectory,
    libraryDirectory: SHIPPED,
    ownLibrary: join(dataDirectory, 'library'),
    libraryLayers: DEMO_LAYERS,
    libraryKeptIn: join(dataDirectory, 'library.json'),
    webDirectory: join(root, 'web', 'dist'),
    sessionSecret: 'for tests only',
    officeNeedsSecondFactor: false,
    drainMs: 0,
    isPublicUrlSet: true,
    isDemo: false,
    utility: {
      name: 'Larkhaven Gas & Water',
      authority: 'Larkhaven Water Authority',
      address: '1 Quayside, Larkhaven',
      phone: '555 0100',
      certificatePrefix: 'LH',
      timeZone: 'UTC',
      zoneWithin: 60,
      gaugePressureUnit: 'psi',
      differentialUnit: 'psi',
    },
    database: { ...where, database },
  }
  return openApp(config, heavy)
}

/** A server whose every answer is held against the contract: one that does not fit is a 500. */
export const serve = (app: App) => makeServer(app, pino({ level: 'silent' }), keptContract)

function keptContract(e: Endpoint, answer: unknown): void {
  const { method, path } = e
  const response = answerOf(e)
  if (!response) return
  try {
    check(response, JSON.parse(JSON.stringify(answer)))
  } catch (error) {
    process.stderr.write(`${method} ${path} answers what its contract does not say: ${error}\n`)
    throw new Error('The answer does not fit its contract.', { cause: error })
  }
}
export type Agent = ReturnType<typeof supertest.agent>

export async function signedIn(server: ReturnType<typeof serve>, username: string): Promise<Agent> {
  const agent = supertest.agent(server)
  await agent.post('/api/v1/session').send({ username, password: PASSWORD }).expect(200)
  return agent
}

const ROOT_PERSON: Person = {
  id: uuidv7(),
  username: 'root',
  name: 'Root',
  roles: ['administrator'],
  active: true,
  version: 1,
  licences: [],
}

/** People of every role, a gauge, and one RP assembly due at the end of its month. */
export async function populate(app: App) {
  const today = app.today()
  const person = (username: string, roles: Role[]) =>
    createPerson(app, ROOT_PERSON, {
      id: uuidv7(),
      username,
      name: `The ${username}`,
      roles,
      password: PASSWORD,
    })
  const tester = await person('tester', ['technician'])
  const other = await person('other', ['technician'])
  const licences = { 'backflow-tester': 'BT', 'gas-regulator': 'GR' } as const
  for (const t of [tester, other]) {
    for (const [kind, prefix] of Object.entries(licences)) {
      await addLicence(app, ROOT_PERSON, t.id, {
        id: uuidv7(),
        kind,
        number: `${prefix}-${t.username}`,
        issuedOn: addDays(today, -100),
        expiresOn: addDays(today, 200),
      })
    }
  }
  for (const role of ['planner', 'reviewer', 'administrator', 'trainee'] as const)
    await person(role, [role])
  const gaugeId = uuidv7()
  await createGauge(app, ROOT_PERSON, {
    id: gaugeId,
    tag: 'G-01',
    serial: 'DG-1',
    maker: 'Maker A',
    span: '15',
    spanUnit: 'psi',
    resolution: '0.1',
    accuracyPercent: 0.25,
    accuracyOf: 'span',
  })
  await addCalibration(app, ROOT_PERSON, gaugeId, {
    id: uuidv7(),
    calibratedOn: addDays(today, -30),
    validUntil: addDays(today, 300),
    certificate: 'CAL-1',
  })
  const customer = await createCustomer(app, ROOT_PERSON, {
    id: uuidv7(),
    name: 'Larkhaven Leisure',
  })
  const site = await createSite(app, ROOT_PERSON, {
    id: uuidv7(),
    customerId: customer.id,
    name: 'Seagate Public Bath',
    address: '1 Seagate',
    district: 'Harbour',
  })
  const equipment = await createEquipment(
    app,
    ROOT_PERSON,
    equipmentInput(site.id, 'RP-101', addDays(today, 5)),
  )
  return { tester, other, gaugeId, site, equipment }
}

export const equipmentInput = (siteId: string, tag: string, dueOn: string) => ({
  id: uuidv7(),
  siteId,
  tag,
  family: 'reduced-pressure-assembly',
  kind: 'RP',
  sizeIn: '2',
  serial: `S-${tag}`,
  maker: 'Maker A',
  service: 'water' as const,
  position: 'Plant room',
  programme: 'backflow-annual',
  dueOn,
})

/** The stable code of a problem that was answered. */
export const codeOf = ({ body }: { readonly body: { readonly type?: string } }): string =>
  body.type?.replace('urn:uvanta:problem:', '') ?? ''
