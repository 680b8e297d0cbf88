import { type Apparatus, elementLabel } from '@uvanta/core/apparatus'
import type { StepAction } from '@uvanta/core/procedure'
import { formatQuantity } from '@uvanta/core/quantity'
import { sentence } from '@/composables/words'

const openings = { shut: 'shut', crack: 'cracked open', half: 'half open', open: 'open' } as const

/** What is so once a hand has done its part of a step. */
export function handMoveWords(action: StepAction, apparatus: Apparatus | undefined): string {
  const label = (id: string) => (apparatus ? elementLabel(apparatus, id) : id.replaceAll('-', ' '))
  if (action.kind === 'move') return `${label(action.element)} ${openings[action.to]}`
  if (action.kind === 'apply') return `${sentence(action.source)} at ${formatQuantity(action.to)}`
  return `${sentence(action.hose)} hose ${action.port ? 'on' : 'off'}`
}
