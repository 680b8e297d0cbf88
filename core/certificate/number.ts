/** LH-2026-000042: gapless within its year. */
export function certificateNumber(year: number, serial: number): string {
  return `LH-${year}-${String(serial).padStart(6, '0')}`
}

/** What stands in the QR code: the number and a part that cannot be guessed. */
export function certificateCode(number: string, suffix: string): string {
  return `${number}-${suffix}`
}
