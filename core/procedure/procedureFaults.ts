import { movableElements, portsOf } from '../apparatus/backflow'
import type { FieldFault } from '../schema'
import type { Procedure, ProcedureStep } from './types'

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
