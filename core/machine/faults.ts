import { cycleIn } from '../graph'
import type { FieldFault } from '../schema'
import { buildsOf, partsOf } from './build'
import { overlaps } from './layout/overlap'
import type { Machine, MachinePart } from './schema'

/** What of a machine does not hold together: names that point nowhere, parts that bar each other, sections that overlap. */
export function machineFaults(machine: Machine): FieldFault[] {
  const faults = [...nameFaults(machine), ...partFaults(machine), ...buildFaults(machine)]
  // Of a machine whose names are wrong nothing else can be said.
  return faults.length > 0 ? faults : shapeFaults(machine)
}

function nameFaults(machine: Machine): FieldFault[] {
  const faults: FieldFault[] = []
  const parts = new Set(machine.parts.map((p) => p.id))
  const options = new Set((machine.options ?? []).map((o) => o.id))
  const axes = new Set(machine.axes.map((a) => a.id))
  const known = (
    path: string,
    what: string,
    list: ReadonlySet<string>,
    name: string | undefined,
  ) => {
    if (name !== undefined && !list.has(name))
      faults.push({ path, message: `“${name}” is no ${what} of this machine` })
  }
  machine.parts.forEach((p, n) => {
    const at = `parts[${n}]`
    if (machine.parts.findIndex((k) => k.id === p.id) !== n)
      faults.push({ path: `${at}.id`, message: `“${p.id}” is there twice: give it another name` })
    known(`${at}.of`, 'part', parts, p.of)
    for (const name of [...(p.behind ?? []), ...(p.orBehind ?? []), ...(p.hidden ?? [])])
      known(`${at}.behind`, 'part', parts, name)
    for (const name of p.only ?? []) known(`${at}.only`, 'option', options, name)
    known(`${at}.draw.axis`, 'axis', axes, p.draw.axis)
  })
  machine.joints?.forEach((j, n) => {
    for (const name of [j.fasteners, j.holds, j.to, j.preload])
      known(`joints[${n}]`, 'part', parts, name)
  })
  machine.spaces?.forEach((s, n) => {
    for (const name of s.opensWith ?? []) known(`spaces[${n}].opensWith`, 'part', parts, name)
  })
  machine.kits?.forEach((k, n) => {
    for (const name of k.parts) known(`kits[${n}].parts`, 'part', parts, name)
    for (const name of k.only ?? []) known(`kits[${n}].only`, 'option', options, name)
  })
  machine.symptoms?.forEach((s, n) => {
    for (const name of s.look) known(`symptoms[${n}].look`, 'part', parts, name)
  })
  return faults
}

/** Damage to the material itself: no cleaning mends it. */
const LASTING =
  /\b(torn|tear|cut|crack|cracked|split|broken|burst|bent|worn|hard|swollen|extruded|embossed|flat|pinhole|stripped|stretched|blistered|missing)\b/i
/** What lies on rubber and comes off it. */
const LIES_ON = /\b(dirt|dirty|debris|grit|dust|sand|dry|oily|silted|scale|scaled)\b/i

/** Defects that are said to be cleaned away and are not. */
function remedyFaults({ title, soft, defects = [] }: MachinePart, at: string): FieldFault[] {
  return defects.flatMap(({ what, remedy }, n) => {
    if (remedy !== 'clean' || (!LASTING.test(what) && (!soft || LIES_ON.test(what)))) return []
    const path = `${at}.defects[${n}].remedy`
    return {
      path,
      message: `${title}, “${what}”: cleaning does not mend it. Renew it, or say what lies on it`,
    }
  })
}

/** Builds without a part of a kind that another build has: a spring that stands in the wrong one. */
function buildFaults(machine: Machine): FieldFault[] {
  const builds = buildsOf(machine)
  const springs = builds.map((build) =>
    partsOf(machine, build).filter((p) => p.kind === 'spring' && p.draw.coil),
  )
  if (springs.every((s) => s.length > 0) || springs.every((s) => s.length === 0)) return []
  return builds.flatMap((build, n) =>
    springs[n]?.length
      ? []
      : {
          path: 'parts',
          message: `the build ${build.join(', ')} has no spring, and others have: check “only”`,
        },
  )
}

function partFaults({ parts, kits = [] }: Machine): FieldFault[] {
  const ring = cycleIn(new Map(parts.map((p) => [p.id, p.behind ?? []])))
  const faults: FieldFault[] = ring
    ? [
        {
          path: 'parts',
          message: `${ring.join(' → ')} bar each other: one of them must come off first`,
        },
      ]
    : []
  parts.forEach((p, n) => {
    const at = `parts[${n}]`
    if (p.material === 'rubber' && !p.soft)
      faults.push({ path: `${at}.soft`, message: `${p.title} is of rubber: say that it is soft` })
    faults.push(...remedyFaults(p, at))
    if (p.soft && !p.defects)
      faults.push({ path: `${at}.defects`, message: `${p.title} is soft: say how it fails` })
    if (p.soft && !kits.some((k) => k.parts.includes(p.id)))
      faults.push({ path: `${at}`, message: `${p.title} is soft and in no kit: put it into one` })
    const { seg, rings, coil, bolts, walls } = p.draw
    if (!seg && !rings && !coil && !bolts && !walls)
      faults.push({ path: `${at}.draw`, message: `${p.title} has no shape: give it one` })
    seg?.forEach(([from = 0, to = 0, inner = 0, outer = 0], k) => {
      if (from >= to || inner >= outer)
        faults.push({
          path: `${at}.draw.seg[${k}]`,
          message: 'a profile goes from low to high, and from the inside outwards',
        })
    })
  })
  return faults
}

/** Two solid parts cannot be in one place. */
function shapeFaults(machine: Machine): FieldFault[] {
  const seen = new Set<string>()
  return buildsOf(machine).flatMap((build) =>
    overlaps(partsOf(machine, build)).flatMap(([a, b]) => {
      const key = `${a} ${b}`
      if (seen.has(key)) return []
      seen.add(key)
      return {
        path: 'parts',
        message: `“${a}” and “${b}” are drawn in one place: part their profiles`,
      }
    }),
  )
}
