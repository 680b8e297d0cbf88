import { DateTime } from 'luxon'
import type { App } from '../context'
import type { Seeded } from './random'

/** An application whose clock, ids and codes the demo sets, so that the same seed gives the same data. */
export interface DemoApp extends App {
  readonly at: (date: string, minutes: number) => App
}

export function demoApp(app: App, random: Seeded): DemoApp {
  const at = (date: string, minutes: number): App => ({
    ...app,
    now: () =>
      DateTime.fromISO(`${date}T08:00:00.000Z`, { zone: 'utc' }).plus({
        minutes,
      }) as DateTime<true>,
    newId: () => random.uuid(),
    newSuffix: () => random.suffix(),
  })
  return { ...at(app.today(), -60), at }
}
