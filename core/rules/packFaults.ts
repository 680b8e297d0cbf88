import type { Procedure } from '../procedure'
import type { FieldFault } from '../schema'
import { bases, basisOf, restsOn } from './basis'
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
    const faults = packTestFaults(test, procedure, path)
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

function packTestFaults(test: PackTest, procedure: Procedure, path: string): FieldFault[] {
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
    if (record?.dimension && limit && limit.dimension !== record.dimension) {
      add(`${at}`, `the limit is a ${limit.dimension}, the reading a ${record.dimension}`)
    }
    const known = (name: string) => names.has(name) || records.has(name) || isNominal(name)
    for (const name of [...restsOn(item), ...(item.invalidates ?? []), ...(item.after ?? [])]) {
      if (!known(name)) add(`${at}`, `“${name}” is neither an item nor a record of ${procedure.id}`)
    }
  })
  for (const item of records.keys()) {
    if (!names.has(item))
      add('items', `${procedure.id} records “${item}”, but the pack does not judge it`)
  }
  return faults
}
