import type { Procedure, StepRecord } from '../procedure'
import type { FieldFault } from '../schema'
import { type AnyQuantity, quantityBounds, toSi } from '../quantity'
import { bases, basisOf, type PackItem, restsOn } from './basis'
import { answer } from './basis/answer'
import { isNominal } from '../apparatus'
import type { PackTest, RulePack } from './pack'

/** Faults of a rule pack against the procedures it names. */
export function rulePackFaults(pack: RulePack, procedures: readonly Procedure[]): FieldFault[] {
  return pack.tests.flatMap((test, index) => {
    const path = `tests[${index}]`
    const procedure = procedures.find((p) => p.id === test.procedure)
    if (!procedure) {
      return [{ path: `${path}.procedure`, message: `there is no procedure “${test.procedure}”` }]
    }
    const faults = packTestFaults(pack, test, procedure, path)
    if (procedure.kind !== test.kind) {
      faults.push({
        path: `${path}.procedure`,
        message: `“${procedure.id}” tests ${procedure.kind}, not ${test.kind}`,
      })
    }
    if (pack.tests.findIndex((t) => t.kind === test.kind) !== index) {
      faults.push({ path: `${path}.kind`, message: `${test.kind} stands twice in this pack` })
    }
    return faults
  })
}

function packTestFaults(
  pack: RulePack,
  test: PackTest,
  procedure: Procedure,
  path: string,
): FieldFault[] {
  const records = new Map(
    procedure.steps.flatMap((s) => (s.record ? [[s.record.item, s.record] as const] : [])),
  )
  const faults: FieldFault[] = []
  const add = (at: string, message: string) => faults.push({ path: `${path}.${at}`, message })
  const names = new Set(test.items.map((i) => i.id))

  test.items.forEach((item, index) => {
    const at = `items[${index}]`
    const record = records.get(item.id)
    const basis = bases[item.basis]
    if (basis.recorded && !record) {
      add(`${at}.id`, `“${item.id}” is judged, but no step of ${procedure.id} records it`)
    }
    if (record && item.basis === 'answer') {
      for (const message of answer.faults(item, record)) add(`${at}.accept`, message)
    }
    const limit = item.basis === 'answer' ? undefined : basisOf(item).limit(item)
    for (const message of limitFaults(item, limit)) add(at, message)
    if ((item.decision ?? pack.decisionRule) === 'guarded' && item.requirement === 'required') {
      for (const name of aside(item, records))
        add(
          at,
          `it is required, but “${name}” is read on a gauge of the equipment, of which no accuracy is known: guarded acceptance could never pass it`,
        )
    }
    if (record?.dimension && limit && limit.dimension !== record.dimension) {
      add(`${at}`, `the limit is a ${limit.dimension}, the reading a ${record.dimension}`)
    }
    const known = (name: string) => names.has(name) || records.has(name) || isNominal(name)
    for (const name of [...restsOn(item), ...(item.invalidates ?? []), ...(item.after ?? [])]) {
      if (!known(name)) add(`${at}`, `“${name}” is neither an item nor a record of ${procedure.id}`)
    }
  })
  test.contradictions?.forEach(({ item, mayNotExceed }, index) => {
    for (const name of [item, mayNotExceed]) {
      if (!records.has(name))
        add(`contradictions[${index}]`, `no step of ${procedure.id} records “${name}”`)
    }
  })
  for (const item of records.keys()) {
    if (!names.has(item))
      add('items', `${procedure.id} records “${item}”, but the pack does not judge it`)
  }
  return faults
}

/** How far a limit in percent of a value may lie from it: under it no further than all of it, over it no further than double. */
const MOST_PERCENT_OVER = 100

/** Limits that nothing could ever miss or meet: of a value that its quantity cannot have, or without a bound. */
function limitFaults(item: PackItem, limit: AnyQuantity | undefined): string[] {
  const faults: string[] = []
  if (limit) {
    const { least, most } = quantityBounds[limit.dimension]
    const si = toSi(limit)
    const isDistance = ['difference', 'order', 'spread', 'curve', 'rate'].includes(item.basis)
    if (isDistance ? Math.abs(si) > most : si < least || si > most)
      faults.push(`${limit.value} ${limit.unit} is outside of what a reading of it can be`)
  }
  if (item.basis === 'percent' && (item.above ?? 0) > MOST_PERCENT_OVER)
    faults.push(`${item.above} % over its value is no limit`)
  return faults
}

/** What an item rests on that is read on a gauge of the equipment's own, of which nothing is known. */
const aside = (item: PackItem, records: ReadonlyMap<string, StepRecord>): string[] =>
  [...new Set([item.id, ...restsOn(item)])].filter((name) => records.get(name)?.aside)
