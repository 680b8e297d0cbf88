import type { PackItem } from './basis'
import type { PackTest } from './pack'
import type { Procedure } from '../procedure'
import { because, type Reason } from './reason'
import type { TestRun } from './types'

/**
 * Items that were taken in another order than the pack wants, each with the sentence that says what
 * to take again. Order is that of the readings and answers which stand: whoever takes everything
 * again in the right order has the right order.
 */
export function orderFaults(
  test: PackTest,
  procedure: Pick<Procedure, 'steps'>,
  run: Pick<TestRun, 'readings' | 'answers' | 'order'>,
): Map<string, Reason> {
  const faults = new Map<string, Reason>()
  const recorded = new Set([...run.readings, ...run.answers].map((r) => r.item))
  const titleOf = (id: string) => lower(test.items.find((i) => i.id === id)?.title ?? id)
  for (const later of test.items) {
    for (const earlier of later.after ?? []) {
      if (!recorded.has(later.id) || !recorded.has(earlier)) continue
      const [first, second] = [earlier, later.id].map((id) => run.order.indexOf(id))
      if (first === -1 || second === -1) {
        const says = 'it is not said which of the two was taken first: give the order'
        const params = { first: earlier, then: later.id }
        const unknown = (text: string) => because('order-unknown', text, params)
        faults.set(earlier, unknown(`${titleOf(later.id)} belongs after it, and ${says}`))
        faults.set(later.id, unknown(`it belongs after ${titleOf(earlier)}, and ${says}`))
      } else if (Number(first) > Number(second)) {
        const again = inOrder(procedure, [earlier, ...following(test.items, earlier)])
        const text = `it was taken after ${titleOf(later.id)}, which belongs after it: take again, in this order, ${again.map(titleOf).join(', then ')}`
        const params = { first: earlier, then: later.id, again: again.join(' ') }
        faults.set(earlier, because('taken-out-of-order', text, params))
      }
    }
  }
  return faults
}

/** Everything that must come after an item. */
function following(items: readonly PackItem[], id: string): string[] {
  const next = items.filter((i) => i.after?.includes(id)).map((i) => i.id)
  return [...new Set([...next, ...next.flatMap((n) => following(items, n))])]
}

function inOrder({ steps }: Pick<Procedure, 'steps'>, ids: readonly string[]): string[] {
  const place = (id: string) => steps.findIndex((s) => s.record?.item === id)
  return [...ids].sort((a, b) => place(a) - place(b))
}

const lower = (text: string) => text.charAt(0).toLowerCase() + text.slice(1)
