import { createHash } from 'node:crypto'
import { canonicalJson } from '@uvanta/core/visit'
import { type Model, type ModelStatic, Op, QueryTypes, type Transaction } from 'sequelize'
import type { App } from '../../context'
import type { RecordFault } from './recordFault'
import { type SealedTable, sealedTables } from './sealedTables'
import { inSnapshot } from './snapshot'

type Sealing = Pick<App, 'db' | 'keys'>
type Row = Readonly<Record<string, unknown>>
type AnyModel = ModelStatic<Model<Row, Row>>
interface Within {
  readonly transaction?: Transaction | null | undefined
}
const transactionOf = ({ transaction }: Within) => (transaction ? { transaction } : {})

/** Rows that are read at once. */
const PAGE = 500
/** As long as the seals’ table keeps an id. */
const ID_LENGTH = 40

const modelOf = ({ db }: Sealing, { model }: SealedTable) => db[model] as unknown as AnyModel
const sha256 = (data: string | Buffer) => createHash('sha256').update(data).digest('hex')

/** The id of a row among the seals of its kind: its key, or a hash of a key that is long or of several columns. */
function sealIdOf(model: AnyModel, row: Row): string {
  const key = model.primaryKeyAttributes.map((name) => String(row[name])).join(' ')
  return key.length <= ID_LENGTH && model.primaryKeyAttributes.length === 1
    ? key
    : sha256(key).slice(0, ID_LENGTH)
}

function wordsOf(table: SealedTable, row: Row): string {
  const said = Object.entries(row)
    .filter(([name]) => !table.without.includes(name))
    .map(([name, value]) => [name, plain(value)])
  return canonicalJson(Object.fromEntries(said))
}
const plain = (value: unknown): unknown => {
  if (value instanceof Date) return value.toISOString()
  return Buffer.isBuffer(value) ? sha256(value) : value
}

const keysOf = (model: AnyModel, row: Row) =>
  Object.fromEntries(model.primaryKeyAttributes.map((name) => [name, row[name]]))

/** The rows of these keys as the database has them. */
const readRows = (model: AnyModel, keys: readonly Row[], within: Within) =>
  model.findAll({
    where: { [Op.or]: keys } as never,
    raw: true,
    ...transactionOf(within),
  }) as unknown as Promise<Row[]>

const totalWords = (kind: string, total: number) => canonicalJson(['total', kind, total])

/** Counts the seals of a kind up or down, and seals how many there are. */
async function count(app: Sealing, kind: string, by: number, within: Within): Promise<void> {
  if (by === 0) return
  const { sequelize } = app.db
  // The lock on the row makes counting one after the other.
  await sequelize.query('UPDATE seal_total SET total = total + ? WHERE kind = ?', {
    replacements: [by, kind],
    ...transactionOf(within),
  })
  const row = await app.db.sealTotals.findByPk(kind, transactionOf(within))
  const seal = app.keys.seal(kind, totalWords(kind, row?.total ?? 0))
  await app.db.sealTotals.update({ seal }, { where: { kind }, ...transactionOf(within) })
}

const knownAmong = (app: Sealing, kind: string, ids: readonly string[], within: Within) =>
  app.db.seals.findAll({
    where: { kind, id: [...ids] },
    raw: true,
    ...transactionOf(within),
  })

/** Writes the seals of rows as they stand now, in the transaction that wrote them. */
async function sealRows(
  app: Sealing,
  table: SealedTable,
  keys: readonly Row[],
  within: Within,
): Promise<void> {
  if (keys.length === 0) return
  const model = modelOf(app, table)
  const rows = await readRows(model, keys, within)
  if (rows.length === 0) return
  const seals = rows.map((row) => ({
    id: sealIdOf(model, row),
    seal: app.keys.seal(table.kind, wordsOf(table, row)),
  }))
  const ids = seals.map((s) => s.id)
  const known = await knownAmong(app, table.kind, ids, within)
  await app.db.sequelize.query(
    'INSERT INTO seal (kind, id, seal) VALUES ? ON DUPLICATE KEY UPDATE seal = VALUES(seal)',
    {
      replacements: [seals.map(({ id, seal }) => [table.kind, id, seal])],
      ...transactionOf(within),
    },
  )
  await count(app, table.kind, ids.length - known.length, within)
}

/** Takes back the seals of rows that go. */
async function unsealRows(
  app: Sealing,
  table: SealedTable,
  keys: readonly Row[],
  within: Within,
): Promise<void> {
  if (keys.length === 0) return
  const model = modelOf(app, table)
  const ids = keys.map((row) => sealIdOf(model, row))
  const gone = await app.db.seals.destroy({
    where: { kind: table.kind, id: ids },
    ...transactionOf(within),
  })
  await count(app, table.kind, -gone, within)
}

/** What a bulk change is about, found before it is made: afterwards its condition may hold no longer. */
const touched = new WeakMap<object, readonly Row[]>()

/**
 * Installs hooks that seal the rows of a sealed table again whenever they change, in the same transaction. The key of the
 * seals is not in the database.
 */
export function keepSealed(app: Sealing): void {
  for (const table of sealedTables) {
    const model = modelOf(app, table)
    const isSealed = (fields: readonly string[] | undefined) =>
      !fields || fields.some((name) => !table.without.includes(name))
    const find = (options: { where?: unknown } & Within) =>
      model.findAll({
        where: options.where as never,
        attributes: [...model.primaryKeyAttributes],
        raw: true,
        ...transactionOf(options),
        ...(options.transaction ? { lock: options.transaction.LOCK.UPDATE } : {}),
      }) as unknown as Promise<Row[]>
    const own = (instance: Model) => [keysOf(model, instance.get({ plain: true }) as Row)]

    model.addHook('afterCreate', (instance, options) =>
      sealRows(app, table, own(instance), options as Within),
    )
    model.addHook('afterBulkCreate', (instances, options) =>
      sealRows(app, table, (instances as unknown as Model[]).flatMap(own), options as Within),
    )
    model.addHook('afterUpsert', ([instance], options) =>
      sealRows(app, table, own(instance as Model), options as Within),
    )
    model.addHook('afterUpdate', (instance, options) =>
      isSealed((options as { fields?: string[] }).fields)
        ? sealRows(app, table, own(instance), options as Within)
        : undefined,
    )
    model.addHook('beforeBulkUpdate', async (options) => {
      if (isSealed(options.fields)) touched.set(options, await find(options))
    })
    model.addHook('afterBulkUpdate', (options) =>
      sealRows(app, table, touched.get(options) ?? [], options),
    )
    model.addHook('afterDestroy', (instance, options) =>
      unsealRows(app, table, own(instance), options as Within),
    )
    model.addHook('beforeBulkDestroy', async (options) => {
      touched.set(options, await find(options))
    })
    model.addHook('afterBulkDestroy', (options) =>
      unsealRows(app, table, touched.get(options) ?? [], options),
    )
  }
}

/** Seals a row that was written in SQL. */
export const sealWritten = (
  app: Sealing,
  kind: string,
  key: Row,
  transaction: Transaction,
): Promise<void> => {
  return sealRows(app, tableOf(kind), [key], { transaction })
}

function tableOf(kind: string): SealedTable {
  const table = sealedTables.find((t) => t.kind === kind)
  if (!table) throw new Error(`Rows of ${kind} are not sealed.`)
  return table
}

/** Goes through the rows of a table, a page at a time, in the order of their keys. */
async function everyPage(
  app: Sealing,
  table: SealedTable,
  transaction: Transaction,
  look: (rows: readonly Row[]) => Promise<void>,
): Promise<void> {
  const model = modelOf(app, table)
  const order = model.primaryKeyAttributes.map((name) => [name, 'ASC'] as [string, 'ASC'])
  const [first] = model.primaryKeyAttributes
  const isSingle = model.primaryKeyAttributes.length === 1
  for (let page = 0, after: unknown; ; page++) {
    const from =
      isSingle && first && after !== undefined ? { where: { [first]: { [Op.gt]: after } } } : {}
    const rows = (await model.findAll({
      ...(from as object),
      order,
      limit: PAGE,
      ...(isSingle ? {} : { offset: page * PAGE }),
      raw: true,
      transaction,
    })) as unknown as Row[]
    await look(rows)
    if (rows.length < PAGE) return
    after = first ? rows.at(-1)?.[first] : undefined
  }
}

/** Seals what stood in the database before rows were sealed, of the kinds that have no count yet. */
export async function sealExistingRows(app: Sealing, kinds: readonly string[]): Promise<void> {
  for (const table of sealedTables.filter((t) => kinds.includes(t.kind))) {
    await app.db.sequelize.transaction(async (transaction) => {
      const { kind } = table
      await app.db.sealTotals.bulkCreate([{ kind, total: 0, seal: '' }], {
        ignoreDuplicates: true,
        transaction,
      })
      const total = await app.db.sealTotals.findByPk(kind, {
        transaction,
        lock: transaction.LOCK.UPDATE,
      })
      // Another process has just done it.
      if (total?.seal) return
      // What was written before there was a count is counted with the rest.
      await app.db.seals.destroy({ where: { kind }, transaction })
      const seal = app.keys.seal(kind, totalWords(kind, 0))
      await app.db.sealTotals.update({ seal }, { where: { kind }, transaction })
      const model = modelOf(app, table)
      await everyPage(app, table, transaction, (rows) =>
        sealRows(
          app,
          table,
          rows.map((row) => keysOf(model, row)),
          { transaction },
        ),
      )
    })
  }
}

/** What of the sealed tables was altered, added or taken away behind the application’s back. */
export async function rowFaults(app: App): Promise<RecordFault[]> {
  const faults: RecordFault[] = []
  for (const table of sealedTables)
    faults.push(...(await inSnapshot(app, (transaction) => faultsOf(app, table, transaction))))
  return faults
}

async function faultsOf(
  app: App,
  table: SealedTable,
  transaction: Transaction,
): Promise<RecordFault[]> {
  const { kind } = table
  const model = modelOf(app, table)
  const faults: RecordFault[] = []
  let seen = 0
  await everyPage(app, table, transaction, async (rows) => {
    const ids = rows.map((row) => sealIdOf(model, row))
    const known = await knownAmong(app, kind, ids, { transaction })
    const seals = new Map(known.map((s) => [s.id, s.seal]))
    seen += seals.size
    for (const [n, row] of rows.entries()) {
      const id = ids[n] ?? ''
      const seal = seals.get(id)
      if (seal === app.keys.seal(kind, wordsOf(table, row))) continue
      const what = seal ? 'does not fit its seal: it was altered' : 'was never sealed'
      faults.push({ of: kind, id, what })
    }
  })
  const [sealed] = await app.db.sequelize.query<{ n: number }>(
    'SELECT COUNT(*) AS n FROM seal WHERE kind = ?',
    { replacements: [kind], type: QueryTypes.SELECT, transaction },
  )
  const total = await app.db.sealTotals.findByPk(kind, { transaction })
  if ((sealed?.n ?? 0) > seen)
    faults.push({ of: kind, id: 'some', what: `${(sealed?.n ?? 0) - seen} were taken away` })
  const fits =
    total?.total === sealed?.n &&
    total?.seal === app.keys.seal(kind, totalWords(kind, total?.total ?? 0))
  return fits
    ? faults
    : [...faults, { of: kind, id: 'all', what: 'the number of records does not fit its seal' }]
}

/** Whether a row is as it was sealed: what is handed out by it is asked about first. */
export async function isAsSealed(app: Sealing, kind: string, key: Row): Promise<boolean> {
  const table = tableOf(kind)
  const model = modelOf(app, table)
  const [row] = await readRows(model, [key], {})
  if (!row) return false
  const [known] = await knownAmong(app, kind, [sealIdOf(model, row)], {})
  return known?.seal === app.keys.seal(kind, wordsOf(table, row))
}
