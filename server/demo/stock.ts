import type { Person } from '@uvanta/contract'
import { moveStock } from '../service/stock/stock'
import type { DemoApp } from './app'
import type { Seeded } from './random'

/** Three or four of every kit on each van, and none of a few: somebody has to order. */
export async function loadStock(
  app: DemoApp,
  people: Readonly<Record<string, Person>>,
  random: Seeded,
): Promise<void> {
  const { odda, teo, sula } = people
  if (!odda || !teo || !sula) return
  const vans: readonly Person[] = [odda, teo]
  for (const { number } of app.shelf.library.specSheets.flatMap((s) => s.kits)) {
    for (const holder of vans) {
      if (holder.id === teo.id && random.chance(0.2)) continue
      await moveStock(app, sula, {
        id: random.uuid(),
        number,
        holderId: holder.id,
        change: random.whole(3, 4),
        reason: 'First count',
      })
    }
  }
}
