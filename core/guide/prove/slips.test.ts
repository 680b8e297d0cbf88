import { describe, expect, it } from 'vitest'
import { shippedGuides, shippedSubGuides } from '../../testing/guides'
import { expandGuide, type Guide, type GuideStep, type PlacedStep, proveGuide } from '..'

/** Mistakes that an author makes: the data already shows each, and the prover names it. */
function inlined(id: string): Guide {
  const guide = shippedGuides.find((g) => g.id === id)
  if (!guide) throw new Error(id)
  const plain = ({ id: _id, path: _path, verb: _verb, steps, ...step }: PlacedStep): GuideStep =>
    ({ ...step, ...(steps ? { repeat: steps.map(plain) } : {}) }) as GuideStep
  return { ...guide, steps: expandGuide(guide, shippedSubGuides).steps.map(plain) }
}
const rulesOf = (guide: Guide) => [...new Set(proveGuide(guide, []).faults.map((f) => f.rule))]
/** Whether a rule finds fault with a guide; that it does is known with the first fault. */
const finds = (rule: string, guide: Guide) =>
  proveGuide(guide, [], { until: (f) => f.rule === rule }).faults.some((f) => f.rule === rule)
const index = (g: Guide, test: (s: GuideStep) => boolean) => {
  const n = g.steps.findIndex(test)
  if (n < 0) throw new Error(`${g.id} has no such step`)
  return n
}
type Change = (g: Guide) => Guide
const drop =
  (test: (s: GuideStep) => boolean): Change =>
  (g) => ({ ...g, steps: g.steps.filter((s) => !test(s)) })
const change =
  (test: (s: GuideStep) => boolean, to: (s: GuideStep) => object): Change =>
  (g) => ({ ...g, steps: g.steps.map((s) => (test(s) ? (to(s) as GuideStep) : s)) })
/** Moves the first step of a kind behind (or before) the first of another. */
const move =
  (what: (s: GuideStep) => boolean, to: (s: GuideStep) => boolean, behind: boolean): Change =>
  (g) => {
    const moved = g.steps[index(g, what)] as GuideStep
    const rest = g.steps.filter((s) => s !== moved)
    const at = rest.findIndex(to) + (behind ? 1 : 0)
    const station = rest[behind ? at - 1 : at]?.at
    return {
      ...g,
      steps: [...rest.slice(0, at), { ...moved, at: station }, ...rest.slice(at)] as GuideStep[],
    }
  }
const put =
  (step: GuideStep, before: (s: GuideStep) => boolean): Change =>
  (g) => {
    const n = index(g, before)
    return { ...g, steps: [...g.steps.slice(0, n), step, ...g.steps.slice(n)] }
  }
const parts =
  (id: string, to: Partial<Guide['parts'][number]>): Change =>
  (g) => ({ ...g, parts: g.parts.map((p) => (p.id === id ? { ...p, ...to } : p)) })
const all =
  (...changes: Change[]): Change =>
  (g) =>
    changes.reduce((guide, c) => c(guide), g)

describe('a slip that the data shows', () => {
  it.each<[string, string, Change, string]>([
    [
      'a cover that closes nothing, and nothing shut, vented or proved',
      'rp-relief',
      all(
        parts('relief-cover', { closes: undefined }),
        parts('sensing-tube', { closes: undefined }),
        parts('seat', { closes: undefined }),
        drop((s) => Boolean(s.isolate ?? s.vent ?? s.prove ?? s.reopen ?? s.shut)),
      ),
      'zone-unopened',
    ],
    [
      'the bypass cap in the wrong zone, and the bypass never proved',
      'double-check-detector',
      all(
        (g) =>
          ['bypass-cap-1', 'bypass-cap-2'].reduce((h, p) => parts(p, { closes: 'body' })(h), g),
        drop((s) => s.prove === 'bypass'),
      ),
      'zone-unopened',
    ],
    [
      'a spring that is tied to no cover',
      'rp-relief',
      (g) => ({ ...g, parts: g.parts.map((p) => ({ ...p, spring: undefined })) }),
      'spring-untied',
    ],
    [
      'bolts that hold another part and are never loosened',
      'rp-relief',
      all(
        (g) => ({
          ...g,
          parts: [...g.parts, { id: 'body-shell', title: 'Body', shape: 'body' }],
          fasteners: g.fasteners?.map((f) => ({ ...f, holds: 'body-shell' })),
        }),
        drop((s) => Boolean(s.loosen ?? s.tighten)),
      ),
      'fastener-untouched',
    ],
    [
      'gas let in with the vents open',
      'spring-regulator',
      drop((s) => Boolean(s.shut)),
      'vents-open',
    ],
    [
      'gas vented inlet side first',
      'sleeve-regulator-disc',
      change(
        (s) => Boolean(s.vent),
        (s) => ({ ...s, vent: [...(s.vent ?? [])].reverse() }),
      ),
      'vent-order',
    ],
    [
      'cocks shut again after the proof, before it is opened',
      'rp-relief',
      put({ shut: ['cock-2'], say: 'Shut cock 2', at: 'make-safe' } as GuideStep, (s) =>
        Boolean(s.remove),
      ),
      'opened-live',
    ],
    [
      'the function test before the medium is on',
      'rp-relief',
      move(
        (s) => Boolean(s.test),
        (s) => Boolean(s.reopen),
        false,
      ),
      'tested-dry',
    ],
    [
      'the power on before the drive is',
      'motor-control-valve',
      move(
        (s) => s.power === 'on',
        (s) => Boolean(s.fit),
        false,
      ),
      'power-open',
    ],
    [
      'opened while it is made safe',
      'rp-relief',
      change(
        (s) => s.at === 'open-up',
        (s) => ({ ...s, at: 'make-safe' }),
      ),
      'opened-early',
    ],
    [
      '“debris only” without a cleaning',
      'tower-double-check',
      drop((s) => Boolean(s.clean && s.when)),
      'not-cleaned',
    ],
    [
      '“damaged” found and nothing renewed',
      'tower-double-check',
      drop((s) => Boolean(s.when && (s.renew ?? s.discard))),
      'not-mended',
    ],
    [
      'conditions crossed',
      'tower-double-check',
      change(
        (s) => Boolean(s.when),
        (s) => ({
          ...s,
          when: Object.fromEntries(
            Object.entries(s.when ?? {}).map(([part, list]) => [
              part,
              list.map((v) => (v === 'clean' ? 'renew' : v === 'renew' ? 'clean' : v)),
            ]),
          ),
        }),
      ),
      'never-reached',
    ],
    [
      'marks matched before the cover is on',
      'rp-relief',
      move(
        (s) => s.match === 'relief-cover',
        (s) => s.fit === 'relief-cover',
        false,
      ),
      'match-early',
    ],
    [
      'a mark made when the cover is off',
      'rp-relief',
      move(
        (s) => s.mark === 'relief-cover',
        (s) => s.remove === 'relief-cover',
        true,
      ),
      'mark-late',
    ],
    [
      'an adjuster restored with the case off',
      'spring-regulator',
      move(
        (s) => Boolean(s.restore),
        (s) => s.fit === 'case',
        false,
      ),
      'set-open',
    ],
    [
      'a canopy put on before the test, which sees nothing then',
      'vacuum-breaker',
      move(
        (s) => s.fit === 'canopy',
        (s) => s.at === 'return',
        false,
      ),
      'tested-hidden',
    ],
    [
      'a canopy that is never put back',
      'vacuum-breaker',
      drop((s) => s.fit === 'canopy'),
      'left-on-tray',
    ],
    [
      'polyglycol on a drinking-water O-ring',
      'tower-double-check',
      change(
        (s) => Boolean(s.lubricate),
        (s) => ({ ...s, with: 'pag' }),
      ),
      'lubricant-clash',
    ],
    [
      'plain silicone on food seals',
      'double-seat-valve',
      change(
        (s) => Boolean(s.lubricate),
        (s) => ({ ...s, with: 'silicone' }),
      ),
      'lubricant-clash',
    ],
    [
      'mineral oil in drinking water',
      'high-pressure-water-valve',
      change(
        (s) => Boolean(s.lubricate),
        (s) => ({ ...s, with: 'mineral' }),
      ),
      'lubricant-clash',
    ],
    [
      'the air to put on given as a torque',
      'high-pressure-water-valve',
      (g) => {
        const slot = g.steps.find((s) => s.air === 'on' && s.slot)?.slot
        return {
          ...g,
          slots: g.slots?.map((s) => (s.id === slot ? { ...s, dimension: 'torque' } : s)),
        }
      },
      'wrong-unit',
    ],
    [
      'counted bolts with a torque and no order',
      'double-check-detector',
      change(
        (s) => Boolean(s.tighten),
        ({ pattern: _, ...s }) => s as GuideStep,
      ),
      'no-pattern',
    ],
    [
      'a rag for a lifting aid',
      'sleeve-regulator-disc',
      (g) => JSON.parse(JSON.stringify(g).replaceAll('cap-eyes', 'rag')) as Guide,
      'heavy',
    ],
    [
      'a rubber turned over that never came off',
      'double-check-detector',
      drop((s) => Boolean(s.when && s.remove && s.keepFor === 'refit')),
      'fitted-twice',
    ],
    [
      'a rubber to be turned over, and left alone',
      'double-check-detector',
      drop((s) => {
        const over = Object.values(s.when ?? {}).some((v) => v.join() === 'turn-over')
        return over && Boolean(s.remove ?? s.fit)
      }),
      'not-turned',
    ],
    [
      'a live cock opened',
      'tower-double-check',
      change(
        (s) => Boolean(s.vent),
        (s) => ({ ...s, vent: [...(s.vent ?? []), 'cock-1'] }),
      ),
      'live-vent',
    ],
    [
      'a heavy part without a lifting aid',
      'sleeve-regulator-disc',
      drop((s) => Boolean(s.liftIn ?? s.liftOut)),
      'heavy',
    ],
    [
      'opened again after the test',
      'rp-relief',
      (g) => {
        const again = [
          { at: 'as-left', remove: 'canopy', say: 'Off' },
          { fit: 'canopy', say: 'On' },
        ] as GuideStep[]
        const canopy = { id: 'canopy', title: 'Canopy', shape: 'cover' } as const
        return { ...g, parts: [...g.parts, canopy], steps: [...g.steps, ...again] }
      },
      'untested',
    ],
  ])('%s: %s', (_, id, damage, rule) => {
    const guide = inlined(id)
    expect(rulesOf(guide)).toEqual([])
    expect(finds(rule, damage(guide))).toBe(true)
  })

  it('what goes round is walked twice: a part renewed inside a repeat is there once only', () => {
    const guide = inlined('rp-relief')
    const inside: GuideStep = {
      repeat: [{ remove: 'relief-cover', say: 'Off once more', controlled: true } as GuideStep],
      until: 'it is off',
      most: 3,
      at: 'open-up',
      say: 'Again',
    } as GuideStep
    const n = index(guide, (s) => s.remove === 'relief-cover')
    const steps = guide.steps.map((s, i) => (i === n ? inside : s))
    expect(finds('removed-twice', { ...guide, steps })).toBe(true)
  })

  it('what one finding does is not done on the way of another', () => {
    const guide = inlined('tower-double-check')
    const n = index(guide, (s) => Boolean(s.verdicts?.some((v) => v.id === 'renew')))
    const inspection = guide.steps[n] as GuideStep
    const verdicts = [...(inspection.verdicts ?? [])].reverse()
    const steps = guide.steps.map((s, i) => (i === n ? { ...s, verdicts } : s) as GuideStep)
    // Whatever order the ways are walked in, each begins from the same state.
    expect(rulesOf({ ...guide, steps })).toEqual([])
    const renewOnlyClean = guide.steps.map((s) =>
      s.renew && s.when ? { ...s, when: { ...s.when, [inspection.inspect ?? '']: ['clean'] } } : s,
    )
    expect(finds('not-renewed', { ...guide, steps: renewOnlyClean })).toBe(true)
  })

  it('of more ways than can be walked, every pair of findings is', () => {
    const guide = inlined('rp-relief')
    const looks = Array.from({ length: 20 }, (_, n) => ({
      at: 'open-up',
      inspect: `p${n}`,
      say: `Look at ${n}`,
      defects: ['debris'],
      verdicts: [
        { id: 'keep', title: 'Sound' },
        { id: 'renew-assembly', title: 'Worn' },
      ],
    })) as GuideStep[]
    const more = looks.map((_, n) => ({ id: `p${n}`, title: `P ${n}`, shape: 'disc' as const }))
    const n = index(guide, (s) => s.at === 'rebuild')
    const steps = [...guide.steps.slice(0, n), ...looks, ...guide.steps.slice(n)]
    const { faults, paths } = proveGuide(
      { ...guide, parts: [...guide.parts, ...more], steps },
      [],
      { allWays: 500 },
    )
    // Twenty findings of two each are over a million ways; every pair of them is under a thousand.
    expect(faults).toEqual([])
    expect(paths).toBeLessThan(5_000)
  })
})

describe('no false alarm', () => {
  it('two people lift what is heavy for one', () => {
    const guide = inlined('sleeve-regulator-disc')
    const people = all(
      drop((s) => Boolean(s.liftIn ?? s.liftOut)),
      change(
        (s) => Boolean(s.remove ?? s.fit ?? s.renew),
        ({ withAid: _, ...s }) => ({ ...s, people: 2 }),
      ),
    )
    expect(rulesOf(people(guide))).toEqual([])
  })
  it('the school that always returns to nominal sets instead of restoring', () => {
    const nominal = change(
      (s) => Boolean(s.restore),
      ({ restore, ...s }) => ({ ...s, set: restore }) as GuideStep,
    )
    expect(rulesOf(nominal(inlined('spring-regulator')))).toEqual([])
  })
  it.each(['rebuild', 'return'])('a check that failed in %s, and the open parts', (at) => {
    const guide = inlined('rp-relief')
    const first = index(guide, (s) => s.mark === 'relief-cover')
    const check: GuideStep = { trial: 'It moves', say: 'Push it', redoFrom: 'opening', at } as never
    const n = index(guide, (s) => (at === 'rebuild' ? Boolean(s.match) : s.at === 'return'))
    const steps = guide.steps.flatMap((s, i): GuideStep[] => {
      const named = i === first ? ({ ...s, name: 'opening' } as GuideStep) : s
      return i === n ? [named, check] : [named]
    })
    expect(rulesOf({ ...guide, steps }).includes('redo-nowhere')).toBe(at === 'return')
  })
  it('a failed as-left check goes back to Open up', () => {
    const guide = inlined('rp-relief')
    const first = index(guide, (s) => s.mark === 'relief-cover')
    const last = guide.steps.findLastIndex((s) => Boolean(s.test))
    const steps = guide.steps.map((s, n) =>
      n === first ? { ...s, name: 'opening' } : n === last ? { ...s, redoFrom: 'opening' } : s,
    ) as GuideStep[]
    expect(rulesOf({ ...guide, steps })).toEqual([])
  })
})
