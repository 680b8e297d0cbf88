import type { closingKinds } from '../kinds/closing'
import { said } from '../said'
import type { Evolvers } from './evolver'

/** What signing, stopping, certificates and corrections do to a visit. */
export const closingEvolvers: Evolvers<keyof typeof closingKinds> = {
  correction: (state, { payload }) => ({
    ...state,
    asked: state.asked.filter((a) => a.of !== payload.of),
    ...(state.certificate ? { correctedSinceCertificate: true } : {}),
  }),
  // Looked up before the log is folded, like a correction.
  undone: (state) => state,
  'correction-asked': (state, event) => ({ ...state, asked: [...state.asked, said(event)] }),
  stopped: (state, event) => ({ ...state, stopped: said(event) }),
  signed: (state, event) => ({ ...state, signed: said(event) }),
  'certificate-issued': (state, event) => ({
    ...state,
    certificate: said(event),
    correctedSinceCertificate: false,
  }),
  'certificate-voided': (state, event) => ({
    ...state,
    voided: { ...state.voided, [event.payload.number]: said(event) },
  }),
}
