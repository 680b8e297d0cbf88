import { gaugeAsInstrument } from '@uvanta/core/visit'
import type { Calibration, Gauge } from './gauges'

/** A gauge under one of its calibrations, as the instrument of a test. */
export const gaugeUnder = (g: Gauge, c: Calibration) =>
  gaugeAsInstrument({
    id: g.id,
    tag: g.tag,
    serial: g.serial,
    accuracyPercent: g.accuracyPercent,
    accuracyOf: g.accuracyOf,
    span: Number(g.span),
    spanUnit: g.spanUnit,
    calibratedOn: c.calibratedOn,
    calibrationUntil: c.validUntil,
    calibrationCertificate: c.certificate,
  })
