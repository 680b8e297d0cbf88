/** Licences that people hold, and packs and guides ask for. */
export const licenceKinds = {
  'backflow-tester': 'Backflow tester',
  'backflow-tester-check-first': 'Backflow tester, check-first school',
  'gas-regulator': 'Gas regulator technician',
  'service-authorisation': 'Authorised for valves and actuators',
} as const
export type LicenceKind = keyof typeof licenceKinds
