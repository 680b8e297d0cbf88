/** What an element does to what flows, and with that whether it is turned by hand. */
export type Role =
  | 'shutoff'
  | 'cock'
  | 'check'
  | 'relief'
  | 'air-inlet'
  | 'meter'
  | 'regulator'
  | 'slam-shut'
  | 'machine'

/** What a spring shuts, or sets. */
export const SPRUNG: readonly Role[] = ['check', 'relief', 'air-inlet', 'regulator', 'slam-shut']
