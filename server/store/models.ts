import type { Model, ModelStatic, Sequelize } from 'sequelize'
import type { Column } from './column'
import { defineModel } from './table'
import * as t from './tables'

/** A model whose rows can be read together with rows that belong to them, or that they belong to. */
type With<R extends object, A> = ModelStatic<Model<R, Partial<R>> & R & Partial<A>>

/** The models of all tables, each bound to the rows that it belongs to. */
export function defineModels(db: Sequelize) {
  const models = {
    people: defineModel(db, t.person) as With<t.PersonRow, { licences: t.LicenceRow[] }>,
    licences: defineModel(db, t.licence),
    secondFactors: defineModel(db, t.secondFactor),
    passkeys: defineModel(db, t.passkey),
    apiKeys: defineModel(db, t.apiKey),
    deviceKeys: defineModel(db, t.deviceKey),
    gauges: defineModel(db, t.gauge) as With<t.GaugeRow, { calibrations: t.CalibrationRow[] }>,
    calibrations: defineModel(db, t.calibration),
    customers: defineModel(db, t.customer),
    sites: defineModel(db, t.site) as With<t.SiteRow, { customer: t.CustomerRow }>,
    equipment: defineModel(db, t.equipment),
    equipmentStatus: defineModel(db, t.equipmentStatus),
    visits: defineModel(db, t.visit),
    visitEvents: defineModel(db, t.visitEvent),
    photos: defineModel(db, t.photo),
    certificates: defineModel(db, t.certificate),
    certificateStatus: defineModel(db, t.certificateStatus),
    certificatePdfs: defineModel(db, t.certificatePdf),
    certificateCounters: defineModel(db, t.certificateCounter),
    signingKeys: defineModel(db, t.signingKey),
    libraryVersions: defineModel(db, t.libraryVersion),
    stockMoves: defineModel(db, t.stockMove),
    audit: defineModel(db, t.audit),
    dailyHeads: defineModel(db, t.dailyHead),
    seals: defineModel(db, t.seal),
    sealTotals: defineModel(db, t.sealTotal),
    forgettings: defineModel(db, t.forgetting),
    forgottenVisits: defineModel(db, t.forgottenVisit),
    forgottenCertificates: defineModel(db, t.forgottenCertificate),
    wrongPasswords: defineModel(db, t.wrongPassword),
    requestCounts: defineModel(db, t.requestCount),
    utility: defineModel(db, t.utility),
  }
  associate(db)
  return models
}
export type Models = ReturnType<typeof defineModels>

function associate(db: Sequelize): void {
  for (const { name, columns } of Object.values(t)) {
    for (const [foreignKey, { of, key }] of Object.entries<Column>(columns)) {
      if (!of) continue
      const [child, parent] = [db.model(name), db.model(of.table)] as ModelStatic<never>[]
      child?.belongsTo(parent as ModelStatic<never>, { foreignKey, as: of.as })
      // A key that is a row of another table stands for one of it alone.
      const alone = key && Object.values<Column>(columns).filter((c) => c.key).length === 1
      if (alone) parent?.hasOne(child as ModelStatic<never>, { foreignKey, as: of.has })
      else parent?.hasMany(child as ModelStatic<never>, { foreignKey, as: of.has })
    }
  }
}
