/** A time in UTC, as people write it: 2026-11-27 14:05:00. @param {Date} time */
export const dayAndTime = (time) => time.toISOString().slice(0, 19).replace('T', ' ')

/** A name for a file that is written now: 2026-11-27-140500. */
export const nameOfNow = () => dayAndTime(new Date()).replace(' ', '-').replaceAll(':', '')
