import type { App } from '../app'
import { inLog } from './append'
import { appendVoided } from './certificates'
import { UVANTA } from './repin'
import { sealExisting } from './seals'
import { stateByLog } from './verification'

/**
 * Takes over a database from before states and seals were chained: once in the life of an
 * installation, which the key directory remembers, so that nobody has it done again.
 */
export async function sealOnce(app: App): Promise<void> {
  if (app.keys.sealedOnce()) return
  await logVoids(app)
  await sealExisting(app)
  app.keys.rememberSealed()
}

/** Certificates that were void on their status only are void in the log of their visit too. */
async function logVoids(app: App): Promise<void> {
  for (const status of await app.db.certificateStatus.findAll({ where: { state: 'void' } })) {
    const row = await app.db.certificates.findByPk(status.certificateId)
    if (!row) continue
    const by = status.changedBy ? { ...UVANTA, name: `Uvanta, for ${status.changedBy}` } : UVANTA
    await inLog(app, row.visitId, (log) =>
      stateByLog(log.events, row) === 'void'
        ? Promise.resolve([])
        : appendVoided(app, by, log, {
            id: row.id,
            number: row.number,
            reason: status.reason ?? 'not given',
          }),
    )
  }
}
