import { describe, expect, it } from 'vitest'
import { fastenerPlan } from './fastenerPlan'

const torque = { torque: 'cover-torque' }

describe('the fasteners of a step', () => {
  it('rise to a torque in passes, opposite after opposite', () => {
    const plan = fastenerPlan({ tighten: 'bolts', to: torque, pattern: 'cross' }, 8)
    expect(plan?.passes.map((p) => p.part)).toEqual([0.3, 0.6, 1])
    const order = plan?.passes[0]?.order ?? []
    for (let n = 0; n < 8; n += 2) expect(((order[n + 1] ?? 0) - (order[n] ?? 0) + 8) % 8).toBe(4)
  })
  it('go round once where an effect or snug is asked for', () => {
    expect(fastenerPlan({ tighten: 'bolts', to: { snug: true } }, 6)?.passes).toHaveLength(1)
    const soft = { tighten: 'clamp', to: torque, untilNoneMoves: true }
    expect(fastenerPlan(soft, 12)?.passes.map((p) => p.part)).toEqual([1])
  })
  it('begin with the pair that is named first', () => {
    const plan = fastenerPlan({ tighten: 'bolts', to: torque, pattern: 'pairs-first' }, 8)
    for (const pass of plan?.passes ?? []) expect(pass.order.slice(0, 2)).toEqual([1, 2])
  })
  it('in an oblong begin in the middle of the long sides, which lie opposite', () => {
    const step = { tighten: 'bolts', to: torque, pattern: 'pairs-first' } as const
    const order = fastenerPlan(step, 10, 'oblong')?.passes[0]?.order ?? []
    expect(order.slice(0, 2)).toEqual([1, 6])
    expect([...order].sort((a, b) => a - b)).toEqual([1, 2, 3, 4, 5, 6, 7, 8, 9, 10])
  })
  it('leave the pair that holds a spring for last', () => {
    const order = fastenerPlan({ loosen: 'bolts', lastOnes: 'beside the pin' }, 8)?.passes[0]?.order
    expect(order).toHaveLength(8)
    expect(order?.slice(-2)).toEqual([1, 2])
  })
  it('leave some part-threaded until zero is proved', () => {
    const order = fastenerPlan({ loosen: 'bolts', leavePart: 2 }, 8)?.passes[0]?.order
    expect(order).toHaveLength(6)
    expect(order).not.toContain(1)
    expect(order).not.toContain(2)
  })
  it.each([
    ['no ring', { tighten: 'nut', to: torque, pattern: 'none' as const }, 8],
    ['a number nobody knows', { tighten: 'bolts', to: torque }, Number.NaN],
    ['two, which have no order', { tighten: 'bolts', to: torque }, 2],
    ['a step that turns nothing', { remove: 'cover' }, 8],
  ])('have no order: %s', (_, step, count) => {
    expect(fastenerPlan(step, count)).toBeNull()
  })
})
