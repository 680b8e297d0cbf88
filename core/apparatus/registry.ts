import { backflow } from './backflow'
import { machines } from './machine'
import { regulators } from './regulator'
import type { Apparatus } from './types'

/** Every kind of equipment that has a field test, one list a sort of apparatus. */
const all: readonly Apparatus[] = [...backflow, ...regulators, ...machines]

/** What a kind of equipment is to a test; undefined for equipment without one. */
export const apparatusOf = (kind: string): Apparatus | undefined => all.find((a) => a.kind === kind)

export const apparatusKinds: readonly string[] = all.map((a) => a.kind)
