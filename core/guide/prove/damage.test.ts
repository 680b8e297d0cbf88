import { describe, expect, it } from 'vitest'
import { buildsOf, type Machine, machineFaults, type MachinePart, partsOf } from '../../machine'
import { shippedLibrary } from '../../testing'
import { type Guide, standsFor } from '..'
import { proveOnMachine } from './onMachine'

/**
 * Damage done to machines and to the guides that work on them, one thing at a time. What is caught, and of
 * how many, is counted: a prover that lets one of these through proves nothing.
 */
const { machines, guides, subGuides } = shippedLibrary
const pairs = guides.flatMap((guide) => {
  const machine = machines.find((m) => m.id === guide.machine)
  return machine ? [[guide.id, guide, machine] as const] : []
})
const faults = (guide: Guide, machine: Machine) => proveOnMachine(guide, subGuides, machine)
const change = (machine: Machine, id: string, to: (p: MachinePart) => MachinePart): Machine => ({
  ...machine,
  parts: machine.parts.map((p) => (p.id === id ? to(p) : p)),
})
const removed = (guide: Guide, machine: Machine) => {
  const build = guide.variants[0]?.options ?? buildsOf(machine)[0] ?? []
  const built = partsOf(machine, build)
  const first = guide.steps.filter(
    (s) => !s.jobs && (!s.only || s.only.includes(guide.variants[0]?.id ?? '')),
  )
  return first.flatMap((s) =>
    guide.parts
      .filter((p) => p.id === s.remove)
      .flatMap(standsFor)
      .flatMap((id) => built.filter((p) => p.id === id)),
  )
}

const axisOf = ({ draw }: MachinePart) => (draw.axis ? { axis: draw.axis } : {})

describe('damage to a machine that its guides do not know of', () => {
  it.each(pairs)(
    '%s: a soft part more, under what is taken off, is found forgotten',
    (_, guide, machine) => {
      for (const cover of removed(guide, machine)) {
        const hidden: MachinePart = {
          ...cover,
          id: 'hidden-seal',
          title: 'Hidden seal',
          kind: 'o-ring',
          soft: true,
          behind: [cover.id],
        }
        const rules = faults(guide, { ...machine, parts: [...machine.parts, hidden] }).map(
          (f) => f.rule,
        )
        expect(rules, cover.id).toContain('forgotten')
      }
    },
  )
  it.each(pairs)(
    '%s: a lid more, on both sides of anything that comes off along its axis, is run into',
    (_, guide, machine) => {
      // Of what comes off as one, the first is named.
      const isNamed = ({ id }: MachinePart) =>
        guide.parts.every((p) => !standsFor(p).includes(id) || standsFor(p)[0] === id)
      const alone = removed(guide, machine).filter((p) => isNamed(p) && !p.draw.aside)
      for (const part of alone) {
        const lid = (id: string, z: number): MachinePart => ({
          ...part,
          id,
          title: id,
          kind: 'plate',
          material: 'steel',
          behind: undefined,
          soft: undefined,
          draw: { ...axisOf(part), seg: [[z, z + 4, 0, 300]] },
        })
        const shut = {
          ...machine,
          parts: [...machine.parts, lid('lid-above', 300), lid('lid-below', -304)],
        }
        const found = faults(guide, shut).filter((f) => f.rule === 'cannot-pass')
        expect(
          found.some((f) => f.message.startsWith(part.title)),
          part.id,
        ).toBe(true)
      }
    },
  )
  it.each(pairs)(
    '%s: a bar more, before anything that comes off, is run into',
    (_, guide, machine) => {
      for (const part of removed(guide, machine)) {
        const latch: MachinePart = {
          ...part,
          id: 'hidden-latch',
          title: 'Latch',
          soft: false,
          behind: undefined,
        }
        const { orBehind: _way, ...barred } = part
        const latched = change(machine, part.id, () => ({
          ...barred,
          behind: [...(part.behind ?? []), 'hidden-latch'],
        }))
        const rules = faults(guide, { ...latched, parts: [...latched.parts, latch] }).map(
          (f) => f.rule,
        )
        expect(rules, part.id).toContain('barred')
      }
    },
  )
})

describe('damage to the data of a machine', () => {
  it.each(machines.map((m) => [m.id, m] as const))(
    '%s: is caught in every part of it',
    (_, machine) => {
      for (const part of machine.parts) {
        const wrong = [
          change(machine, part.id, (p) => ({ ...p, behind: [...(p.behind ?? []), 'nobody'] })),
          change(machine, part.id, (p) => ({ ...p, only: ['no-such-build'] })),
          change(machine, part.id, (p) => ({ ...p, behind: [...(p.behind ?? []), p.id] })),
          { ...machine, parts: [...machine.parts, part] },
          ...(part.soft
            ? [
                {
                  ...machine,
                  kits: (machine.kits ?? []).map((k) => ({
                    ...k,
                    parts: k.parts.filter((id) => id !== part.id),
                  })),
                },
              ]
            : []),
        ]
        for (const damaged of wrong)
          expect(machineFaults(damaged).length, part.id).toBeGreaterThan(0)
      }
    },
  )
})

describe('damage to a guide', () => {
  it.each(pairs)(
    '%s: what it does not know, and what it looks at too early, is caught',
    (_, guide, machine) => {
      const soft = guide.parts.filter((p) =>
        standsFor(p).every((id) => machine.parts.some((m) => m.id === id && m.soft && m.behind)),
      )
      for (const part of soft) {
        const used = guide.steps.some((s) => s.remove === part.id && !s.when)
        if (!used) continue
        const without: Guide = {
          ...guide,
          parts: guide.parts
            .filter((p) => p.id !== part.id)
            .map((p) => ({
              ...p,
              ...(p.under ? { under: p.under.filter((u) => u !== part.id) } : {}),
            })),
          steps: guide.steps.filter((s) => !Object.values(s).includes(part.id)),
        }
        // Where a sub-job knows of it under another name, it comes off unjudged.
        expect(
          faults(without, machine).map((f) => f.rule),
          part.id,
        ).toEqual(expect.arrayContaining([expect.stringMatching(/forgotten|soft-unjudged/)]))
      }
      const opening = guide.steps.findIndex((s) => s.at === 'open-up')
      // A drive that holds neither pressure nor spring comes off while it is made safe.
      const before = new Set(
        guide.steps
          .slice(0, opening)
          .flatMap((s) => guide.parts.filter((p) => p.id === s.remove).flatMap(standsFor)),
      )
      guide.steps.forEach((step, n) => {
        const seen = guide.parts.find((p) => p.id === step.inspect)
        const [first] = seen ? standsFor(seen) : []
        const part = machine.parts.find((p) => p.id === first)
        const behind = part?.hidden ?? part?.behind
        if (
          !behind?.some((b) => !before.has(b)) ||
          n < opening ||
          step.when ||
          step.whenAny ||
          step.only ||
          step.jobs
        )
          return
        const { at: _at, ...moved } = step
        const rest = guide.steps.filter((s) => s !== step)
        const early = { ...moved, at: 'open-up' } as Guide['steps'][number]
        const steps = [...rest.slice(0, opening), early, ...rest.slice(opening)]
        const rules = faults({ ...guide, steps }, machine).map((f) => f.rule)
        expect(rules, step.say).toContain('unseen')
      })
    },
  )
})
