import { apparatusOf } from '../apparatus'
import { type Guide, proveOnMachine } from '../guide'
import type { Machine } from '../machine'
import type { RulePack } from '../rules'
import type { FieldFault } from '../schema'
import { type LicenceKind, licenceKinds, type Programme } from '../catalogue'
import type { SpecSheet } from './sheet'
import type { Library } from './library'

const unknown = (path: string, what: string, id: string, known: readonly string[]): FieldFault => ({
  path,
  message: `there is no ${what} “${id}”. Known: ${known.join(', ') || 'none'}`,
})

/** Entries of a list under one id. */
export function twiceFaults(list: readonly { readonly id: string }[]): FieldFault[] {
  return list.flatMap((e, n) =>
    list.findIndex((other) => other.id === e.id) < n
      ? [{ path: `[${n}].id`, message: `“${e.id}” stands twice: rename one` }]
      : [],
  )
}

/**
 * Families that suggest a programme that is neither in force nor offered.
 * @param offered programmes that a utility may begin with
 */
export function familyFaults(
  { families, programmes }: Library,
  offered: readonly Programme[],
): FieldFault[] {
  const known = [...programmes, ...offered].map((p) => p.id)
  return [
    ...twiceFaults(families),
    ...families.flatMap((f, n) =>
      known.includes(f.programme)
        ? []
        : [unknown(`[${n}].programme`, 'programme', f.programme, known)],
    ),
  ]
}

/** Policies for a family that is not there, and second ones for the same. */
export function policyFaults({ policies, families, machines }: Library): FieldFault[] {
  const known = families.map((f) => f.id)
  return policies.flatMap((p, n): FieldFault[] => {
    if (!known.includes(p.family)) return [unknown(`[${n}].family`, 'family', p.family, known)]
    const points = machines
      .filter((m) => m.families.includes(p.family))
      .flatMap((m) => (m.differ ?? []).flatMap((d) => (d.others ? d.point : [])))
    const strange = p.otherwise?.findIndex((o) => !points.includes(o.point)) ?? -1
    if (strange >= 0)
      return [
        unknown(
          `[${n}].otherwise[${strange}].point`,
          'point with another way',
          p.otherwise?.[strange]?.point ?? '',
          points,
        ),
      ]
    const twice = policies.findIndex((other) => other.family === p.family) < n
    return twice
      ? [{ path: `[${n}].family`, message: `“${p.family}” has a policy already: keep one` }]
      : []
  })
}

/** A rule pack whose licence nobody can hold. */
export function packReferenceFaults(pack: RulePack): FieldFault[] {
  const known = Object.keys(licenceKinds)
  return known.includes(pack.licence as LicenceKind)
    ? []
    : [unknown('licence', 'licence', pack.licence, known)]
}

/** A spec sheet for a family that is not there. */
export function sheetReferenceFaults(sheet: SpecSheet, { families }: Library): FieldFault[] {
  const known = families.map((f) => f.id)
  return known.includes(sheet.family) ? [] : [unknown('family', 'family', sheet.family, known)]
}

/** Families of a machine that are not there, and elements that no apparatus of its families has. */
export function machineReferenceFaults(machine: Machine, { families }: Library): FieldFault[] {
  const known = families.map((f) => f.id)
  const kinds = families.filter((f) => machine.families.includes(f.id)).flatMap((f) => f.kinds)
  const elements = kinds.flatMap((kind) => apparatusOf(kind)?.elements.map((e) => e.id) ?? [])
  return [
    ...machine.families.flatMap((id, n) =>
      known.includes(id) ? [] : [unknown(`families[${n}]`, 'family', id, known)],
    ),
    ...machine.parts.flatMap(({ element }, n) =>
      element === undefined || elements.includes(element)
        ? []
        : [unknown(`parts[${n}].element`, 'element', element, [...new Set(elements)])],
    ),
  ]
}

/** A guide on a machine that is not there, or that does not go with how the machine is built. */
export function onMachineFaults(guide: Guide, { machines, subGuides }: Library): FieldFault[] {
  if (!guide.machine) return []
  const machine = machines.find((m) => m.id === guide.machine)
  if (!machine)
    return [
      unknown(
        'machine',
        'machine',
        guide.machine,
        machines.map((m) => m.id),
      ),
    ]
  return proveOnMachine(guide, subGuides, machine).map(({ path, message }) => ({ path, message }))
}

/** Families, and licences of a guide or of its variants, that are not there. */
export function guideReferenceFaults(guide: Guide, { families }: Library): FieldFault[] {
  const known = families.map((f) => f.id)
  const licences = Object.keys(licenceKinds)
  const served = [
    { path: 'family', id: guide.family },
    ...(guide.alsoFor ?? []).map((id, n) => ({ path: `alsoFor[${n}]`, id })),
  ]
  const wanted = [
    { path: 'licence', id: guide.licence },
    ...guide.variants.map((v, n) => ({ path: `variants[${n}].licence`, id: v.licence })),
  ]
  return [
    ...served.flatMap(({ path, id }) =>
      known.includes(id) ? [] : [unknown(path, 'family', id, known)],
    ),
    ...wanted.flatMap(({ path, id }) =>
      id === undefined || licences.includes(id) ? [] : [unknown(path, 'licence', id, licences)],
    ),
  ]
}
