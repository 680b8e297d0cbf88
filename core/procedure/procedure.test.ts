import { describe, expect, it } from 'vitest'
import { shippedLibrary } from '../testing/library'
import {
  actionsOf,
  carriedOut,
  expandProcedure,
  type ProcedureFile,
  procedureFaults,
  type ProcedureStep,
} from '.'

const step = (more: Partial<ProcedureStep>): ProcedureStep =>
  ({ id: 's', title: 'S', why: 'because', ...more }) as ProcedureStep

describe('what a step has hands do', () => {
  it('hoses go on before cocks are opened', () => {
    const actions = actionsOf(
      step({
        connect: [{ hose: 'high', port: 'cock-2' }],
        moves: [{ element: 'cock-2', to: 'open' }],
      }),
    )
    expect(actions.map((a) => a.kind)).toEqual(['hose', 'move'])
  })
  it('and after cocks were shut; those that come off come off last', () => {
    const actions = actionsOf(
      step({
        connect: [{ hose: 'high', port: 'cock-3' }],
        disconnect: ['low'],
        moves: [{ element: 'cock-2', to: 'shut' }],
      }),
    )
    expect(actions.map((a) => (a.kind === 'hose' ? a.port : a.to))).toEqual([
      'shut',
      null,
      'cock-3',
    ])
  })
  it('a bleed that is shut again runs longer than a turn', () => {
    const [bleed, turn] = actionsOf(
      step({
        moves: [
          { element: 'high-bleed', to: 'open' },
          { element: 'high-bleed', to: 'shut' },
        ],
      }),
    )
    expect(bleed?.lastsS).toBeGreaterThan(turn?.lastsS ?? 99)
  })
  it('is taken up where the record left it, passing over turns that do not belong to it', () => {
    const actions = actionsOf(
      step({
        moves: [
          { element: 'low-bleed', to: 'open' },
          { element: 'cock-3', to: 'open' },
        ],
      }),
    )
    expect(carriedOut(actions, [])).toBe(0)
    expect(
      carriedOut(actions, [
        { element: 'cock-4', to: 'open' },
        { element: 'low-bleed', to: 'open' },
      ]),
    ).toBe(1)
    expect(carriedOut(actions, [{ element: 'cock-3', to: 'open' }])).toBe(0)
  })
})

const file = (id: string, steps: ProcedureFile['steps']): ProcedureFile => ({
  id,
  version: 1,
  date: '2026-01-01',
  title: id,
  kind: 'RPDA',
  school: 'x',
  source: 'x',
  steps,
})

describe('steps taken over from another procedure', () => {
  const inner = file('inner', [
    step({
      id: 'read',
      title: 'Open cock 2',
      moves: [
        { element: 'cock-2', to: 'open' },
        { element: 'high-bleed', to: 'open' },
      ],
      connect: [{ hose: 'high', port: 'cock-2' }],
    }),
    step({ id: 'restore' }),
  ])
  it('on the bypass name the bypass, and leave the test kit alone', () => {
    const outer = file('outer', [{ include: 'inner', line: 'bypass', without: ['restore'] }])
    const expanded = expandProcedure(outer, [inner, outer])
    if ('faults' in expanded) throw new Error(JSON.stringify(expanded.faults))
    const [only, ...more] = expanded.procedure.steps
    expect(more).toEqual([])
    expect(only?.id).toBe('bypass-read')
    expect(only?.title).toBe('Bypass: open cock 2')
    expect(only?.moves?.map((m) => m.element)).toEqual(['bypass-cock-2', 'high-bleed'])
    expect(only?.connect?.[0]?.port).toBe('bypass-cock-2')
  })
  it.each<[string, ProcedureFile[], RegExp]>([
    ['an unknown one', [file('a', [{ include: 'nobody', line: 'main' }])], /no procedure “nobody”/],
    [
      'a circle',
      [file('a', [{ include: 'b', line: 'main' }]), file('b', [{ include: 'a', line: 'main' }])],
      /circle: a → b → a/,
    ],
    [
      'a step that is not there',
      [file('a', [{ include: 'inner', line: 'main', without: ['x'] }]), inner],
      /no step “x”/,
    ],
  ])('%s is refused with its place', (_, all, words) => {
    const expanded = expandProcedure(all[0] as ProcedureFile, all)
    expect('faults' in expanded && expanded.faults[0]).toMatchObject({
      path: 'steps[0].include',
      message: expect.stringMatching(words) as string,
    })
  })
})

describe('names in a procedure', () => {
  it('must be valves and ports of its kind', () => {
    const { procedures } = shippedLibrary
    for (const p of procedures) expect(procedureFaults(p)).toEqual([])
    const dc = procedures.find((p) => p.kind === 'DC') as (typeof procedures)[number]
    const wrong = {
      ...dc,
      steps: [
        ...dc.steps,
        step({ id: 'x', moves: [{ element: 'bypass-cock-2', to: 'open' }] }),
        step({ id: 'y', connect: [{ hose: 'high', port: 'cock-9' }] }),
      ],
    }
    expect(procedureFaults(wrong).map((f) => f.message)).toEqual([
      expect.stringMatching(/a DC has no “bypass-cock-2”/),
      expect.stringMatching(/a DC has no port “cock-9”/),
    ])
  })
})

describe('a procedure against its apparatus', () => {
  const [shipped] = shippedLibrary.procedures.filter((p) => p.kind === 'RP')
  const faultsOf = (change: Partial<typeof shipped>) =>
    procedureFaults({ ...shipped!, ...change }).map((f) => f.message)
  const first = (more: Partial<ProcedureStep>) => ({
    steps: [step({ ...more }), ...shipped!.steps.slice(1)],
  })
  it('is for a kind that is known', () => {
    expect(faultsOf({})).toEqual([])
    expect(faultsOf({ kind: 'kettle' })[0]).toMatch(/nothing is known of a “kettle”: RP, DC/)
  })
  it('turns, and fits hoses to, only what that kind has', () => {
    expect(faultsOf(first({ moves: [{ element: 'tap', to: 'open' }] }))[0]).toMatch(
      /a RP has no “tap”: cock-1/,
    )
    expect(faultsOf(first({ connect: [{ hose: 'high', port: 'tap' }] }))[0]).toMatch(
      /no port “tap”/,
    )
    expect(faultsOf(first({ connect: [{ hose: 'long', port: 'cock-2' }] }))[0]).toMatch(
      /no hose “long”: high, low, bypass/,
    )
    expect(faultsOf(first({ disconnect: ['long'] }))[0]).toMatch(/no hose “long”/)
  })
  it('takes steps over only to a line that the kind has', () => {
    const take = (kind: string, line: string) => {
      const file = {
        ...shipped!,
        id: 'mine',
        kind,
        steps: [{ include: shipped!.id, line }],
      } as ProcedureFile
      const made = expandProcedure(file, [file, shipped as ProcedureFile])
      return 'faults' in made ? made.faults.map((f) => f.message) : made.procedure.steps[0]?.id
    }
    expect(take('RP', 'bypass')).toEqual(['a RP has no line “bypass”: main'])
    expect(take('RPDA', 'bypass')).toMatch(/^bypass-/)
    expect(take('RPDA', 'main')).not.toMatch(/^bypass-/)
  })
})
