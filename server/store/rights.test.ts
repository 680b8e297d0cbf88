import { expect, it } from 'vitest'
import { servingRights } from './schema'

it('whoever serves may change no row of what only grows', () => {
  for (const table of ['visit_event', 'certificate', 'audit', 'photo', 'stock_move', 'daily_head'])
    expect([table, servingRights[table]]).toEqual([table, 'SELECT, INSERT'])
  for (const table of ['forgetting', 'forgotten_visit', 'forgotten_certificate'])
    expect([table, servingRights[table]]).toEqual([table, 'SELECT'])
  expect(servingRights.visit).toBe('SELECT, INSERT, UPDATE, DELETE')
})
