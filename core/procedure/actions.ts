import type { Opening } from '../apparatus'
import { type AnyQuantity, toSi } from '../quantity'
import type { ProcedureStep } from './types'

/** One thing that hands do in a step, in order. */
export type StepAction =
  | {
      readonly kind: 'move'
      readonly element: string
      readonly to: Opening
      /** Seconds it takes before the next one: a bleed runs until the water is solid. */
      readonly lastsS: number
    }
  | {
      readonly kind: 'hose'
      readonly hose: string
      readonly port: string | null
      readonly lastsS: 0
    }
  | {
      readonly kind: 'apply'
      readonly source: string
      readonly to: AnyQuantity
      readonly lastsS: number
    }

const BLEED_S = 6
const MOVE_S = 1.5
/** What follows a signal has moved by then. */
const FOLLOWS_S = 4

/**
 * What a step has hands do, in order. Hoses go on before valves are opened and after they are shut,
 * and come off last.
 */
export function actionsOf(step: ProcedureStep): StepAction[] {
  const moves = step.moves ?? []
  const shutsFirst = moves[0]?.to === 'shut'
  const on = (step.connect ?? []).map(({ hose, port }): StepAction => ({
    kind: 'hose',
    hose,
    port,
    lastsS: 0,
  }))
  const off = (step.disconnect ?? []).map((hose): StepAction => ({
    kind: 'hose',
    hose,
    port: null,
    lastsS: 0,
  }))
  const turns = moves.map(({ element, to }, n): StepAction => {
    const runs = to !== 'shut' && moves[n + 1]?.element === element
    return { kind: 'move', element, to, lastsS: runs ? BLEED_S : MOVE_S }
  })
  const applied: StepAction[] = step.apply
    ? [{ kind: 'apply', ...step.apply, lastsS: FOLLOWS_S }]
    : []
  return shutsFirst ? [...turns, ...off, ...on, ...applied] : [...on, ...turns, ...applied, ...off]
}

/** A valve turned, a hose moved, something put on, as it stands on record. */
export type HandMove =
  | { readonly element: string; readonly to: Opening }
  | { readonly hose: string; readonly port?: string | undefined }
  | { readonly source: string; readonly to: AnyQuantity }

/** How many of a step’s actions the moves on record have carried out, in its order. */
export function carriedOut(actions: readonly StepAction[], moves: readonly HandMove[]): number {
  let done = 0
  for (const move of moves) {
    const next = actions[done]
    if (!next) break
    if (isSame(next, move)) done++
  }
  return done
}

function isSame(next: StepAction, move: HandMove): boolean {
  switch (next.kind) {
    case 'move':
      return 'element' in move && move.element === next.element && move.to === next.to
    case 'hose':
      return 'hose' in move && move.hose === next.hose && (move.port ?? null) === next.port
    case 'apply':
      return 'source' in move && move.source === next.source && toSi(move.to) === toSi(next.to)
  }
}
