import * as yup from 'yup'
import { integer, line, localDate, prose, strictObject, uuid } from '../../../schema'
import { isDrawnLine } from '../drawnLine'
import { kind } from '../kind'

/** What ends a visit, and what is written after its end. */
export const closingKinds = {
  correction: kind(
    strictObject({
      of: uuid<'event'>().required(),
      why: prose(500).required(),
      withdraw: yup.boolean().strict(true).required(),
      payload: yup.mixed<object>(),
      /** Form of that payload; absent for the first. */
      version: integer(1, 99),
    }),
  ),
  /** What one press wrote by mistake, taken back while nothing has come after it. */
  undone: kind(
    strictObject({
      of: yup.array(uuid<'event'>().required()).strict(true).min(1).max(20).required(),
    }),
  ),
  /** Somebody who does not measure asks the tester to correct an entry. */
  'correction-asked': kind(
    strictObject({ of: uuid<'event'>().required(), why: prose(500).required() }),
    {
      by: 'office',
    },
  ),
  /** A reviewer or an administrator answers for times that the clock of a device does not prove. */
  'times-attested': kind(
    strictObject({
      /** The clock itself, or that license and calibration held when the entries were made. */
      what: yup
        .string()
        .strict(true)
        .oneOf(['clock', 'validity'] as const)
        .required(),
      why: prose(500).required(),
    }),
    { by: 'office' },
  ),
  stopped: kind(
    strictObject({
      reason: prose(500).required(),
      /** A part that is to come: what, and the day on which the work goes on with it. */
      order: strictObject({ what: line(120).required(), comeBackOn: localDate().required() })
        .default(undefined)
        .optional(),
    }),
    { by: 'office' },
  ),
  signed: kind(
    strictObject({
      /** The drawn signature, as an SVG path in a box of 400 × 120. */
      signature: prose(40_000)
        .test(
          'drawn',
          'must be a line drawn large enough to be seen',
          (v) => v == null || isDrawnLine(v),
        )
        .required(),
      name: line(120).required(),
      outcome: yup
        .string()
        .strict(true)
        .oneOf(['pass', 'pass-uncertain', 'fail-uncertain', 'fail', 'not-assessed'] as const)
        .required(),
      /** Signed without a line: by the key of a device, over the log as it stood there. */
      byKey: strictObject({
        device: uuid<'device'>().required(),
        /** ECDSA over P-256 with SHA-256, base64url, of `signedText`. */
        signature: line(120)
          .matches(/^[\w-]{86}$/, 'must be a signature')
          .required(),
      })
        .default(undefined)
        .optional(),
    }),
  ),
  'certificate-issued': kind(
    strictObject({
      certificateId: uuid<'certificate'>().required(),
      number: line(40).required(),
      supersedes: line(40),
    }),
    { by: 'server' },
  ),
  /** The reviewer declared a certificate of this visit void. */
  'certificate-voided': kind(
    strictObject({
      certificateId: uuid<'certificate'>().required(),
      number: line(40).required(),
      reason: prose(500).required(),
    }),
    { by: 'server' },
  ),
} as const
