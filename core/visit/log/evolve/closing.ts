import type { closingKinds } from '../kinds/closing'
import { recorded } from '../recorded'
import { keepReplaced } from './replaced'
import type { Evolvers } from './evolver'

/** What signing, stopping, certificates and corrections do to a visit. */
export const closingEvolvers: Evolvers<keyof typeof closingKinds> = {
  correction: (state, { payload }) => ({
    ...state,
    ...keepReplaced(state, ...state.asked.filter((a) => a.of === payload.of)),
    asked: state.asked.filter((a) => a.of !== payload.of),
    ...(state.certificate ? { correctedSinceCertificate: true } : {}),
  }),
  // Looked up before the log is folded, like a correction.
  undone: (state) => state,
  'correction-asked': (state, event) => ({ ...state, asked: [...state.asked, recorded(event)] }),
  'times-attested': (state, event) => {
    const { what } = event.payload
    return {
      ...state,
      ...keepReplaced(state, state.attested[what]),
      ...(what === 'clock' ? { clockFarOff: null } : {}),
      attested: {
        ...state.attested,
        [what]: { ...recorded(event), covers: state.clockDoubts.length },
      },
    }
  },
  stopped: (state, event) => ({
    ...state,
    ...keepReplaced(state, state.stopped),
    stopped: recorded(event),
  }),
  signed: (state, event) => ({
    ...state,
    ...keepReplaced(state, state.signed),
    signed: recorded(event),
  }),
  'certificate-issued': (state, event) => ({
    ...state,
    ...keepReplaced(state, state.certificate),
    certificate: recorded(event),
    correctedSinceCertificate: false,
  }),
  'certificate-voided': (state, event) => ({
    ...state,
    ...keepReplaced(state, state.voided[event.payload.number]),
    voided: { ...state.voided, [event.payload.number]: recorded(event) },
  }),
}
