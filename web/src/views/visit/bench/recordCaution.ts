import type { VisitState } from '@uvanta/core/visit'

/**
 * What has to be said above what was signed, before anybody takes it for what stands: that there is no
 * certificate of it yet, that it was declared void, that entries are others by now.
 */
export function recordCaution({
  signed,
  certificate,
  voided,
  correctedSinceCertificate,
}: Pick<VisitState, 'signed' | 'certificate' | 'voided' | 'correctedSinceCertificate'>):
  string | null {
  if (!signed) return null
  if (!certificate) return 'Provisional: no certificate has been issued of this yet.'
  const gone = voided[certificate.number]
  if (gone) return `${certificate.number} was declared void by ${gone.recordedBy}: ${gone.reason}`
  return correctedSinceCertificate
    ? `Entries were corrected after ${certificate.number} was issued, which says what stood then.`
    : null
}
