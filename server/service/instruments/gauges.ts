import type { Id } from '@uvanta/core/schema'
import type { Gauge, Person } from '@uvanta/contract'
import type { App } from '../../context'
import type { CalibrationRow, GaugeRow } from '../../store/tables'
import { audited } from '../audit'
import { notFound, ServiceError } from '../errors'
import { madeOnce } from '../madeOnce'
import { changedFields, changedValues } from '../register/changedFields'
import { changeVersioned } from '../register/versioned'

export const listGauges = (app: App): Promise<Gauge[]> => withCalibrations(app, {})

export async function readGauge(app: App, id: string): Promise<Gauge> {
  const [gauge] = await withCalibrations(app, { id })
  if (!gauge) throw notFound('gauge')
  return gauge
}

/** Gauges by tag, each with its newest calibration first. */
async function withCalibrations(app: App, where: { readonly id?: string }): Promise<Gauge[]> {
  const rows = await app.db.gauges.findAll({
    where,
    include: 'calibrations',
    order: [
      ['tag', 'ASC'],
      ['calibrations', 'validUntil', 'DESC'],
    ],
  })
  return rows.map((row) => toGauge(row, row.calibrations ?? []))
}

function toGauge(row: GaugeRow, calibrations: readonly CalibrationRow[]): Gauge {
  return {
    id: row.id,
    tag: row.tag,
    serial: row.serial,
    maker: row.maker,
    span: plain(row.span),
    spanUnit: row.spanUnit,
    resolution: plain(row.resolution),
    accuracyPercent: Number(row.accuracyPercent),
    accuracyOf: row.accuracyOf,
    active: Boolean(row.active),
    version: row.version,
    calibrations: calibrations.map(({ id, calibratedOn, validUntil, certificate }) => ({
      id,
      calibratedOn,
      validUntil,
      certificate,
    })),
  }
}

/** 15.0000 → 15 */
const plain = (decimal: string) => String(Number(decimal))

type GaugeInput = Omit<GaugeRow, 'active' | 'version' | 'accuracyPercent'> & {
  accuracyPercent: number
}

export async function createGauge(app: App, actor: Person, input: GaugeInput): Promise<Gauge> {
  await madeOnce(app.db.gauges, input.id, async () => {
    if (await app.db.gauges.findOne({ where: { tag: input.tag } })) {
      throw new ServiceError(
        'conflict',
        `There is a gauge ${input.tag} already.`,
        'Choose another tag.',
        { code: 'tag-taken' },
      )
    }
    const row = {
      ...input,
      accuracyPercent: String(input.accuracyPercent),
      active: true,
      version: 1,
    }
    return audited(app, actor, 'added a gauge', input.tag, (transaction) =>
      app.db.gauges.create(row, { transaction }),
    )
  })
  return readGauge(app, input.id)
}

export async function changeGauge(
  app: App,
  actor: Person,
  id: string,
  version: number,
  input: object,
): Promise<Gauge> {
  const before = await readGauge(app, id)
  const action = `changed ${changedFields(before, input)} of a gauge`
  const subject = `${before.tag}, ${changedValues(before, input)}`
  await audited(app, actor, action, subject, (transaction) =>
    changeVersioned(app.db.gauges, 'gauge', id, version, input, transaction),
  )
  return readGauge(app, id)
}

export async function addCalibration(
  app: App,
  actor: Person,
  gaugeId: Id<'gauge'>,
  input: Omit<CalibrationRow, 'gaugeId'>,
): Promise<Gauge> {
  const gauge = await readGauge(app, gaugeId)
  const action = `entered calibration ${input.certificate}`
  await madeOnce(app.db.calibrations, input.id, () =>
    audited(app, actor, action, gauge.tag, (transaction) =>
      app.db.calibrations.create({ ...input, gaugeId }, { transaction }),
    ),
  )
  return readGauge(app, gaugeId)
}
