import type { Id } from '@uvanta/core/schema'
import { DataTypes, type DataType } from 'sequelize'

/** A column: what the database keeps, what Sequelize makes of it, and by `T` what a row holds. */
export interface Column<T = unknown> {
  /** Type and constraints as the data definition says them. */
  readonly sql: string
  readonly type: DataType
  readonly key?: boolean
  readonly counted?: boolean
  readonly fallback?: string | number | boolean
  /** The table whose row this one belongs to, and what the two call each other. */
  readonly of?: { readonly table: string; readonly as: string; readonly has: string }
  /** The step that added it to a table which was there already. */
  readonly since?: string
  /** Never there: carries the type of a value. */
  readonly value?: T
}

const column = <T>(sql: string, type: DataType): Column<T> => ({ sql: `${sql} NOT NULL`, type })

/** The id of one kind of record. */
export const uuid = <K extends string>() => column<Id<K>>('UUID', DataTypes.UUID)
export const text = <T extends string = string>(length: number) =>
  column<T>(`VARCHAR(${length})`, DataTypes.STRING(length))
export const hash = () => column<string>('CHAR(64)', DataTypes.STRING(64))
export const prose = () => column<string>('TEXT', DataTypes.TEXT)
export const longText = () => column<string>('LONGTEXT', DataTypes.TEXT('long'))
export const blob = () => column<Buffer>('LONGBLOB', DataTypes.BLOB('long'))
export const json = <T>() => column<T>('JSON', DataTypes.JSON)
export const flag = () => column<boolean>('BOOLEAN', DataTypes.BOOLEAN)
export const int = () => column<number>('INT', DataTypes.INTEGER)
export const smallint = () => column<number>('SMALLINT', DataTypes.INTEGER)
/** A day of the utility’s calendar, as 2026-11-24. */
export const day = () => column<string>('DATE', DataTypes.DATEONLY)
/** A moment in UTC, to the millisecond. */
export const moment = () => column<Date>('DATETIME(3)', DataTypes.DATE(3))
/** Digits that are kept as they are: they arrive as text. */
export const decimal = (digits: number, behind: number) =>
  column<string>(`DECIMAL(${digits},${behind})`, DataTypes.DECIMAL(digits, behind))
/** Which version of a record this is; every change adds one. */
export const version = () => withDefault(int(), 1)

export const nullable = <T>(c: Column<T>): Column<T | null> => ({
  ...(c as Column<T | null>),
  sql: c.sql.replace(' NOT NULL', ''),
})
export const unique = <T>(c: Column<T>): Column<T> => ({ ...c, sql: `${c.sql} UNIQUE` })
/** The primary key, or one part of it. */
export const key = <T>(c: Column<T>): Column<T> => ({ ...c, key: true })
/** A primary key that the database counts up. */
export const counted = (): Column<number> => ({
  ...int(),
  sql: 'INT AUTO_INCREMENT',
  key: true,
  counted: true,
})
export const withDefault = <T extends string | number | boolean>(
  c: Column<T>,
  fallback: T,
): Column<T> => ({
  ...c,
  sql: `${c.sql} DEFAULT ${typeof fallback === 'string' ? `'${fallback}'` : String(fallback).toUpperCase()}`,
  fallback,
})
/**
 * Belongs to a row of another table.
 * @param as what that row is to this one
 * @param has what rows like this one are to that one, in the plural
 */
export const belongsTo = <T>(c: Column<T>, table: string, as: string, has: string): Column<T> => ({
  ...c,
  of: { table, as, has },
})
/** Added by a later step to a table that was there already. */
export const since = <T>(step: string, c: Column<T>): Column<T> => ({ ...c, since: step })
