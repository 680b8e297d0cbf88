import { readFileSync } from 'node:fs'
import { join } from 'node:path'
import type { Role } from '@uvanta/contract'
import { parse } from 'yaml'

interface DemoGauge {
  readonly tag: string
  readonly serial: string
  readonly maker: string
  readonly span: string
  readonly spanUnit: string
  readonly resolution: string
  readonly accuracyPercent: number
  readonly accuracyOf: 'span' | 'reading'
  readonly calibrated: number
  readonly until: number
}

/** The invented town, as written in library/demo. Days count from today. */
export interface Scenario {
  readonly seed: number
  readonly people: readonly {
    readonly username: string
    readonly name: string
    readonly roles: Role[]
    readonly licences: readonly { kind: string; number: string; issued: number; expires: number }[]
  }[]
  readonly gauges: readonly DemoGauge[]
  readonly laterGauges: readonly DemoGauge[]
  /** Name, customer, address, district. */
  readonly sites: readonly (readonly [string, string, string, string])[]
  readonly positions: readonly string[]
}

/** Everyone's password in the demo. */
export const DEMO_PASSWORD = 'larkhaven-demo'

export function readScenario(libraryDirectory: string): Scenario {
  return parse(readFileSync(join(libraryDirectory, 'demo', 'larkhaven.yaml'), 'utf8')) as Scenario
}
