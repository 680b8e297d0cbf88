import { onLine } from '../apparatus/backflow'
import type { FieldFault } from '../schema'
import type { Procedure, ProcedureFile, ProcedureInclude, ProcedureStep } from './types'

/** How deep one procedure may take over another’s steps. */
const DEEPEST = 3

/**
 * A procedure with the steps that it takes over written out.
 * @returns the procedure, or the faults of its file: an unknown name, or a circle
 */
export function expandProcedure(
  file: ProcedureFile,
  all: readonly ProcedureFile[],
): Expanded | { readonly faults: FieldFault[] } {
  const faults: FieldFault[] = []
  const origins: number[] = []
  const steps = file.steps.flatMap((step, index) => {
    const own =
      'include' in step ? takeOver(step, all, [file.id], `steps[${index}]`, faults) : [step]
    origins.push(...own.map(() => index))
    return own
  })
  return faults.length > 0 ? { faults } : { procedure: { ...file, steps }, origins }
}

export interface Expanded {
  readonly procedure: Procedure
  /** For each step its place in the file, which is where a fault of it is mended. */
  readonly origins: readonly number[]
}

function takeOver(
  wanted: ProcedureInclude,
  all: readonly ProcedureFile[],
  chain: readonly string[],
  path: string,
  faults: FieldFault[],
): ProcedureStep[] {
  const fault = (message: string) => {
    faults.push({ path: `${path}.include`, message })
    return []
  }
  const source = all.find((p) => p.id === wanted.include)
  if (!source) return fault(`there is no procedure “${wanted.include}”`)
  if (chain.includes(source.id) || chain.length > DEEPEST) {
    return fault(`goes round in a circle: ${[...chain, source.id].join(' → ')}`)
  }
  const own = source.steps.flatMap((step) =>
    'include' in step ? takeOver(step, all, [...chain, source.id], path, faults) : [step],
  )
  for (const name of wanted.without ?? []) {
    if (!own.some((s) => s.id === name)) {
      fault(`“${source.id}” has no step “${name}” to leave out`)
    }
  }
  return own
    .filter((s) => !wanted.without?.includes(s.id))
    .map((s) => (wanted.line === 'bypass' ? onBypass(s) : s))
}

/** The same step on the bypass: names of the assembly carry the prefix, those of the test kit do not. */
function onBypass(step: ProcedureStep): ProcedureStep {
  const own = (element: string) =>
    /^(cock|shutoff|check|relief)/.test(element) ? onLine('bypass', element) : element
  return {
    ...step,
    id: onLine('bypass', step.id),
    title: `Bypass: ${step.title.charAt(0).toLowerCase()}${step.title.slice(1)}`,
    ...(step.moves ? { moves: step.moves.map((m) => ({ ...m, element: own(m.element) })) } : {}),
    ...(step.connect ? { connect: step.connect.map((c) => ({ ...c, port: own(c.port) })) } : {}),
    ...(step.record
      ? {
          record: {
            ...step.record,
            item: onLine('bypass', step.record.item),
            title: `Bypass ${step.record.title.charAt(0).toLowerCase()}${step.record.title.slice(1)}`,
          },
        }
      : {}),
  }
}
