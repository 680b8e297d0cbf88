import {
  type Guide,
  guideRun,
  type GuideStation,
  nextStep,
  slotsOf,
  type StepDone,
} from '@uvanta/core/guide'
import { addDays } from '@uvanta/core/programme'
import type { Station } from '@uvanta/core/visit'
import { beforeAll, describe, expect, it } from 'vitest'
import type { App } from './app'
import { planDay, refreshDemoDay } from './demo/day'
import { loadLibrary } from './library/load'
import { createEquipment } from './service/register'
import { type Agent, equipmentInput, makeTestApp, populate, serve, signedIn } from './testing/app'
import { append, draft, plan } from './testing/visit'
import { join } from 'node:path'

let app: App
let world: Awaited<ReturnType<typeof populate>>
let tester: Agent
beforeAll(async () => {
  app = await makeTestApp()
  world = await populate(app)
  tester = await signedIn(serve(app), 'tester')
})

const library = loadLibrary(join(import.meta.dirname, '..', 'library'))
/** Guides of families whose kinds have a field test: a visit can be planned for them. */
const testable = library.guides.flatMap((guide) => {
  const kinds = library.families.find((f) => f.id === guide.family)?.kinds ?? []
  const kind = kinds.find((k) =>
    library.rulePacks.some(
      (p) => p.id === 'larkhaven-relief-first' && p.tests.some((t) => t.kind === k),
    ),
  )
  return kind ? guide.variants.map((v) => ({ guide, kind, variant: v.id })) : []
})

/** Events that carry a guide out from Prepare to Return, with the first finding everywhere. */
function wholeJob(guide: Guide, variant: string) {
  const record: StepDone[] = []
  const values = new Set<string>()
  const events = [
    draft('guide-chosen', { guideId: guide.id, version: guide.version, variant }),
  ] as ReturnType<typeof draft>[]
  const station = (at: GuideStation) => {
    for (;;) {
      const step = nextStep(guideRun(guide, library.subGuides, variant, record), at)
      if (!step) break
      for (const slot of slotsOf(step)) {
        if (values.has(slot)) continue
        values.add(slot)
        events.push(draft('guide-value', { slot, value: '8', source: 'Sheet of maker A, page 4' }))
      }
      const finding = step.verdicts?.[0]?.id
      record.push({ step: step.id, finding })
      events.push(draft('guide-step', { step: step.id, at, ...(finding ? { finding } : {}) }))
    }
  }
  const done = (at: Station) => events.push(draft('station-done', { station: at }))
  station('prepare')
  done('prepare')
  events.push(draft('identity', { outcome: 'confirmed' }))
  done('arrive')
  events.push(draft('as-found-impossible', { reason: 'Shut off since the flood' }))
  done('as-found')
  for (const at of ['make-safe', 'open-up', 'rebuild', 'return'] as const) {
    if (at === 'rebuild') events.push(draft('repair', { text: 'By the guide', parts: [] }))
    station(at)
    done(at)
  }
  return events
}

describe('a guide through the interface', () => {
  it.each(testable.map((t) => [`${t.guide.id}, ${t.variant}, on a ${t.kind}`, t] as const))(
    '%s: to its end',
    async (_, { guide, kind, variant }) => {
      const equipment = await createEquipment(app, world.tester, {
        ...equipmentInput(
          world.site.id,
          `${kind}-${guide.id}-${variant}`.slice(0, 40),
          addDays(app.today(), 9),
        ),
        kind,
        family: guide.family,
      })
      const visit = await plan(app, tester, equipment.id, world.tester.id)
      const events = wholeJob(guide, variant)
      // The interface takes a batch of a limited size: the job goes in as it would from a device.
      for (let n = 0; n < events.length; n += 40) {
        await append(tester, visit.id, 1 + n, events.slice(n, n + 40)).expect(200)
      }
      const read = await tester.get(`/api/v1/visits/${visit.id}`).expect(200)
      expect(read.body.done).toContain('return')
    },
  )
  it('refuses a step out of order, and keeps nothing of its batch', async () => {
    const { guide, variant } = testable[0] as (typeof testable)[number]
    const equipment = await createEquipment(app, world.tester, {
      ...equipmentInput(world.site.id, 'OUT-1', addDays(app.today(), 9)),
      kind: testable[0]?.kind ?? '',
      family: guide.family,
    })
    const visit = await plan(app, tester, equipment.id, world.tester.id)
    const events = wholeJob(guide, variant)
    const without = events.filter((e) => {
      const { step } = e.payload as { step?: string }
      return step !== '1.2'
    })
    const answer = await append(tester, visit.id, 1, without.slice(0, 40))
    expect(answer.status).toBe(409)
    expect(answer.body.detail).toMatch(/Before it comes/)
    const read = await tester.get(`/api/v1/visits/${visit.id}`)
    expect(read.body.events).toHaveLength(1)
  })
})

describe('the simulated gauge', () => {
  it('is told of where it is, and may be connected to by the page', async () => {
    const linked = { ...app, config: { ...app.config, gaugeUrl: 'ws://127.0.0.1:4890' } }
    const agent = await signedIn(serve(linked), 'tester')
    const answer = await agent.get('/api/v1/gauge-link').expect(200)
    expect(answer.body).toEqual({ url: 'ws://127.0.0.1:4890' })
    expect(answer.headers['content-security-policy']).toContain(
      "connect-src 'self' ws://127.0.0.1:4890",
    )
  })
  it('is not there where none was started', async () => {
    const answer = await tester.get('/api/v1/gauge-link').expect(200)
    expect(answer.body).toEqual({ url: null })
    expect(answer.headers['content-security-policy']).toContain("connect-src 'self';")
  })
})

describe('a demo that is started on a later day', () => {
  it('is left alone where it is no demo', async () => {
    expect(await refreshDemoDay(app)).toBe(0)
  })
  it('plans nothing for people who are not there', async () => {
    const before = await app.db.visits.count()
    expect(await planDay(app, {}, [])).toBe(0)
    expect(await app.db.visits.count()).toBe(before)
  })
})
