import { isFarOff } from '../log/clock'
import type { VisitEvent } from '../log/events'
import type { VisitState } from '../log/state'
import { type GuardContext, type Refusal, refuse } from './refusal'

/** What of the times of a visit somebody has to answer for before it is signed; none where nothing is open. */
export function timesToAttest(state: VisitState): ('clock' | 'validity')[] {
  const since = state.clockDoubts.slice(state.attested.validity?.covers ?? 0)
  return [
    ...(state.clockFarOff ? (['clock'] as const) : []),
    ...(since.some((d) => d.doubt === 'expired-on-arrival') ? (['validity'] as const) : []),
  ]
}

/** Why a visit cannot be signed because of its times, those of the signature included. */
export function timesRefusal(
  state: VisitState,
  signature: Parameters<typeof isFarOff>[0],
): Refusal | null {
  const [what] = timesToAttest(state)
  if (what === 'clock' || isFarOff(signature))
    return refuse(
      'clock-far-off',
      'The clock of the device is more than 12 hours off.',
      'Set the clock and record one more entry, as a note. Or ask an administrator to attest the times.',
      'as-left',
    )
  return what
    ? refuse(
        'times-to-release',
        'License or calibration did not cover the day on which the entries arrived.',
        'Ask a reviewer to release the times of this visit. Then sign.',
        'as-left',
      )
    : null
}

/** Whose word it takes: the clock is the administrator’s, what the test rests on the reviewer’s. */
const ATTESTS = { clock: 'administrator', validity: 'reviewer' } as const

/** Checks that these times are in doubt and that the role of the person may release them. */
export function guardAttested(
  state: VisitState,
  { payload: { what } }: VisitEvent<'times-attested'>,
  { person }: GuardContext,
): Refusal | null {
  if (!person.roles.includes(ATTESTS[what]))
    return refuse(
      'attests-not',
      `The times of this visit are released by a ${ATTESTS[what]}.`,
      `Ask a ${ATTESTS[what]}.`,
      undefined,
      { role: ATTESTS[what] },
    )
  return timesToAttest(state).includes(what)
    ? null
    : refuse(
        'nothing-to-attest',
        'Nothing about the times of this visit is waiting for a release.',
        'Leave it as it is.',
      )
}
