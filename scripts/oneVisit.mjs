// A utility with one tester, and visits at one assembly: what the tests of power and cluster write to.
import { randomUUID } from 'node:crypto'
import { Secret, TOTP } from 'otpauth'

export const PASSWORD = 'four unlike words stand here'
export const pause = (ms) => new Promise((done) => setTimeout(done, ms))
/** Days from now, as 2026-11-27. */
const day = (days) => new Date(Date.now() + days * 86_400_000).toISOString().slice(0, 10)

/** @returns what was answered @throws where it was refused */
function expected(method, path, { status, body }) {
  if (status === 200 || status === 204) return body
  throw new Error(`${method} ${path}: ${status} ${JSON.stringify(body)}`)
}

/** Somebody signed in at a server. */
export class Person {
  /** @param cookie of a session that was begun before */
  constructor(base, cookie = '') {
    this.base = base
    this.cookie = cookie
  }
  /**
   * @param version of the record that is changed, where it has one
   * @param patience ms; a process that has just died may leave a call hanging
   */
  async call(method, path, body, version, patience = 4_000) {
    const response = await fetch(`${this.base}${path}`, {
      method,
      signal: AbortSignal.timeout(patience),
      headers: {
        'Content-Type': 'application/json',
        Cookie: this.cookie,
        ...(version ? { 'If-Match': `"${version}"` } : {}),
      },
      ...(body ? { body: JSON.stringify(body) } : {}),
    })
    const set = response.headers.get('set-cookie')
    if (set) this.cookie = set.split(';')[0]
    return { status: response.status, body: await response.json().catch(() => null) }
  }
  /** Asked again where nobody answers for the moment, as a proxy says of a machine that has much to do. */
  async must(method, path, body, version) {
    let answer
    for (let n = 0; n < 30; n++) {
      answer = await this.call(method, path, body, version).catch(() => ({ status: 503 }))
      if (answer.status !== 503) break
      await pause(1_000)
    }
    return expected(method, path, answer)
  }
  /** Waits for the one answer to what would be done twice if it were asked twice. */
  async once(method, path, body) {
    return expected(method, path, await this.call(method, path, body, undefined, 180_000))
  }
  /** Whoever works in the office has an authenticator. */
  async enrol(password) {
    const { secret } = await this.must('POST', '/api/v1/session/second-factor', { password })
    const code = new TOTP({ secret: Secret.fromBase32(secret) }).generate()
    await this.must('POST', '/api/v1/session/second-factor/confirm', { code })
  }
  /** Sends one note as often as it takes, until it is acknowledged. @returns how long that was, ms */
  async note(visit, expected, event, patience) {
    const began = Date.now()
    for (;;) {
      const answer = await this.call('POST', `/api/v1/visits/${visit}/events`, {
        expected,
        events: [event],
      }).catch(() => null)
      if (answer?.status === 200) return Date.now() - began
      // Refused for good is another thing than not answered.
      if (answer && answer.status < 500)
        throw new Error(`${event.payload.text}: ${answer.status} ${JSON.stringify(answer.body)}`)
      if (Date.now() - began > patience)
        throw new Error(`${event.payload.text} was not taken; last: ${JSON.stringify(answer)}`)
      await pause(100)
    }
  }
}

export const noteOf = (text) => ({
  id: randomUUID(),
  kind: 'note',
  payload: { station: 'prepare', text },
  deviceTime: new Date().toISOString(),
  deviceOffset: 0,
})

/** What the utility is, and the rules that it takes over. */
async function beginUtility(anna) {
  const { version } = await anna.must('GET', '/api/v1/settings')
  const utility = {
    name: 'Example Water',
    authority: 'Example Water Authority',
    certificatePrefix: 'EW',
    address: '3 Mill Lane, Example',
    phone: '555 0199',
    timeZone: 'UTC',
    zoneWithin: 60,
    gaugePressureUnit: 'psi',
    differentialUnit: 'psi',
  }
  await anna.must('PUT', '/api/v1/settings', utility, version)
  // Once: asked again it would be a version more, and the whole library is read and proved before the answer.
  await anna.once('POST', '/api/v1/settings/rule-packs', {
    starter: 'relief-first',
    title: 'Example Water: relief valve first',
    authority: utility.authority,
    source: 'Edition 7 of the local manual.',
    effectiveFrom: day(-400),
  })
  const { programmes } = await anna.must('GET', '/api/v1/settings/starters')
  const annual = programmes.find((p) => p.id === 'backflow-annual')
  delete annual.inForce
  await anna.once('POST', '/api/v1/settings/programmes', annual)
  // Each process takes the files up by itself, and the proxy asks them in turn.
  for (let known = 0, asked = 0; known < 6; asked++) {
    const inForce = await anna.must('GET', '/api/v1/library')
    known = inForce.programmes.some((p) => p.id === annual.id) ? known + 1 : 0
    if (asked > 180) throw new Error(`a process does not know “${annual.id}”`)
    if (known === 0) await pause(1_000)
  }
}

/** Anna, the administrator, takes Odda on, who plans visits for herself. */
export async function setUp(base) {
  const anna = new Person(base)
  await anna.must('POST', '/api/v1/session', { username: 'anna', password: PASSWORD })
  await anna.enrol(PASSWORD)
  await beginUtility(anna)
  const [tester, customer, site, equipment] = [1, 2, 3, 4].map(() => randomUUID())
  await anna.must('POST', '/api/v1/people', {
    id: tester,
    username: 'odda',
    name: 'Odda',
    roles: ['technician', 'planner'],
    password: PASSWORD,
  })
  await anna.must('POST', `/api/v1/people/${tester}/licences`, {
    id: randomUUID(),
    kind: 'backflow-tester',
    number: 'BT-1',
    issuedOn: day(-100),
    expiresOn: day(200),
  })
  const odda = new Person(base)
  await odda.must('POST', '/api/v1/session', { username: 'odda', password: PASSWORD })
  const next = 'and five others lie beneath them'
  await odda.must('POST', '/api/v1/session/password', { current: PASSWORD, next })
  await odda.enrol(next)
  await odda.must('POST', '/api/v1/customers', { id: customer, name: 'Larkhaven Leisure' })
  await odda.must('POST', '/api/v1/sites', {
    id: site,
    customerId: customer,
    name: 'Seagate Bath',
    address: '1 Seagate',
    district: 'Harbour',
  })
  await odda.must('POST', '/api/v1/equipment', {
    id: equipment,
    siteId: site,
    tag: 'RP-1',
    family: 'reduced-pressure-assembly',
    kind: 'RP',
    sizeIn: '2',
    serial: 'S1',
    maker: 'Maker A',
    service: 'water',
    position: 'Plant room',
    programme: 'backflow-annual',
    dueOn: day(5),
  })
  const plan = async () => {
    const id = randomUUID()
    await odda.must('POST', '/api/v1/visits', {
      id,
      equipmentId: equipment,
      technicianId: tester,
      plannedOn: day(0),
      purpose: 'periodic-test',
      rulePack: 'ew-relief-first',
    })
    return id
  }
  return { odda, plan }
}
