import type { Guide, GuideSlot } from '../guide'
import { type AnyQuantity, isUnitOf, parseDisplayed, unitsOf } from '../quantity'
import { outsideQuantity } from '../rules'

/** What is wrong with a figure, and where: its value or its unit. */
export interface FigureFault {
  readonly code: 'figure-unit' | 'figure-rubber' | 'figure-count' | 'figure-impossible'
  readonly at: 'value' | 'unit'
  readonly message: string
}

const numberOf = (value: string): number | undefined => {
  try {
    return parseDisplayed(value)
  } catch {
    return undefined
  }
}

/**
 * Checks a figure against the slot of a guide that it fills: a rubber is one of those the family is built with, a
 * quantity has a unit of its own and a value that it can have, a number of pieces is whole and from 1 to 200.
 *
 * @returns null where nothing is wrong; a slot for words takes any
 */
export function figureFault(
  { parts }: Pick<Guide, 'parts'>,
  { id, dimension, rubbers }: GuideSlot,
  { value, unit }: { readonly value: string; readonly unit?: string | undefined },
): FigureFault | null {
  if (rubbers && !rubbers.some((r) => r === value))
    return {
      code: 'figure-rubber',
      at: 'value',
      message: `“${id}” is a rubber: give one of ${rubbers.join(', ')}`,
    }
  if (parts.some((p) => p.countSlot === id) && !/^([1-9]\d?|1\d\d|200)$/.test(value))
    return {
      code: 'figure-count',
      at: 'value',
      message: `“${id}” is a number of pieces: give a whole number from 1 to 200`,
    }
  if (!dimension) return null
  if (!unit || !isUnitOf(dimension, unit))
    return {
      code: 'figure-unit',
      at: 'unit',
      message: `“${id}” is a ${dimension}: give one of ${unitsOf(dimension).join(', ')}`,
    }
  const number = numberOf(value)
  if (number === undefined || (number <= 0 && dimension !== 'temperature'))
    return {
      code: 'figure-impossible',
      at: 'value',
      message: `“${id}” is a ${dimension}: give a number above zero`,
    }
  const doubt = outsideQuantity({ dimension, value, unit } as AnyQuantity)
  return doubt ? { code: 'figure-impossible', at: 'value', message: doubt } : null
}
