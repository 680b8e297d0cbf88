import { v7 as uuidv7 } from 'uuid'
import { beforeAll, describe, expect, it } from 'vitest'
import type { App } from '../context'
import { makeTestApp } from '../testing/app'
import { openDatabase } from './database'
import { bringUpToDate } from './migrate'
import { steps } from './schema'
import type { Column } from './column'
import { addSteps, createStep, keySteps, refuseSteps, type Table } from './table'
import * as tables from './tables'

/** A table is described once: what follows from it is what the database has. */
let app: App
beforeAll(async () => (app = await makeTestApp()))

const described = Object.values(tables) as readonly Table<Record<string, Column>>[]
describe.each(described)('the table $name', (t) => {
  it('is made, added to and guarded by a step', () => {
    const names = steps.map((s) => s.name)
    const wanted = [createStep(t), ...addSteps(t), ...keySteps(t), ...refuseSteps(t)].map(
      (s) => s.name,
    )
    expect(names).toEqual(expect.arrayContaining(wanted))
  })
  it('has the columns that are described, and no others', async () => {
    const there = await app.db.sequelize.getQueryInterface().describeTable(t.name)
    const columns = Object.keys(t.columns).map((field) =>
      field.replaceAll(/[A-Z]/g, (c) => `_${c.toLowerCase()}`),
    )
    expect(Object.keys(there).sort()).toEqual(columns.sort())
    for (const [field, column] of Object.entries(t.columns)) {
      const name = field.replaceAll(/[A-Z]/g, (c) => `_${c.toLowerCase()}`)
      const none = !column.sql.includes('NOT NULL') && !column.key
      expect([name, there[name]?.allowNull]).toEqual([name, none])
    }
  })
})

describe('the steps', () => {
  it('are done once, though several processes start on an empty database at the same moment', async () => {
    const name = `uvanta_${uuidv7().replaceAll('-', '')}`
    await app.db.sequelize.query(`CREATE DATABASE ${name}`)
    const open = () => openDatabase({ ...app.config.database, database: name }).sequelize
    const starting = [open(), open(), open()]
    const done = await Promise.all(starting.map((s) => bringUpToDate(s)))
    for (const s of starting) await s.close()
    expect(done.map((names) => names.length).sort()).toEqual([0, 0, steps.length].sort())
  })
  it('bear a name each, once', () => {
    expect(new Set(steps.map((s) => s.name)).size).toBe(steps.length)
  })
})

describe('rows that belong together', () => {
  it('are read together', async () => {
    const person = await app.db.people.findOne({ include: 'licences' })
    const gauge = await app.db.gauges.findOne({ include: 'calibrations' })
    const site = await app.db.sites.findOne({ include: 'customer' })
    expect([person, gauge, site]).toEqual([null, null, null])
  })
})
