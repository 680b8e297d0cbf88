import { movableElements, portsOf } from '../assembly'
import type { FieldFault } from '../schema'
import type { PackTest, Procedure, ProcedureStep, RulePack } from './types'

/**
 * What a schema cannot see: names that point nowhere and steps that repeat.
 * Each fault carries the path at which the author mends it.
 */
export function procedureFaults(procedure: Procedure): FieldFault[] {
  const faults: FieldFault[] = []
  const steps = new Set<string>()
  const items = new Set<string>()
  procedure.steps.forEach((step, index) => {
    if (steps.has(step.id)) {
      faults.push({
        path: `steps[${index}].id`,
        message: `“${step.id}” names two steps: rename one`,
      })
    }
    steps.add(step.id)
    const item = step.record?.item
    if (item && items.has(item)) {
      faults.push({
        path: `steps[${index}].record.item`,
        message: `“${item}” is recorded by two steps: record it once`,
      })
    }
    if (item) items.add(item)
    faults.push(...nameFaults(procedure, step, `steps[${index}]`))
  })
  if (items.size === 0) {
    faults.push({
      path: 'steps',
      message: 'no step records anything: a test must record something',
    })
  }
  return faults
}

/** Valves, cocks and ports that the kind of assembly does not have. */
function nameFaults(procedure: Procedure, step: ProcedureStep, path: string): FieldFault[] {
  const movable = movableElements(procedure.kind)
  const ports = portsOf(procedure.kind)
  const moves = (step.moves ?? []).flatMap((m, n) =>
    movable.includes(m.element)
      ? []
      : [
          {
            path: `${path}.moves[${n}]`,
            message: `a ${procedure.kind} has no “${m.element}”: ${movable.join(', ')}`,
          },
        ],
  )
  const hoses = (step.connect ?? []).flatMap((c, n) =>
    ports.includes(c.port)
      ? []
      : [
          {
            path: `${path}.connect[${n}]`,
            message: `a ${procedure.kind} has no port “${c.port}”: ${ports.join(', ')}`,
          },
        ],
  )
  return [...moves, ...hoses]
}

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
    if (item.basis !== 'difference' && !record) {
      add(`${at}.id`, `“${item.id}” is judged, but no step of ${procedure.id} records it`)
    }
    if (record && item.basis === 'answer') {
      const known = new Set(record.answers?.map((a) => a.id))
      for (const answer of item.accept ?? []) {
        if (!known.has(answer)) {
          add(
            `${at}.accept`,
            `“${answer}” is not an answer of ${item.id}: ${[...known].join(', ')}`,
          )
        }
      }
    }
    const limit = item.atLeast ?? item.atMost
    if (record?.dimension && limit && limit.dimension !== record.dimension) {
      add(`${at}`, `the limit is a ${limit.dimension}, the reading a ${record.dimension}`)
    }
    const referred = [
      item.minuend,
      item.subtrahend,
      ...(item.invalidates ?? []),
      ...(item.after ?? []),
    ]
    for (const name of referred) {
      if (name && !names.has(name) && !records.has(name)) {
        add(`${at}`, `“${name}” is neither an item nor a record of ${procedure.id}`)
      }
    }
  })
  for (const item of records.keys()) {
    if (!names.has(item))
      add('items', `${procedure.id} records “${item}”, but the pack does not judge it`)
  }
  return faults
}
