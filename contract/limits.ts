/** Events in one sending: a device with more sends them in pieces. */
export const MOST_EVENTS = 100
/** Size of one sending, bytes of JSON. */
export const MOST_BYTES = 500_000
/** Lines of a table in one sending: they are written in one transaction, which others wait for. */
export const MOST_LINES = 50
