import type { App } from '../../context'
import { inLog } from '../visit/openLog'
import { appendVoided } from '../certificate/release'
import { UVANTA } from '../visit/repin'
import { sealExistingRows } from './rowSeals'
import { sealedTables } from './sealedTables'
import { sealExisting } from './seals'
import { stateByLog } from '../certificate/verification'

/**
 * Takes over a database from before states and seals were chained: once in the life of an
 * installation, which the key directory remembers, so that nobody has it done again.
 */
export async function sealOnce(app: App): Promise<void> {
  if (!app.keys.sealedOnce()) {
    await logVoids(app)
    await sealExisting(app)
    app.keys.rememberSealed()
  }
  const known = app.keys.sealedKinds()
  const fresh = sealedTables.map((t) => t.kind).filter((kind) => !known.includes(kind))
  if (fresh.length === 0) return
  await sealExistingRows(app, fresh)
  app.keys.rememberKinds(fresh)
}

/** Certificates that were void on their status only are void in the log of their visit too. */
async function logVoids(app: App): Promise<void> {
  for (const status of await app.db.certificateStatus.findAll({ where: { state: 'void' } })) {
    const row = await app.db.certificates.findByPk(status.certificateId)
    if (!row) continue
    const by = status.changedBy ? { ...UVANTA, name: `Uvanta, for ${status.changedBy}` } : UVANTA
    await inLog(app, row.visitId, (log) =>
      stateByLog(log.events, row) === 'void'
        ? Promise.resolve(log)
        : appendVoided(app, by, log, {
            id: row.id,
            number: row.number,
            reason: status.reason ?? 'not given',
          }),
    )
  }
}
