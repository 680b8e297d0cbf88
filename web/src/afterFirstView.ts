import type { Router } from 'vue-router'

/** Time in which the first view asks for what it shows, ms. */
const LATER_MS = 1_000

/** When what nobody needs at first may take the line: after the view that was asked for. */
export async function afterFirstView(router: Router): Promise<void> {
  await router.isReady()
  await new Promise((later) => setTimeout(later, LATER_MS))
}
