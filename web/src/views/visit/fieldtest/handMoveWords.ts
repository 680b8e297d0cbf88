import { type Apparatus, elementLabel } from '@uvanta/core/apparatus'
import type { StepAction } from '@uvanta/core/procedure'
import { formatQuantity } from '@uvanta/core/quantity'
import { sentence } from '@/composables/words'

const openings = { shut: 'shut', crack: 'cracked open', half: 'half open', open: 'open' } as const

/** What a press states where nothing is read: what hands have done by then. */
export function handsWords(
  actions: readonly StepAction[],
  apparatus: Apparatus | undefined,
): string {
  const [only, ...more] = actions
  if (!only) return 'Done – next step'
  return more.length > 0 ? `All ${actions.length} done` : `${handMoveWords(only, apparatus)} – done`
}

/** What is so once a hand has done its part of a step. */
function handMoveWords(action: StepAction, apparatus: Apparatus | undefined): string {
  const label = (id: string) => (apparatus ? elementLabel(apparatus, id) : id.replaceAll('-', ' '))
  if (action.kind === 'move') return `${label(action.element)} ${openings[action.to]}`
  if (action.kind === 'apply') return `${sentence(action.source)} at ${formatQuantity(action.to)}`
  return `${sentence(action.hose)} hose ${action.port ? 'on' : 'off'}`
}
