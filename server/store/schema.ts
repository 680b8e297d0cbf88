import { addSteps, createStep, exceptStep, keySteps, refuseSteps, type Step } from './table'
import * as t from './tables'

/** A record goes where it is written down that it is forgotten, and so does what is older than that. */
const FORGOTTEN = 'EXISTS (SELECT 1 FROM forgotten_visit f WHERE f.id = OLD.visit_id)'
const OLD_ENOUGH = 'EXISTS (SELECT 1 FROM forgetting f WHERE f.until > OLD.at)'

/** In order; never edited once released, only followed by further ones. */
export const steps: readonly Step[] = [
  createStep(t.person),
  createStep(t.licence),
  createStep(t.gauge),
  createStep(t.calibration),
  createStep(t.customer),
  createStep(t.site),
  createStep(t.equipment),
  createStep(t.equipmentStatus),
  createStep(t.visit),
  createStep(t.visitEvent),
  createStep(t.certificate),
  createStep(t.certificateStatus),
  createStep(t.certificatePdf),
  createStep(t.certificateCounter),
  createStep(t.signingKey),
  createStep(t.audit),
  createStep(t.session),
  ...refuseSteps(t.visitEvent),
  ...refuseSteps(t.certificate),
  createStep(t.libraryVersion),
  ...refuseSteps(t.libraryVersion),
  createStep(t.stockMove),
  ...refuseSteps(t.stockMove),
  createStep(t.photo),
  createStep(t.seal),
  createStep(t.sealTotal),
  createStep(t.wrongPassword),
  ...refuseSteps(t.audit),
  ...refuseSteps(t.photo),
  ...addSteps(t.visitEvent, ['visit_event-version']),
  ...addSteps(t.equipment, ['equipment-nominals', 'equipment-station', 'equipment-station-place']),
  createStep(t.deviceKey),
  ...addSteps(t.visit),
  ...keySteps(t.certificate),
  ...keySteps(t.visit),
  ...keySteps(t.equipmentStatus),
  ...addSteps(t.equipment, ['equipment-site-name']),
  // What stands in its site's row, once more where equipment is sorted by it.
  {
    name: 'equipment-site-names',
    up: 'UPDATE equipment e JOIN site s ON s.id = e.site_id SET e.site_name = s.name',
    down: "UPDATE equipment SET site_name = ''",
  },
  ...keySteps(t.equipment),
  ...keySteps(t.audit),
  ...addSteps(t.person, ['person-must-change']),
  createStep(t.dailyHead),
  ...refuseSteps(t.dailyHead),
  createStep(t.secondFactor),
  ...addSteps(t.person, ['person-second-factor']),
  ...addSteps(t.person, ['person-units']),
  createStep(t.apiKey),
  createStep(t.passkey),
  createStep(t.forgetting),
  createStep(t.forgottenVisit),
  createStep(t.forgottenCertificate),
  ...[t.forgetting, t.forgottenVisit, t.forgottenCertificate].flatMap(refuseSteps),
  exceptStep(t.visitEvent, 'DELETE', FORGOTTEN),
  exceptStep(t.certificate, 'DELETE', FORGOTTEN),
  exceptStep(t.photo, 'DELETE', FORGOTTEN),
  exceptStep(t.audit, 'DELETE', OLD_ENOUGH),
  // Of a move of stock the number stays, and who made it goes.
  exceptStep(
    t.stockMove,
    'UPDATE',
    `NEW.person = '' AND (NEW.id, NEW.at, NEW.number, NEW.holder_id, NEW.\`change\`, NEW.reason, NEW.visit_id) <=>
     (OLD.id, OLD.at, OLD.number, OLD.holder_id, OLD.\`change\`, OLD.reason, OLD.visit_id) AND ${OLD_ENOUGH}`,
  ),
  createStep(t.requestCount),
  ...keySteps(t.stockMove),
  ...addSteps(t.visitEvent, ['visit_event-clock-ahead']),
  // What was and what is find room in a line.
  {
    name: 'audit-subject-longer',
    up: 'ALTER TABLE audit MODIFY subject VARCHAR(1000) NOT NULL',
    down: 'ALTER TABLE audit MODIFY subject VARCHAR(200) NOT NULL',
  },
  ...addSteps(t.apiKey, ['api_key-scopes']),
  ...refuseSteps(t.certificatePdf),
  exceptStep(
    t.certificatePdf,
    'DELETE',
    'EXISTS (SELECT 1 FROM certificate c JOIN forgotten_visit f ON f.id = c.visit_id WHERE c.id = OLD.certificate_id)',
  ),
  createStep(t.utility),
]

/** What of each table whoever serves may do. */
export const servingRights: Readonly<Record<string, string>> = {
  schema_step: 'SELECT',
  ...Object.fromEntries(
    Object.values(t).map(({ name, appendOnly, ownerWrites }) => [
      name,
      ownerWrites ? 'SELECT' : appendOnly ? 'SELECT, INSERT' : 'SELECT, INSERT, UPDATE, DELETE',
    ]),
  ),
}
