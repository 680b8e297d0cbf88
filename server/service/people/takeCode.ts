import { createHash } from 'node:crypto'
import { Secret, TOTP } from 'otpauth'
import type { Transaction } from 'sequelize'
import type { App } from '../../context'
import type { SecondFactorRow } from '../../store/tables'

/** One step before and after, for clocks that differ. */
const STEPS_BESIDE = 1

/**
 * Takes a code of the authenticator, or a recovery code, each once.
 * @returns whether it is one, and was not used before
 */
export function takeCode(app: App, personId: string, code: string): Promise<boolean> {
  return app.db.sequelize.transaction(async (transaction) => {
    const row = await locked(app, personId, transaction)
    if (!row) return false
    const step = stepOf(app, row, code)
    if (step !== null) {
      await row.update({ lastStep: step }, { transaction })
      return true
    }
    const left = row.recovery.filter((h) => h !== hashOf(code))
    if (left.length === row.recovery.length) return false
    await row.update({ recovery: left }, { transaction })
    return true
  })
}

export const locked = (app: App, personId: string, transaction: Transaction) =>
  app.db.secondFactors.findByPk(personId, { lock: true, transaction })

export const totp = (app: App, username: string, secret: Secret) =>
  new TOTP({ issuer: app.utility.current.name, label: username, secret })

/** The time step that a code is of, where it was not taken before; null for any other text. */
export function stepOf(app: App, row: SecondFactorRow, code: string): number | null {
  const timestamp = app.now().toMillis()
  const own = totp(app, '', Secret.fromBase32(app.secrets.open(row.secret, row.personId)))
  const delta = own.validate({ token: plain(code), timestamp, window: STEPS_BESIDE })
  if (delta === null) return null
  const step = own.counter({ timestamp }) + delta
  return step > row.lastStep ? step : null
}

/** However it was typed: without spaces and hyphens, in capitals. */
const plain = (code: string) => code.replaceAll(/[\s-]/g, '').toUpperCase()
export const hashOf = (code: string) => createHash('sha256').update(plain(code)).digest('hex')
