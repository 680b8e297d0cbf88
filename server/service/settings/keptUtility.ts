import { type HouseUnits, neededForCertificates, type UtilityState } from '@uvanta/contract'
import type { Transaction } from 'sequelize'
import type { Config } from '../../config'
import type { Database } from '../../store/database'
import type { UtilityRow } from '../../store/tables'

/** The version of a row that nobody has changed. */
const UNCHANGED = 1
/** The one row. */
export const ID = 1
const SERVERS_ZONE = Intl.DateTimeFormat().resolvedOptions().timeZone

/** The utility that an installation belongs to. */
export interface Utility {
  readonly name: string
  readonly authority: string
  readonly certificatePrefix: string
  readonly address: string
  readonly phone: string
  /** IANA zone of its legal dates; that of the server until one is set. */
  readonly timeZone: string
  /** Minutes by which the zone of a device may differ from it without a mark. */
  readonly zoneWithin: number
  /** Units that its people read and write pressures in, where an instrument shows no other. */
  readonly units: HouseUnits
  /** What has to be set before a certificate can be issued; nothing in the demo. */
  readonly missing: readonly string[]
}

/** The utility as its row in the database says. Another process may change the row: refresh before relying on it. */
export class KeptUtility {
  private constructor(
    private readonly db: Database,
    private readonly config: Config,
    private row: UtilityRow,
  ) {}

  /**
   * Opens the row. Until an administrator has changed it, it follows what the environment says, as that of the demo
   * does for good; a command that runs without that environment changes nothing.
   */
  static async open(db: Database, config: Config): Promise<KeptUtility> {
    const [row] = await db.utility.findOrCreate({ where: { id: ID }, defaults: { id: ID } })
    if (row.version === UNCHANGED) await row.update(config.utility)
    return new KeptUtility(db, config, row.get({ plain: true }))
  }

  /** @param transaction under which nobody changes it meanwhile */
  async refresh(transaction?: Transaction): Promise<void> {
    const row = await this.db.utility.findByPk(ID, {
      rejectOnEmpty: true,
      ...(transaction ? { transaction, lock: transaction.LOCK.SHARE } : {}),
    })
    this.row = row.get({ plain: true })
  }

  get current(): Utility {
    const { id: _id, version: _version, gaugePressureUnit, differentialUnit, ...facts } = this.row
    return {
      ...facts,
      timeZone: this.row.timeZone || SERVERS_ZONE,
      units: { gaugePressure: gaugePressureUnit, differential: differentialUnit } as HouseUnits,
      missing: this.missing(),
    }
  }

  get state(): UtilityState {
    const { id: _id, ...row } = this.row
    const { publicUrl, isDemo } = this.config
    return { ...row, missing: [...this.missing()], publicUrl, isDemo }
  }

  private missing(): readonly string[] {
    if (this.config.isDemo) return []
    const fields = neededForCertificates.filter((field) => this.row[field] === '')
    return this.config.isPublicUrlSet ? fields : [...fields, 'publicUrl']
  }
}
