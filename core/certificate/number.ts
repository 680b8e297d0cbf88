/**
 * The number of a certificate, as LH-2026-000042: gapless within its year.
 * @param prefix the utility’s own
 */
export function certificateNumber(prefix: string, year: number, serial: number): string {
  return `${prefix}-${year}-${String(serial).padStart(6, '0')}`
}

/** What stands in the QR code: the number and a part that cannot be guessed. */
export function certificateCode(number: string, suffix: string): string {
  return `${number}-${suffix}`
}
