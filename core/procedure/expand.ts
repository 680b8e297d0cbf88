import { apparatusOf, onLine } from '../apparatus'
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
      'include' in step ? takeOver(step, file, all, [file.id], `steps[${index}]`, faults) : [step]
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
  { kind }: Pick<ProcedureFile, 'kind'>,
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
    'include' in step ? takeOver(step, source, all, [...chain, source.id], path, faults) : [step],
  )
  const apparatus = apparatusOf(kind)
  const lines = ['main', ...(apparatus?.lines ?? [])]
  if (!lines.includes(wanted.line))
    fault(`a ${kind} has no line “${wanted.line}”: ${lines.join(', ')}`)
  for (const name of wanted.without ?? []) {
    if (!own.some((s) => s.id === name)) {
      fault(`“${source.id}” has no step “${name}” to leave out`)
    }
  }
  const bench = (apparatus?.bench ?? []).map((v) => v.id)
  return own
    .filter((s) => !wanted.without?.includes(s.id))
    .map((s) => (wanted.line === 'main' ? s : besideMain(s, wanted.line, bench)))
}

/** The same step on a line beside the main one: names of the equipment carry its prefix, those of the instruments do not. */
function besideMain(step: ProcedureStep, line: string, bench: readonly string[]): ProcedureStep {
  const own = (element: string) => (bench.includes(element) ? element : onLine(line, element))
  const words = line.charAt(0).toUpperCase() + line.slice(1)
  const lower = (text: string) => text.charAt(0).toLowerCase() + text.slice(1)
  return {
    ...step,
    id: onLine(line, step.id),
    title: `${words}: ${lower(step.title)}`,
    ...(step.moves ? { moves: step.moves.map((m) => ({ ...m, element: own(m.element) })) } : {}),
    ...(step.connect ? { connect: step.connect.map((c) => ({ ...c, port: own(c.port) })) } : {}),
    ...(step.record
      ? {
          record: {
            ...step.record,
            item: onLine(line, step.record.item),
            title: `${words} ${lower(step.record.title)}`,
          },
        }
      : {}),
  }
}
