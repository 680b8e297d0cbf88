import { expect, it } from 'vitest'
import { testPlanOf } from '../library'
import { shippedLibrary } from '../testing/library'
import { checkCost } from './checkCost'

const rp = testPlanOf(shippedLibrary, 'larkhaven-relief-first', 'RP').procedure
const gas = testPlanOf(shippedLibrary, 'larkhaven-gas-at-flow', 'spring regulator').procedure

it('a look costs a minute and nobody his water', () => {
  expect(checkCost(gas, 'vent')).toEqual({ minutes: 1, interrupts: false })
})
it('a static differential costs the customer the supply', () => {
  expect(checkCost(rp, 'check-1')?.interrupts).toBe(true)
})
it('a hold lasts as long as the procedure wants it', () => {
  expect(checkCost(gas, 'creep')?.minutes).toBeGreaterThanOrEqual(5)
  expect(checkCost(gas, 'creep')?.minutes).toBeLessThanOrEqual(7)
})
it('what the procedure does not ask for has no cost', () => {
  expect(checkCost(rp, 'creep')).toBeNull()
})
