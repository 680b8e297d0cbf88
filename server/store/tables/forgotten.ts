import { counted, day, hash, int, key, moment, text, uuid } from '../column'
import { type RowOf, table } from '../table'

/** Until when records were deleted, as the rule for keeping them has it, and when that was done. */
export const forgetting = table(
  'forgetting',
  { id: counted(), until: moment(), at: moment() },
  { appendOnly: true, ownerWrites: true },
)

/** What is left of a visit that was deleted: enough for the heads of all days to fit for good. */
export const forgottenVisit = table(
  'forgotten_visit',
  {
    id: key(uuid<'visit'>()),
    /** How many entries its log had, the hash of the last, and when that was written. */
    events: int(),
    headHash: hash(),
    lastAt: text(30),
    forgottenOn: day(),
  },
  { appendOnly: true, ownerWrites: true },
)
export type ForgottenVisitRow = RowOf<typeof forgottenVisit>

/** Of a certificate that was deleted: that there was one of this number. */
export const forgottenCertificate = table(
  'forgotten_certificate',
  { code: key(text(60)), number: text(40), visitId: uuid<'visit'>(), forgottenOn: day() },
  { keys: ['INDEX (visit_id)'], appendOnly: true, ownerWrites: true },
)
export type ForgottenCertificateRow = RowOf<typeof forgottenCertificate>
