import { describe, expect, it } from 'vitest'
import {
  expandGuide,
  guideAsBuilt,
  type Guide,
  type GuideStep,
  movesOf,
  type PlacedStep,
  placedStep,
  proveGuide,
} from '..'
import { endFaults } from './ends'
import { takeStep } from './rules'
import { type ProofState, startState } from './state'

/**
 * A machine that is as small as it can be and has one of everything: two spaces, of which the upper
 * feeds the lower past a seat, a cap over each, a spring, bolts, an adjuster, a heavy bonnet.
 */
const machine: Guide = {
  id: 'small-machine',
  version: 1,
  date: '2026-06-01',
  title: 'Small machine',
  source: 'Made up for its rules',
  family: 'small-machine',
  service: 'gas',
  variants: [
    { id: 'usual', title: 'Usual' },
    { id: 'other', title: 'Other' },
  ],
  parts: [
    { id: 'cap', title: 'Cap', shape: 'cover', closes: 'upper', spring: 'main-spring' },
    { id: 'plug', title: 'Plug', shape: 'cover', closes: 'lower' },
    { id: 'shield', title: 'Shield', shape: 'cover' },
    { id: 'disc', title: 'Disc', shape: 'disc', under: ['cap', 'shield'], disturbs: 'height' },
    { id: 'ring', title: 'Ring', shape: 'ring', rubber: 'EPDM', under: ['plug'] },
    { id: 'rod', title: 'Rod', shape: 'rod', dry: true },
  ],
  zones: [
    {
      id: 'upper',
      title: 'the upper space',
      shutBy: ['inlet-valve'],
      ventedBy: ['upper-cock'],
      feeds: ['lower'],
    },
    {
      id: 'lower',
      title: 'the lower space',
      shutBy: ['outlet-valve'],
      ventedBy: ['lower-cock', 'drain'],
    },
  ],
  fasteners: [
    { id: 'bolts', title: 'Cap bolts', holds: 'cap', count: 'bolt-count' },
    { id: 'screws', title: 'Plug screws', holds: 'plug' },
  ],
  springs: [{ id: 'main-spring', title: 'Main spring' }],
  adjustments: [{ id: 'height', title: 'Height' }],
  kit: [{ id: 'new-ring', title: 'Ring', count: 1, parts: ['ring'] }],
  slots: [
    { id: 'bolt-count', title: 'Number of bolts' },
    { id: 'air-pressure', title: 'Air', dimension: 'torque' },
  ],
  steps: [],
} as unknown as Guide

type Step = Partial<GuideStep>
const placed = (step: Step, n = 0): PlacedStep =>
  placedStep({ ...(step.tighten ? { to: { snug: true } } : {}), ...step } as GuideStep, {
    at: step.at ?? 'open-up',
    id: String(n + 1),
    path: `steps[${n}]`,
  })

/** What is so before any hand is on it. */
const begun = () => ({ gates: new Set(['acknowledge', 'hazard', 'told']), counted: true })

/** Rules that the last of some steps breaks, and the state behind them. */
function after(steps: readonly Step[], guide = machine, start: Partial<ProofState> = {}) {
  const state = {
    ...startState(false, { service: guide.service, contact: 'gas' }, new Set()),
    ...begun(),
    ...start,
  }
  let said: [string, string][] = []
  for (const [n, step] of steps.entries()) {
    said = []
    takeStep(guide, placed(step, n), state, (rule, message) => said.push([rule, message]))
  }
  return { rules: said.map(([r]) => r), says: said.map(([, m]) => m).join(' '), state }
}
const broken = (...steps: Step[]) => after(steps).rules
const endOf = (steps: readonly Step[]) => {
  const { state } = after(steps)
  const said: [string, string][] = []
  endFaults(machine, state, (rule, message) => said.push([rule, message]))
  return said
}
const QUALIFIED: Step = { gate: 'qualified' }
const OFF: Step[] = [{ loosen: 'screws' }, { remove: 'plug' }]

describe('air', () => {
  it('keeps hands out while it is on, where the step does not say that it must be', () => {
    const on: Step = { air: 'on' }
    expect(broken(on, { clean: 'rod' })).toEqual(['air-on'])
    expect(broken(on, { clean: 'rod', withAir: true })).toEqual([])
    expect(broken(on, { tighten: 'bolts' })).toEqual([])
    expect(broken({ clean: 'rod', withAir: true })).toEqual(['air-missing'])
    expect(broken({ clean: 'rod' })).toEqual([])
  })
})

describe('taking work up again', () => {
  it('leads to a named step of the same station, or from as-left to open-up', () => {
    const named: Step = { clean: 'rod', name: 'wiped' }
    expect(broken(named, { clean: 'rod', redoFrom: 'wiped' } as Step)).toEqual([])
    const redo = (at: string) => ({ clean: 'rod', redoFrom: 'wiped', at }) as Step
    expect(broken(named, redo('as-left'))).toEqual([])
    expect(broken(named, redo('return'))).toEqual(['redo-nowhere'])
    expect(broken({ ...named, at: 'rebuild' }, redo('as-left'))).toEqual(['redo-nowhere'])
    expect(broken({ clean: 'rod' }, redo('open-up'))).toEqual(['redo-nowhere'])
  })
})

describe('gas', () => {
  it('is shut in by whoever is qualified', () => {
    expect(broken({ isolate: 'inlet-valve' })).toEqual(['unqualified'])
    expect(broken({ gate: 'permission' }, { isolate: 'inlet-valve' })).toEqual(['unqualified'])
    expect(broken(QUALIFIED, { isolate: 'inlet-valve' })).toEqual([])
  })
  const shutIn: Step[] = [QUALIFIED, { isolate: 'outlet-valve' }, { isolate: 'inlet-valve' }]
  const vented: Step[] = [...shutIn, { vent: ['lower-cock', 'drain'] }, { vent: ['upper-cock'] }]
  it('does not come back while a vent is open, except cracked to purge', () => {
    expect(broken(...vented, { reopen: 'outlet-valve', degree: 'full' } as Step)).toContain(
      'vents-open',
    )
    expect(broken(...vented, { reopen: 'outlet-valve', degree: 'crack' })).toEqual([])
    const shut: Step = { shut: ['lower-cock', 'drain', 'upper-cock'] }
    expect(broken(...vented, shut, { reopen: 'outlet-valve' })).toEqual([])
  })
  it('does not come back into what is open, and what closes another space does not matter', () => {
    const proved: Step[] = [...vented, { prove: 'lower' }, { prove: 'upper' }]
    const shut: Step = { shut: ['lower-cock', 'drain', 'upper-cock'] }
    const found = after([...proved, ...OFF, shut, { reopen: 'outlet-valve' }])
    expect(found.rules).toEqual(['pressure-into-open'])
    expect(found.says).toContain('the lower space while Plug is off')
  })
})

describe('venting and proving', () => {
  const shutIn: Step[] = [QUALIFIED, { isolate: 'outlet-valve' }, { isolate: 'inlet-valve' }]
  it('opens nothing that is still fed, and names only what is still open', () => {
    const found = after([QUALIFIED, { isolate: 'outlet-valve' }, { vent: ['lower-cock'] }])
    expect(found.rules).toEqual(['vent-unshut'])
    expect(found.says).toContain('still fed by inlet-valve:')
  })
  it('goes downstream first', () => {
    expect(broken(...shutIn, { vent: ['upper-cock'] })).toEqual(['vent-order'])
    expect(broken(...shutIn, { vent: ['lower-cock', 'drain'] }, { vent: ['upper-cock'] })).toEqual(
      [],
    )
  })
  it('wants every vent of a space open, and nothing feeding it', () => {
    expect(broken(...shutIn, { vent: ['lower-cock'] }, { prove: 'lower' })).toEqual([
      'prove-unvented',
    ])
    expect(broken(...shutIn, { vent: ['lower-cock', 'drain'] }, { prove: 'lower' })).toEqual([])
    const fed = after([QUALIFIED, { isolate: 'outlet-valve' }, { prove: 'lower' }])
    expect(fed.rules).toContain('prove-fed')
  })
  it('of one space lapses when its vent is shut, and that of another does not', () => {
    const vents: Step[] = [{ vent: ['lower-cock', 'drain'] }, { vent: ['upper-cock'] }]
    const proofs: Step[] = [...shutIn, ...vents, { prove: 'lower' }, { prove: 'upper' }]
    const { state } = after([...proofs, { shut: ['drain'] }])
    expect([...state.proved]).toEqual(['upper'])
    const reopened = after([...proofs, { reopen: 'outlet-valve', degree: 'crack' }]).state
    expect([...reopened.proved]).toEqual(['upper'])
  })
  it('is required again before hands go in, after a space was pressurized with parts out', () => {
    const vents: Step[] = [{ vent: ['lower-cock', 'drain'] }, { vent: ['upper-cock'] }]
    const open: Step[] = [...shutIn, ...vents, { prove: 'lower' }, { prove: 'upper' }, ...OFF]
    const fed: Step[] = [...open, { reopen: 'inlet-valve', degree: 'crack' }]
    const found = after([...fed, { clean: 'rod' }])
    expect(found.rules).toEqual(['hands-live'])
    expect(found.says).toContain('the upper space')
    // What feeds the upper space feeds the lower one past the seat: both are proved.
    const again: Step[] = [...fed, { isolate: 'inlet-valve' }, { prove: 'upper' }]
    expect(broken(...again, { clean: 'rod' })).toEqual(['hands-live'])
    expect(broken(...again, { prove: 'lower' }, { clean: 'rod' })).toEqual([])
    // A lid that closes no space leaves nothing open: wiped with the pressure on.
    const closed: Step[] = [...shutIn, ...vents, { remove: 'shield' }]
    expect(broken(...closed, { reopen: 'inlet-valve', degree: 'crack' }, { clean: 'rod' })).toEqual(
      [],
    )
  })
  it('comes before a part that opens a space, and what stands in connection with it', () => {
    const found = after([{ loosen: 'screws' }, { remove: 'plug' }])
    expect(found.rules).toEqual(['opened-live'])
    expect(found.says).toContain('the upper space, the lower space')
    expect(broken({ remove: 'shield' })).toEqual([])
  })
})

describe('the order of valves', () => {
  const ordered = {
    ...machine,
    order: {
      shut: ['outlet-valve', 'inlet-valve'],
      opened: ['inlet-valve', 'outlet-valve'],
    },
  } as Guide
  const rules = (...steps: Step[]) => after([QUALIFIED, ...steps], ordered).rules
  it('holds while it is closed, and no longer where a space stands open', () => {
    expect(rules({ isolate: 'inlet-valve' }, { isolate: 'outlet-valve' })).toEqual(['shut-order'])
    expect(rules({ isolate: 'outlet-valve' }, { isolate: 'inlet-valve' })).toEqual([])
    const shut: Step[] = [{ isolate: 'outlet-valve' }, { isolate: 'inlet-valve' }]
    const first: Step = { reopen: 'outlet-valve', degree: 'crack' }
    expect(rules(...shut, first)).toEqual(['open-order'])
    const vents: Step[] = [{ vent: ['lower-cock', 'drain'] }, { vent: ['upper-cock'] }]
    const open: Step[] = [...shut, ...vents, { prove: 'lower' }, { prove: 'upper' }, ...OFF]
    expect(rules(...open, first)).not.toContain('open-order')
  })
})

describe('a build that lacks a valve', () => {
  it('is vented and proved without it, and the guide is as it was for the others', () => {
    const guide = {
      ...machine,
      variants: [
        { id: 'usual', title: 'Usual' },
        { id: 'other', title: 'Other', lacks: ['drain'] },
      ],
    } as Guide
    const vents = (variant: string) =>
      guideAsBuilt(guide, variant).zones?.find((z) => z.id === 'lower')?.ventedBy
    expect(vents('other')).toEqual(['lower-cock'])
    expect(vents('usual')).toEqual(['lower-cock', 'drain'])
    const proof: Step[] = [
      QUALIFIED,
      { isolate: 'outlet-valve' },
      { isolate: 'inlet-valve' },
      { vent: ['lower-cock'] },
      { prove: 'lower' },
    ]
    expect(after(proof, guideAsBuilt(guide, 'other')).rules).toEqual([])
    expect(after(proof, guideAsBuilt(guide, 'usual')).rules).toEqual(['prove-unvented'])
  })
  it('has no step that turns it, and names a valve that there is', () => {
    const rules = (lacks: string, step: object) =>
      proveGuide(
        {
          ...machine,
          variants: [
            { id: 'usual', title: 'Usual' },
            { id: 'other', title: 'Other', lacks: [lacks] },
          ],
          steps: [{ at: 'make-safe', vent: ['lower-cock', 'drain'], say: 'Vent it', ...step }],
        } as unknown as Guide,
        [],
      ).faults.map((f) => f.rule)
    expect(rules('drain', {})).toContain('not-built')
    expect(rules('drain', { only: ['usual'] })).not.toContain('not-built')
    expect(rules('moon', {})).toContain('unknown-name')
  })
})

describe('parts that come off', () => {
  it('are not held, not covered and not under a spring', () => {
    const cap = after([{ remove: 'cap' }], { ...machine, zones: [] } as Guide)
    expect(cap.rules).toEqual(['loaded-spring', 'still-fastened'])
    expect(cap.says).toContain('Cap bolts')
    const off: Step[] = [{ relieve: 'main-spring' }, { loosen: 'bolts' }, { remove: 'cap' }]
    expect(after(off, { ...machine, zones: [] } as Guide).rules).toEqual([])
    const disc = after([{ remove: 'disc' }])
    expect(disc.rules).toEqual(['buried'])
    expect(disc.says).toContain('under Cap, Shield')
  })
  it('are not looked at while something is over them', () => {
    const hidden = after([{ inspect: 'disc' }])
    expect(hidden.rules).toEqual(['inspect-hidden'])
    expect(hidden.says).toContain('while Cap, Shield is still over it')
    expect(broken({ inspect: 'rod' })).toEqual([])
    expect(broken({ inspect: 'something-else' } as Step)).toEqual([])
  })
  it('are thrown away when they are off, not before', () => {
    expect(broken({ discard: 'rod' })).toEqual(['discard-fitted'])
    expect(broken({ remove: 'rod' }, { discard: 'rod' })).toEqual([])
    expect(broken({ remove: 'rod' }, { discard: 'rod' }, { fit: 'rod' })).toEqual([
      'fitted-discarded',
    ])
  })
  it('have their setting taken before they disturb it', () => {
    expect(broken({ snapshot: 'height' })).toEqual([])
    expect(broken({ remove: 'disc' }, { snapshot: 'height' })).toEqual(['snapshot-late'])
  })
})

describe('parts that go back', () => {
  it('are clean before they are lubricated, and dry ones stay dry', () => {
    const grease = { lubricate: 'ring', with: 'silicone' } as Step
    const off: Step[] = [{ remove: 'shield' }, { remove: 'ring' }]
    expect(broken(...off, grease)).toContain('greased-dirty')
    expect(broken(...off, { clean: 'ring' }, grease)).not.toContain('greased-dirty')
    expect(broken({ lubricate: 'rod', with: 'silicone' } as Step)).toEqual(['never-there'])
    expect(broken({ treat: 'rod' } as Step)).toEqual(['never-there'])
  })
  it('are lubricated for what flows through, and where that is not said it is asked for', () => {
    const grease = { lubricate: 'ring', with: 'mineral' } as Step
    expect(after([grease], machine, { contact: 'drinking-water' }).rules).toEqual([
      'lubricant-clash',
    ])
    expect(after([grease], machine, { contact: undefined }).rules).toEqual(['no-contact'])
  })
  it('are renewed when the old one is out, from a kit that has so many', () => {
    const renew = { renew: 'ring', from: 'new-ring' } as Step
    expect(broken(renew)).toEqual(['renewed-in-place'])
    const other = { renew: 'rod', from: 'new-ring' } as Step
    expect(broken({ remove: 'rod', keepFor: 'discard' }, other)).toEqual(['kit-of-another'])
    expect(broken({ remove: 'ring' }, renew)).toEqual(['old-kept'])
    const away: Step = { remove: 'ring', keepFor: 'discard' }
    expect(broken({ ...away, at: 'open-up' }, renew)).toEqual([])
    expect(broken({ ...away, keepFor: 'warranty' }, renew)).toEqual([])
    expect(broken({ remove: 'ring' }, { discard: 'ring' }, renew)).toEqual([])
    expect(broken(away, renew, away, renew)).toContain('kit-over')
  })
  it('cover nothing that is still off', () => {
    const off: Step[] = [{ remove: 'shield' }, { remove: 'disc' }]
    const shield = after([...off, { fit: 'shield' }])
    expect(shield.rules).toEqual(['buried-missing'])
    expect(shield.says).toContain('Shield goes on while Disc is still off')
  })
  it('are not put back where they were found worn', () => {
    const worn = (finding: string) =>
      after([{ remove: 'ring' }, { fit: 'ring' }], machine, {
        inspected: new Map([['ring', finding]]),
      }).rules
    expect(worn('renew')).toEqual(['worn-refitted'])
    expect(worn('sound')).toEqual([])
  })
})

describe('fasteners', () => {
  it('are not tightened over nothing', () => {
    const off = after([...OFF, { tighten: 'screws' }])
    expect(off.rules).toEqual(['tightened-nothing'])
    expect(off.says).toContain('Plug')
    expect(broken({ tighten: 'bolts' })).toEqual([])
    expect(broken({ tighten: 'a-gland' } as Step)).toEqual([])
  })
  it('have the thread that their figure is for', () => {
    const to = (thread: string) => ({ tighten: 'bolts', to: { torque: 't', thread } }) as Step
    const treated: Step[] = [{ loosen: 'bolts' }, { treat: 'bolts' } as Step]
    expect(broken(to('treated'))).toEqual(['dry-thread'])
    expect(broken(...treated, to('treated'))).toEqual([])
    expect(broken(...treated, to('dry'))).toEqual(['greased-thread'])
    expect(broken(to('dry'))).toEqual([])
  })
  it('get compound while they are loose', () => {
    expect(broken({ treat: 'bolts' } as Step)).toEqual(['treated-tight'])
    expect(broken({ loosen: 'screws' }, { treat: 'bolts' } as Step)).toEqual(['treated-tight'])
    expect(broken({ loosen: 'bolts' }, { treat: 'bolts' } as Step)).toEqual([])
  })
})

describe('power and the function test', () => {
  it('want everything in its place', () => {
    const power = after([{ remove: 'shield' }, { remove: 'rod' }, { power: 'on' }])
    expect(power.rules).toEqual(['power-open'])
    expect(power.says).toContain('Shield, Rod')
    expect(broken({ remove: 'rod' }, { power: 'off' })).toEqual([])
    expect(broken({ power: 'on' })).toEqual([])
    const test = after([{ remove: 'rod' }, { test: 'works' } as Step])
    expect(test.rules).toEqual(['tested-open'])
    expect(test.says).toContain('Rod')
  })
  it('want the medium on: one valve that is shut cuts a space off', () => {
    const cut: Step[] = [QUALIFIED, { isolate: 'inlet-valve' }, { isolate: 'outlet-valve' }]
    expect(broken(...cut, { test: 'works' } as Step)).toEqual(['tested-dry', 'tested-dry'])
    expect(broken({ test: 'works' } as Step)).toEqual([])
  })
  it('of a temporary repair wants who permitted it, and until when', () => {
    expect(broken({ temporary: 'x' } as Step)).toEqual([
      'temporary-unpermitted',
      'temporary-endless',
    ])
    const permitted = after([
      { gate: 'permission' },
      { temporary: 'x', expires: 'asked' } as unknown as Step,
    ])
    expect(permitted.rules).toEqual([])
    expect(permitted.state.temporary).toBe(true)
  })
})

describe('the end of a guide', () => {
  it('names what is left, by its title', () => {
    expect(endOf([{ loosen: 'screws' }])).toEqual([
      ['left-loose', 'Plug screws is loosened and never tightened'],
    ])
    expect(endOf([{ loosen: 'screws' }, { tighten: 'screws' }])).toEqual([])
    expect(endOf([{ loosen: 'gland' } as Step])).toEqual([
      ['left-loose', 'gland is loosened and never tightened'],
    ])
    expect(endOf([{ remove: 'rod' }]).map(([r]) => r)).toEqual(['left-on-tray', 'untested'])
  })
})

describe('what a step turns', () => {
  it('is its valves in order, as far as it says', () => {
    const moves = (step: Step) => movesOf(placed(step)).map((m) => `${m.element} ${m.to}`)
    expect(moves({ isolate: 'a' })).toEqual(['a shut'])
    expect(moves({ vent: ['a', 'b'] })).toEqual(['a open', 'b open'])
    expect(moves({ shut: ['a'] })).toEqual(['a shut'])
    expect(moves({ reopen: 'a', degree: 'crack' })).toEqual(['a crack'])
    expect(moves({ reopen: 'a', degree: 'half' } as Step)).toEqual(['a half'])
    expect(moves({ reopen: 'a', degree: 'full' } as Step)).toEqual(['a open'])
    expect(moves({ reopen: 'a' })).toEqual(['a open'])
    expect(moves({ clean: 'a' })).toEqual([])
  })
})

describe('what a guide declares and ties to nothing', () => {
  const rulesOf = (change: Partial<Guide>, steps: readonly Step[]) =>
    proveGuide({ ...machine, ...change, steps: steps as GuideStep[] }, []).faults.map((f) => f.rule)
  const say = (step: Step): Step =>
    ({
      say: 'Do it',
      at: 'open-up',
      ...(step.tighten ? { to: { snug: true } } : {}),
      ...step,
    }) as Step
  const only = (f: string) => machine.fasteners?.filter((x) => x.id === f) ?? []
  const bare = { zones: [], springs: [], slots: [], fasteners: only('screws') } as Partial<Guide>
  const fits = (steps: readonly Step[]) =>
    rulesOf(
      {
        ...bare,
        parts: machine.parts.map(({ closes: _, spring: __, ...p }) => p),
      } as Partial<Guide>,
      steps,
    ).includes('fastener-untouched')
  it('is fine for fasteners that are loosened, or tightened, or whose part comes off or is thrown away', () => {
    expect(fits([say({ clean: 'rod' })])).toBe(true)
    expect(fits([say({ clean: 'rod' }), say({ loosen: 'screws' })])).toBe(false)
    expect(fits([say({ clean: 'rod' }), say({ tighten: 'screws' })])).toBe(false)
    expect(fits([say({ clean: 'rod' }), say({ remove: 'plug' })])).toBe(false)
    expect(fits([say({ clean: 'rod' }), say({ discard: 'plug' })])).toBe(false)
    expect(fits([say({ remove: 'shield' }), say({ loosen: 'bolts' })])).toBe(true)
  })
  it('wants an order for a counted ring alone, and only where it is tightened to a figure', () => {
    const plain = { ...bare, fasteners: machine.fasteners, slots: machine.slots } as Partial<Guide>
    const parts = machine.parts.map(({ closes: _, spring: __, ...p }) => p) as Guide['parts']
    const tight = (step: Step) => rulesOf({ ...plain, parts }, [say(step)])
    const torque = { torque: 'bolt-count' } as GuideStep['to']
    expect(tight({ tighten: 'bolts', to: torque } as Step)).toContain('no-pattern')
    expect(tight({ tighten: 'screws', to: torque } as Step)).not.toContain('no-pattern')
    expect(tight({ tighten: 'bolts' })).not.toContain('no-pattern')
  })
  it('wants a pressure for the air that is put on, and nothing for air that is taken off', () => {
    const plain = { ...bare, slots: machine.slots, fasteners: [] } as Partial<Guide>
    const parts = machine.parts.map(({ closes: _, spring: __, ...p }) => p) as Guide['parts']
    const air = (step: Step) => rulesOf({ ...plain, parts }, [say(step)])
    expect(air({ air: 'on', slot: 'air-pressure' } as Step)).toContain('wrong-unit')
    expect(air({ air: 'off', slot: 'air-pressure' } as Step)).not.toContain('wrong-unit')
    expect(air({ clean: 'rod', slot: 'air-pressure' } as Step)).not.toContain('wrong-unit')
  })
})

describe('the ways through a guide', () => {
  const parts = machine.parts.map(
    ({ closes: _, spring: __, under: ___, disturbs: ____, ...p }) => p,
  )
  const small = {
    ...machine,
    parts,
    zones: [],
    springs: [],
    fasteners: [],
    slots: [],
    kit: [],
    adjustments: [],
  } as unknown as Guide
  const step = (s: Step): GuideStep => ({ say: 'Do it', at: 'open-up', ...s }) as GuideStep
  const look = (part: string, ...ids: string[]) =>
    step({
      inspect: part,
      defects: ['cut'],
      verdicts: ids.map((id) => ({ id, title: id })),
    } as unknown as Step)
  const prove = (steps: GuideStep[], change: Partial<Guide> = {}, most?: number) =>
    proveGuide({ ...small, ...change, steps } as Guide, [], { allWays: most })
  const rules = (...args: Parameters<typeof prove>) => prove(...args).faults.map((f) => f.rule)
  it('are one for each finding, and a finding that stops the work ends its way', () => {
    const two = { variants: [small.variants[0]!] }
    expect(prove([look('rod', 'sound', 'clean'), step({ clean: 'rod' })], two).paths).toBe(2)
    const stopped = prove([look('rod', 'sound', 'stop'), step({ clean: 'rod' })], two)
    expect([stopped.paths, stopped.faults]).toEqual([2, []])
    const gates = (['acknowledge', 'hazard', 'told'] as const).map((gate) => step({ gate }))
    const loose = [...gates, look('rod', 'sound', 'stop'), step({ loosen: 'gland' } as Step)]
    expect(
      prove(loose, { ...two, fasteners: [{ id: 'gland', title: 'Gland', holds: 'rod' }] }),
    ).toMatchObject({ faults: [{ rule: 'left-loose', step: '5', path: 'steps[4]' }] })
  })
  it('of many findings are walked pair by pair: what two of them break together is found', () => {
    const steps = ['rod', 'shield', 'third'].map((part) => look(part, 'sound', 'clean'))
    // Cleaned one by one, but not where two are dirty at once.
    const cleaned = (part: string, other: string) =>
      step({ clean: part, when: { [part]: ['clean'], [other]: ['sound'] } } as Step)
    const all = [
      ...steps,
      cleaned('rod', 'shield'),
      cleaned('shield', 'rod'),
      step({ clean: 'third' }),
    ]
    const third = { id: 'third', title: 'Third', shape: 'disc' }
    const two = { variants: [small.variants[0]!], parts: [...small.parts, third] } as Partial<Guide>
    expect(prove(all, two, 8).paths).toBe(8)
    const pairs = prove(all, two, 1)
    expect(pairs.faults.map((f) => f.rule)).toEqual(prove(all, two, 8).faults.map((f) => f.rule))
    expect(pairs.faults.map((f) => f.rule)).toEqual(['not-cleaned', 'not-cleaned'])
  })
  it('keep the order of the stations', () => {
    expect(rules([step({ clean: 'rod', at: 'rebuild' }), step({ clean: 'rod' })])).toEqual([
      'station-order',
    ])
  })
  it('reach every step that waits for a finding, and every variant has one', () => {
    const waits = step({ clean: 'rod', when: { rod: ['clean'] } } as Step)
    expect(rules([look('rod', 'sound', 'clean'), waits])).toEqual([])
    expect(rules([look('rod', 'sound'), waits])).toContain('never-reached')
    expect(rules([waits])).toContain('never-reached')
    // Asked only afterwards, it is never due.
    expect(rules([waits, look('rod', 'sound', 'clean')])).toContain('never-reached')
    expect(rules([step({ clean: 'rod', only: ['usual'] } as Step)])).toEqual(['empty-variant'])
    expect(rules([step({ clean: 'rod', only: ['usual', 'other'] } as Step)])).toEqual([])
  })
  it('use what is in the kit', () => {
    const kit = { kit: [{ id: 'new-rod', title: 'Rod', count: 1 }] } as Partial<Guide>
    expect(rules([step({ clean: 'rod' })], kit)).toEqual(['kit-unused'])
  })
  it('are not walked where names point nowhere', () => {
    expect(prove([step({ clean: 'nothing-here' })])).toMatchObject({ paths: 0 })
  })
  it('places steps by number', () => {
    const { steps } = expandGuide({ ...small, steps: [step({ clean: 'rod' })] } as Guide, [])
    expect(steps[0]).toMatchObject({ id: '1', path: 'steps[0]' })
  })
})
