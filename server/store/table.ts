import type { Model, ModelAttributes, ModelStatic, Sequelize } from 'sequelize'
import type { Column } from './column'

type Columns = Readonly<Record<string, Column>>

/**
 * One statement each way: data definition commits by itself, so a migration is one statement. Each can be repeated
 * without harm, because a power cut may come between the statement and its entry in the list of steps.
 */
export interface Step {
  readonly name: string
  readonly up: string
  readonly down: string
}

/** A table, described once: its data definition, its model and the type of its rows follow from it. */
export interface Table<C extends Columns> {
  readonly name: string
  readonly columns: C
  /** Keys over several columns, and those that only make a search fast. */
  readonly keys: readonly string[]
  /** Keys that a later step added: its name, and the columns. */
  readonly laterKeys: Readonly<Record<string, string>>
  /** A row, once written, stays as it is. */
  readonly appendOnly: boolean
  /** Only the owner of the schema writes it, not whoever serves. */
  readonly ownerWrites: boolean
}
export type RowOf<T> =
  T extends Table<infer C>
    ? { -readonly [K in keyof C]: C[K] extends Column<infer V> ? V : never }
    : never

export const table = <C extends Columns>(
  name: string,
  columns: C,
  {
    keys = [],
    laterKeys = {},
    appendOnly = false,
    ownerWrites = false,
  }: Partial<Pick<Table<C>, 'keys' | 'laterKeys' | 'appendOnly' | 'ownerWrites'>> = {},
): Table<C> => ({ name, columns, keys, laterKeys, appendOnly, ownerWrites })

/** `setPoint` → `set_point`; a word that SQL keeps for itself is put in quotes. */
const columnName = (field: string) => {
  const name = field.replaceAll(/[A-Z]/g, (c) => `_${c.toLowerCase()}`)
  return ['condition', 'change'].includes(name) ? `\`${name}\`` : name
}

/** The step that makes a table, as it was when it was first made. */
export function createStep<C extends Columns>({ name, columns, keys }: Table<C>): Step {
  const first = Object.entries<Column>(columns).filter(([, c]) => !c.since)
  const primary = first.filter(([, c]) => c.key).map(([field]) => columnName(field))
  const lines = [
    ...first.map(([field, c]) => {
      const alone = c.key && primary.length === 1
      const sql = alone ? c.sql.replace(' NOT NULL', '') : c.sql
      return `${columnName(field)} ${sql}${alone ? ' PRIMARY KEY' : ''}`
    }),
    ...(primary.length > 1 ? [`PRIMARY KEY (${primary.join(', ')})`] : []),
    ...keys,
    ...first.flatMap(([field, { of }]) =>
      of ? [`FOREIGN KEY (${columnName(field)}) REFERENCES ${of.table} (id)`] : [],
    ),
  ]
  return {
    name: `create-${name.replaceAll('_', '-')}`,
    up: `CREATE TABLE IF NOT EXISTS ${name} (${lines.join(', ')}) ENGINE=InnoDB`,
    down: `DROP TABLE IF EXISTS ${name}`,
  }
}

/**
 * The steps that added a column afterwards, by the name that it gives.
 * @param only these of them, where others came later still
 */
export const addSteps = <C extends Columns>(
  { name, columns }: Table<C>,
  only?: readonly string[],
): Step[] =>
  Object.entries<Column>(columns).flatMap(([field, c]) =>
    c.since && (!only || only.includes(c.since))
      ? [
          {
            name: c.since,
            up: `ALTER TABLE ${name} ADD COLUMN IF NOT EXISTS ${columnName(field)} ${c.sql}`,
            down: `ALTER TABLE ${name} DROP COLUMN IF EXISTS ${columnName(field)}`,
          },
        ]
      : [],
  )

/** The steps that added a key afterwards; it is called as its step. */
export const keySteps = ({ name, laterKeys }: Pick<Table<Columns>, 'name' | 'laterKeys'>): Step[] =>
  Object.entries(laterKeys).map(([step, columns]) => ({
    name: step,
    up: `ALTER TABLE ${name} ADD INDEX IF NOT EXISTS ${keyName(step)} (${columns})`,
    down: `ALTER TABLE ${name} DROP INDEX IF EXISTS ${keyName(step)}`,
  }))

const keyName = (step: string) => step.replaceAll('-', '_')

/** The triggers by which a table refuses to have its rows changed or taken away. */
export const refuseSteps = ({
  name,
  appendOnly,
}: Pick<Table<Columns>, 'name' | 'appendOnly'>): Step[] =>
  appendOnly
    ? (['UPDATE', 'DELETE'] as const).map((event) => ({
        name: `${name.replaceAll('_', '-')}-refuses-${event.toLowerCase()}`,
        up: `CREATE TRIGGER IF NOT EXISTS ${name}_no_${event.toLowerCase()} BEFORE ${event} ON ${name} FOR EACH ROW
       SIGNAL SQLSTATE '45000' SET MESSAGE_TEXT = '${name} is append-only'`,
        down: `DROP TRIGGER IF EXISTS ${name}_no_${event.toLowerCase()}`,
      }))
    : []

/**
 * The step by which one of these triggers lets a row go all the same, where a condition says so.
 * @param unless the condition, in SQL over OLD and NEW
 */
export function exceptStep(
  { name }: Pick<Table<Columns>, 'name'>,
  event: 'UPDATE' | 'DELETE',
  unless: string,
): Step {
  const head = `CREATE OR REPLACE TRIGGER ${name}_no_${event.toLowerCase()} BEFORE ${event} ON ${name} FOR EACH ROW`
  const refuse = `SIGNAL SQLSTATE '45000' SET MESSAGE_TEXT = '${name} is append-only'`
  return {
    name: `${name.replaceAll('_', '-')}-refuses-${event.toLowerCase()}-but`,
    up: `${head} IF NOT (${unless}) THEN ${refuse}; END IF`,
    down: `${head} ${refuse}`,
  }
}

export type ModelOf<T> = ModelStatic<Model<RowOf<T>, Partial<RowOf<T>>> & RowOf<T>>

/** The table as Sequelize sees it. */
export function defineModel<C extends Columns>(db: Sequelize, t: Table<C>): ModelOf<Table<C>> {
  const attributes: ModelAttributes = Object.fromEntries(
    Object.entries<Column>(t.columns).map(([field, c]) => [
      field,
      {
        type: c.type,
        allowNull: !c.sql.includes('NOT NULL') && !c.key,
        ...(c.key ? { primaryKey: true } : {}),
        ...(c.counted ? { autoIncrement: true } : {}),
        ...(c.fallback === undefined ? {} : { defaultValue: c.fallback }),
      },
    ]),
  )
  return db.define(t.name, attributes, {
    tableName: t.name,
    freezeTableName: true,
  }) as unknown as ModelOf<Table<C>>
}
