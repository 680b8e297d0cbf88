import { testPlanOf } from '@uvanta/core/library'
import { judgeTest } from '@uvanta/core/rules'
import { shippedLibrary } from '@uvanta/core/testing'
import { describe, expect, it } from 'vitest'
import { foundByHand, mayFail } from './demo/byHand'
import { nominalsOf } from './demo/nominals'
import { packFor } from './demo/packs'
import { Seeded } from './demo/random'

const kinds = shippedLibrary.rulePacks
  .flatMap((p) => (p.id === 'larkhaven-valves-and-actuators' ? p.tests : []))
  .map((t) => t.kind)

function judged(kind: string, seed: number, bad: string | null = null) {
  const random = new Seeded(seed)
  const plan = testPlanOf(shippedLibrary, packFor(kind), kind)
  const nominals = nominalsOf(kind, random)
  const found = foundByHand(plan, nominals, random, bad)
  const verdict = judgeTest(plan, {
    ...found,
    nominals: Object.fromEntries(nominals.map((n) => [n.name, n.value])),
  })
  return { verdict, plan }
}

describe.each(kinds)('a %s', (kind) => {
  it('passes as a technician finds it in order', () => {
    for (let seed = 1; seed <= 12; seed++) {
      const { verdict } = judged(kind, seed)
      expect(verdict.reason).toMatch(/^Every required item/)
    }
  })
  it('fails by each single thing that its rules want', () => {
    const { plan } = judged(kind, 1)
    const items = mayFail(plan)
    expect(items.length).toBeGreaterThan(1)
    for (const bad of items) {
      const { verdict } = judged(kind, 3, bad)
      expect(verdict.items.find((i) => i.id === bad)?.outcome, bad).toBe('fail')
      expect(verdict.outcome, bad).toBe('fail')
    }
  })
})
it('every family has a test in a pack of the house', () => {
  const tested = shippedLibrary.rulePacks.flatMap((p) => p.tests.map((t) => t.kind))
  for (const { kinds: own } of shippedLibrary.families) {
    for (const kind of own) expect(tested).toContain(kind)
  }
})
