import { type Apparatus, apparatusKinds, apparatusOf, movableElements, portsOf } from '../apparatus'
import { dimensionTitles } from '../quantity'
import type { FieldFault } from '../schema'
import type { Procedure, ProcedureStep } from './types'

/**
 * What a schema cannot see: names that point nowhere and steps that repeat.
 * Each fault carries the path at which the author mends it.
 */
export function procedureFaults(procedure: Procedure): FieldFault[] {
  const apparatus = apparatusOf(procedure.kind)
  if (!apparatus) {
    const known = apparatusKinds.join(', ')
    return [{ path: 'kind', message: `nothing is known of a “${procedure.kind}”: ${known}` }]
  }
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
    faults.push(...nameFaults(apparatus, step, `steps[${index}]`))
  })
  if (items.size === 0) {
    faults.push({
      path: 'steps',
      message: 'no step records anything: a test must record something',
    })
  }
  return faults
}

/** Valves, ports and hoses that the apparatus does not have. */
function nameFaults(apparatus: Apparatus, step: ProcedureStep, path: string): FieldFault[] {
  const known = (list: readonly string[], what: string, name: string, at: string): FieldFault[] =>
    list.includes(name)
      ? []
      : [
          {
            path: `${path}.${at}`,
            message: `a ${apparatus.kind} has no ${what}“${name}”: ${list.join(', ')}`,
          },
        ]
  const { hoses } = apparatus
  return [
    ...(step.moves ?? []).flatMap((m, n) =>
      known(movableElements(apparatus), '', m.element, `moves[${n}]`),
    ),
    ...(step.connect ?? []).flatMap((c, n) => [
      ...known(portsOf(apparatus), 'port ', c.port, `connect[${n}]`),
      ...known(hoses, 'hose ', c.hose, `connect[${n}]`),
    ]),
    ...(step.apply
      ? [
          ...known(
            apparatus.sources.map((s) => s.id),
            'source ',
            step.apply.source,
            'apply.source',
          ),
          ...sourceFaults(apparatus, step.apply, path),
        ]
      : []),
    ...(step.disconnect ?? []).flatMap((h, n) => known(hoses, 'hose ', h, `disconnect[${n}]`)),
  ]
}

/** What is put on a source is of the source’s quantity. */
function sourceFaults(
  { sources }: Apparatus,
  { source, to }: NonNullable<ProcedureStep['apply']>,
  path: string,
): FieldFault[] {
  const wanted = sources.find((s) => s.id === source)?.dimension
  if (!wanted || wanted === to.dimension) return []
  const message = `“${source}” is a ${dimensionTitles[wanted]}, not a ${dimensionTitles[to.dimension]}`
  return [{ path: `${path}.apply.to`, message }]
}
