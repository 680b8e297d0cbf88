import { formatQuantity, isUnitOf } from '../quantity'
import type { PayloadOf, VisitEvent } from '../visit'
import type { CertifiedCorrection } from './payload'

/** Every correction of a log, in the words of a certificate. */
export function correctionsMade(events: readonly VisitEvent[]): CertifiedCorrection[] {
  return events.flatMap((event) => {
    if (event.kind !== 'correction') return []
    const { of, why, payload } = event.payload
    const original = events.find((e) => e.id === of)
    if (!original) return []
    return [
      {
        what: nameOf(original),
        was: valueOf(original),
        ...(payload ? { is: valueOf({ ...original, payload } as VisitEvent) } : {}),
        why,
        by: event.personName,
        at: event.deviceTime,
      },
    ]
  })
}

function nameOf(event: VisitEvent): string {
  if (event.kind === 'reading' || event.kind === 'answer') {
    const { run, item } = event.payload
    return `${run}, ${item.replaceAll('-', ' ')}`
  }
  return event.kind.replaceAll('-', ' ')
}

function valueOf(event: VisitEvent): string {
  if (event.kind === 'reading') return readingWords(event.payload)
  if (event.kind === 'answer') return event.payload.label
  if (event.kind === 'identity') return event.payload.outcome
  if (event.kind === 'repair' || event.kind === 'note' || event.kind === 'checked')
    return event.payload.text
  if (event.kind === 'as-found-impossible') return event.payload.reason
  return 'another entry'
}

const readingWords = ({ dimension, value, unit }: PayloadOf<'reading'>): string =>
  isUnitOf(dimension, unit) ? formatQuantity({ dimension, value, unit }) : `${value} ${unit}`
