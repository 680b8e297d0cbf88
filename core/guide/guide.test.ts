import { proofOf } from '../library'
import { conditionsOf } from './schema/stepCommon'
import { check } from '../schema'
import { describe, expect, it } from 'vitest'
import { shippedGuides, shippedSubGuides } from '../testing/guides'
import {
  expandGuide,
  type Guide,
  type GuideStep,
  type PlacedStep,
  guideSchema,
  proveGuide,
  standsFor,
  type SubGuide,
} from '.'
import { shippedLibrary } from '../testing/library'
import { shutFor, zoneSite } from '../pressure'

const prove = (guide: Guide, subs: readonly SubGuide[] = []) =>
  proofOf(guide, subs, shippedLibrary).faults

/** Whether there is any fault in it: in itself, else against its machine. */
const isCaught = (guide: Guide) =>
  proveGuide(guide, [], { until: () => true }).faults.length > 0 || prove(guide).length > 0

/** A shipped guide with its sub-guides written out, so that every step can be damaged. */
function inlined(guide: Guide): Guide {
  const plain = ({
    id: _id,
    path: _path,
    verb: _verb,
    within: _within,
    steps,
    ...step
  }: PlacedStep): GuideStep =>
    ({ ...step, ...(steps ? { repeat: steps.map(plain) } : {}) }) as GuideStep
  return { ...guide, steps: expandGuide(guide, shippedSubGuides).steps.map(plain) }
}
const good = shippedGuides.map(inlined)

describe('the shipped guides', () => {
  it('are one for every family of the register that is opened for service', () => {
    const families = new Set(shippedGuides.map((g) => g.family))
    const missing = shippedLibrary.families.filter((f) => !families.has(f.id)).map((f) => f.id)
    // The water pressure reducer is serviced by the guide of the direct spring-loaded regulator.
    expect(missing).toEqual(['water-pressure-reducer'])
    expect(shippedGuides).toHaveLength(27)
  })
  it.each(shippedGuides.map((g) => [g.id, g] as const))(
    '%s is proved on every way through',
    (_, g) => {
      const proof = proveGuide(g, shippedSubGuides)
      expect(proof.faults).toEqual([])
      expect(proof.paths).toBeGreaterThanOrEqual(g.variants.length)
    },
  )
  it.each(good.map((g) => [g.id, g] as const))(
    '%s stays proved with its sub-guides written out',
    (_, g) => {
      expect(prove(g)).toEqual([])
    },
  )
})

/** A kind of damage: every guide it can be done to, once for each place. */
type Damage = (guide: Guide) => Guide[]

const at = (guide: Guide, n: number, ...put: GuideStep[]): Guide => ({
  ...guide,
  steps: [...guide.steps.slice(0, n), ...put, ...guide.steps.slice(n + 1)],
})
const where = (guide: Guide, test: (s: GuideStep, n: number) => boolean) =>
  guide.steps.flatMap((s, n) => (test(s, n) ? [n] : []))
const step = (guide: Guide, n: number) => guide.steps[n] as GuideStep

const drop =
  (test: (s: GuideStep, g: Guide) => boolean): Damage =>
  (g) =>
    where(g, (s) => test(s, g)).map((n) => at(g, n))
const twice =
  (test: (s: GuideStep) => boolean): Damage =>
  (g) =>
    where(g, test).map((n) => at(g, n, step(g, n), step(g, n)))
const change =
  (test: (s: GuideStep, g: Guide) => boolean, to: (s: GuideStep, g: Guide) => object): Damage =>
  (g) =>
    where(g, (s) => test(s, g)).map((n) => at(g, n, to(step(g, n), g) as GuideStep))
const swap =
  (test: (a: GuideStep, b: GuideStep, g: Guide) => boolean): Damage =>
  (g) =>
    where(g, (a, n) => {
      const b = g.steps[n + 1]
      return b !== undefined && test(a, b, g)
    }).map((n) => ({
      ...g,
      steps: [...g.steps.slice(0, n), step(g, n + 1), step(g, n), ...g.steps.slice(n + 2)],
    }))
const without = (s: GuideStep, field: keyof GuideStep): GuideStep =>
  Object.fromEntries(Object.entries(s).filter(([k]) => k !== field)) as unknown as GuideStep
const part = (g: Guide, id: string | undefined) => g.parts.find((p) => p.id === id)
/** Whether something of the machine stands before a part, so that it cannot be seen from outside. */
function isHidden(g: Guide, id: string | undefined): boolean {
  const own = part(g, id)
  const machine = shippedLibrary.machines.find((m) => m.id === g.machine)
  const drawn = machine?.parts.find((p) => own && standsFor(own)[0] === p.id)
  return Boolean(own?.under?.length && (drawn?.hidden ?? drawn?.behind)?.length)
}
const zone = (g: Guide, id: string | undefined) => g.zones?.find((z) => z.id === id)
const only = (g: Guide, test: (s: GuideStep) => boolean) => g.steps.filter(test).length === 1

const damages: Readonly<Record<string, Damage>> = {
  'a part never refitted': drop((s) => Boolean(s.fit)),
  'a discarded part never renewed': drop((s) => Boolean(s.renew)),
  'zero never proved': drop((s, g) => Boolean(s.prove) && only(g, (o) => o.prove === s.prove)),
  'a valve never shut': drop((s) => Boolean(s.isolate)),
  'a vent never opened': drop((s) => Boolean(s.vent)),
  'one cock left out of the bleeding': change(
    (s) => (s.vent?.length ?? 0) > 1,
    (s) => ({ ...s, vent: s.vent?.slice(1) }),
  ),
  'a vent left open': drop((s) => Boolean(s.shut)),
  'a valve left shut': drop((s, g) => Boolean(s.reopen) && only(g, (o) => o.reopen === s.reopen)),
  'a valve left opened in part': drop((s) => Boolean(s.reopen) && s.degree === 'full'),
  'spring load not relieved': drop((s) => Boolean(s.relieve)),
  'a loaded cover taken off without control': change(
    (s) => Boolean(s.controlled),
    (s) => without(s, 'controlled'),
  ),
  'no function test': drop((s, g) => Boolean(s.test) && only(g, (o) => Boolean(o.test))),
  'a lifting aid left in': drop((s) => Boolean(s.liftOut)),
  'a lifting aid that never went in': drop((s) => Boolean(s.liftIn)),
  'a witness mark never matched': drop((s) => Boolean(s.match)),
  'a joint matched that was never marked': drop((s) => Boolean(s.mark)),
  // Where it is set under pressure later, the school that begins from zero restores nothing.
  'an as-found setting never restored': drop(
    (s, g) => Boolean(s.restore) && !g.steps.some((later) => later.set === s.restore),
  ),
  'a setting restored that was never taken': drop((s) => Boolean(s.snapshot)),
  // Where it goes back to what was found, nothing has to be set.
  'an adjustment disturbed and not set': drop(
    (s, g) => Boolean(s.set) && !g.steps.some((back) => back.restore === s.set),
  ),
  'a part taken off while it is fastened': drop((s) => Boolean(s.loosen)),
  'a fastener left loose': drop((s) => Boolean(s.tighten)),
  'a part removed twice': twice((s) => Boolean(s.remove)),
  'a part fitted twice': twice((s) => Boolean(s.fit)),
  'a part renewed twice': twice((s) => Boolean(s.renew)),
  'no orientation shown': change(
    (s, g) => Boolean(s.orient) && part(g, s.fit ?? s.renew)?.orient === true,
    (s) => without(s, 'orient'),
  ),
  'petroleum on EPDM': change(
    (s, g) => Boolean(s.lubricate) && part(g, s.lubricate)?.rubber === 'epdm',
    (s) => ({ ...s, with: 'petrolatum' }),
  ),
  'lubricant on a dry face': (g) =>
    g.parts
      .filter((p) => p.dry)
      .flatMap((p) =>
        where(g, (s) => s.renew === p.id || s.fit === p.id).map((n) =>
          at(g, n, { lubricate: p.id, with: 'silicone', say: 'Grease it' }, step(g, n)),
        ),
      ),
  'a torque in a pressure unit': (g) =>
    g.steps.some((s) => s.to?.torque)
      ? [
          {
            ...g,
            slots: g.slots?.map((s) =>
              s.dimension === 'torque' ? { ...s, dimension: 'gaugePressure' as const } : s,
            ),
          },
        ]
      : [],
  'a kit item that is not in the kit': (g) =>
    (g.kit ?? []).map((k) => ({ ...g, kit: g.kit?.filter((o) => o.id !== k.id) })),
  'a kit with too few': (g) =>
    (g.kit ?? [])
      .filter((k) => k.count > 1)
      .map((k) => ({ ...g, kit: g.kit?.map((o) => (o.id === k.id ? { ...o, count: 1 } : o)) })),
  'a kit item that goes nowhere': (g) => [
    { ...g, kit: [...(g.kit ?? []), { id: 'stranger', title: 'Stranger', count: 1 }] },
  ],
  'a figure that no step asks for': (g) => [
    { ...g, slots: [...(g.slots ?? []), { id: 'stranger', title: 'Stranger' }] },
  ],
  'a part nobody knows': change(
    (s) => Boolean(s.remove),
    (s) => ({ ...s, remove: 'nobody' }),
  ),
  'gas shut in by somebody unqualified': (g) =>
    g.service === 'gas' ? drop((s) => s.gate === 'qualified')(g) : [],
  'air left on': drop((s, g) => s.air === 'off' && g.steps.some((o) => o.air === 'on')),
  'air never put on where it must be': (g) =>
    g.steps.some((s) => s.withAir)
      ? [{ ...g, steps: g.steps.map((s) => (s.air === 'on' ? { ...s, air: 'off' as const } : s)) }]
      : [],
  'power never put on again': drop((s) => s.power === 'on'),
  'power on while it is opened': drop((s) => s.power === 'off'),
  'a thrown-away part fitted again': change(
    (s) => Boolean(s.renew),
    (s) => ({ ...without(without(s, 'renew'), 'from'), fit: s.renew }),
  ),
  'a temporary repair without permission': (g) =>
    g.steps.some((s) => s.temporary)
      ? [{ ...g, steps: g.steps.filter((s) => s.gate !== 'permission') }]
      : [],
  'a temporary repair without an end': change(
    (s) => Boolean(s.temporary),
    (s) => without(s, 'expires'),
  ),
  'something inspected under its cover': (g) =>
    where(g, (s) => Boolean(s.inspect) && isHidden(g, s.inspect))
      .slice(0, 1)
      .map((n) => {
        const moved = step(g, n)
        const rest = g.steps.filter((_, i) => i !== n)
        const first = rest.findIndex((s) => s.at === moved.at)
        return { ...g, steps: [...rest.slice(0, first), moved, ...rest.slice(first)] }
      }),
  'a fit that cannot be nested': swap((a, b, g) =>
    Boolean(a.fit && b.fit && part(g, a.fit)?.under?.includes(b.fit)),
  ),
  'a removal that is buried': swap((a, b, g) =>
    Boolean(a.remove && b.remove && part(g, b.remove)?.under?.includes(a.remove)),
  ),
  'zero proved before it is vented': swap((a, b, g) =>
    Boolean(a.vent?.some((v) => zone(g, b.prove)?.ventedBy.includes(v))),
  ),
  'vented before it is shut': swap((a, b, g) =>
    Boolean(
      g.zones?.some(
        (z) =>
          shutFor(zoneSite(g.zones ?? []), z.id).includes(a.isolate ?? '') &&
          b.vent?.some((v) => z.ventedBy.includes(v)),
      ),
    ),
  ),
  'a step without words': change(
    (s) => Boolean(s.remove),
    (s) => without(s, 'say'),
  ),
  'stations out of order': (g) => {
    const last = g.steps.findLast((s) => s.at === 'as-left')
    return last ? [{ ...g, steps: [last, ...g.steps] }] : []
  },
  'a live cock opened': (g) =>
    g.zones?.some((z) => z.neverVentedBy)
      ? change(
          (s) => Boolean(s.vent?.includes('cock-2')),
          (s) => ({ ...s, vent: [...(s.vent ?? []), 'cock-1'] }),
        )(g)
      : [],
  'a space fed through the equipment, never shut in': (g) =>
    g.zones?.some((z) => z.feeds) ? drop((s) => s.isolate === 'inlet-valve')(g) : [],
  'one of several connected spaces never proved': (g) =>
    g.zones?.some((z) => z.feeds) ? drop((s) => Boolean(s.prove))(g) : [],
  'spaces that feed each other in a circle': (g) =>
    (g.zones ?? [])
      .filter((z) => z.feeds)
      .map((z) => ({
        ...g,
        zones: g.zones?.map((o) => (z.feeds?.includes(o.id) ? { ...o, feeds: [z.id] } : o)),
      })),
  'a space that nothing shuts off': (g) =>
    (g.zones ?? []).map((z) => ({
      ...g,
      zones: g.zones?.map(({ shutBy: _, ...o }) => ({ ...o, feeds: undefined })),
      id: z.id,
    })),
  'the air put on twice': twice((s) => s.air !== undefined),
  'compound on a tight thread': swap((a, b, g) =>
    Boolean(b.tighten && a.treat === b.tighten && g.fasteners?.some((f) => f.id === a.treat)),
  ),
  'compound on what stays dry': (g) =>
    g.parts
      .filter((p) => p.dry)
      .flatMap((p) =>
        change(
          (s) => Boolean(s.treat),
          (s) => ({ ...s, treat: p.id }),
        )(g),
      ),
  'a figure for a treated thread on a bare one': drop((s, g) =>
    g.steps.some((o) => o.tighten === s.treat && o.to?.thread === 'treated'),
  ),
  'a figure for a dry thread on a treated one': change(
    (s) => s.to?.thread === 'treated',
    (s) => ({ ...s, to: { ...s.to, thread: 'dry' } }),
  ),
  'work taken up again from nowhere': change(
    (s) => Boolean(s.redoFrom),
    (s) => ({ ...s, redoFrom: 'nowhere' }),
  ),
  'work taken up again in another station': (g) =>
    where(g, (s) => Boolean(s.redoFrom)).flatMap((n) => {
      const first = g.steps.findIndex((s) => s.at === 'make-safe')
      return [
        {
          ...g,
          steps: g.steps.map((s, i) =>
            i === first ? { ...s, name: 'far' } : i === n ? { ...s, redoFrom: 'far' } : s,
          ),
        },
      ]
    }),
  'a way back without a check': change(
    (s) => Boolean(s.verify && !s.trial),
    (s) => ({ ...without(s, 'verify'), redoFrom: s.name ?? 'x' }),
  ),
  'a part that comes away with one that is still on': (g) =>
    where(g, (s) => Boolean(s.remove && s.mayComeWith)).flatMap((n) => {
      const inner = g.parts.find((p) => p.under?.includes(step(g, n).remove ?? ''))
      return inner ? [at(g, n, { ...step(g, n), mayComeWith: inner.id } as GuideStep)] : []
    }),
  'a finding that nothing gives': change(
    (s) => Boolean(s.when),
    (s) => ({
      ...s,
      when: Object.fromEntries(Object.keys(s.when ?? {}).map((k) => [k, ['renew-body']])),
    }),
  ),
  'a verdict that mends what cannot be found': change(
    (s) => Boolean(s.verdicts),
    (s) => ({ ...s, verdicts: s.verdicts?.map((v) => ({ ...v, mends: ['rust of the moon'] })) }),
  ),
}

/** What no step can be: its schema refuses it before anything is proved. */
const malformed: Readonly<Record<string, Damage>> = {
  'a repeat that cannot end': change(
    (s) => Boolean(s.repeat),
    (s) => without(s, 'most'),
  ),
  'two things in one step': change(
    (s) => Boolean(s.remove),
    (s) => ({ ...s, fit: s.remove }),
  ),
  'compound of no kind': change(
    (s) => Boolean(s.treat),
    (s) => without(s, 'compound'),
  ),
  'renewing from nothing': change(
    (s) => Boolean(s.renew),
    (s) => without(s, 'from'),
  ),
  'tightening to nothing': change(
    (s) => Boolean(s.tighten),
    (s) => without(s, 'to'),
  ),
  'an inspection without an end': change(
    (s) => Boolean(s.inspect),
    (s) => without(s, 'verdicts'),
  ),
}

/**
 * Guides that few ways lead through: the damage is the same in the others, which are tried where it
 * can be done to none of these. */
const small = good.filter(
  (g) =>
    new Set(g.steps.flatMap(conditionsOf).map(([name]) => name)).size <= 2 &&
    expandGuide(g, shippedSubGuides).steps.length <= 75,
)

describe('the prover catches', () => {
  it('more than thirty kinds of damage', () => {
    expect(Object.keys(damages).length).toBeGreaterThan(30)
  })
  it.each(Object.entries(damages))('%s', (_, damage) => {
    const guides = small.some((g) => damage(g).length > 0) ? small : good
    const damaged = guides.flatMap((g) => damage(g).map((d) => ({ id: g.id, caught: isCaught(d) })))
    expect(damaged.length).toBeGreaterThan(0)
    expect(damaged.filter((d) => !d.caught)).toEqual([])
  })
  it.each(Object.entries(malformed))('by its schema alone: %s', (_, damage) => {
    const damaged = good.flatMap((g) => damage(g).slice(0, 1))
    expect(damaged.length).toBeGreaterThan(0)
    for (const guide of damaged) expect(() => check(guideSchema, guide)).toThrow(/“steps\[\d+\]/)
  })
  it('and says where, why and how to mend it', () => {
    const [first] = shippedGuides.filter((g) => g.id === 'rp-relief').map(inlined)
    const guide = first as Guide
    const n = guide.steps.findIndex((s) => s.fit === 'relief-cover')
    const [fault] = prove(at(guide, n))
    expect(fault?.path).toMatch(/^steps\[\d+\]$/)
    expect(fault?.message).toMatch(/fit it/)
  })
})

describe('sub-guides', () => {
  const outer = shippedGuides.find((g) => g.id === 'tower-double-check') as Guide
  const sub = (id: string, steps: SubGuide['steps'], parameters = ['n']): SubGuide =>
    ({ id, version: 1, date: '2026-01-01', title: id, source: 'x', parameters, steps }) as SubGuide
  it.each<[string, SubGuide[], RegExp]>([
    ['that are not there', [], /no sub-guide “x”/],
    [
      'that go round',
      [
        sub('x', [{ include: 'y', parameters: { n: '1' } }]),
        sub('y', [{ include: 'x', parameters: { n: '1' } }]),
      ],
      /circle: x → y → x/,
    ],
    [
      'without their parameters',
      [sub('x', [{ do: true, say: 'Look at {n}' }], ['n', 'm'])],
      /wants a value for “m”/,
    ],
  ])('%s are refused', (_, subs, words) => {
    const guide = { ...outer, steps: [{ include: 'x', parameters: { n: '1' } }, ...outer.steps] }
    const faults = proveGuide(guide, [...subs, ...shippedSubGuides]).faults
    expect(faults.some((f) => words.test(f.message))).toBe(true)
  })
  it('are filled in with their values', () => {
    const { steps } = expandGuide(outer, shippedSubGuides)
    const second = steps.filter((s) => s.remove === 'check-2')
    expect(second).toHaveLength(1)
    expect(second[0]?.say).toBe('Lift check 2 out, seat and tower as one')
  })
})
