import { formatQuantity } from '@uvanta/core/quantity'
import { isKind, purposeTitles, stationTitles, type VisitEvent } from '@uvanta/core/visit'

/** An event as a line of the log; null for what the line shows already. */
export function eventWords(event: VisitEvent): string | null {
  if (isKind(event, 'planned'))
    return `Planned: ${purposeTitles[event.payload.purpose].toLowerCase()}`
  if (isKind(event, 'note')) return `${stationTitles[event.payload.station]}: ${event.payload.text}`
  if (isKind(event, 'identity')) {
    return event.payload.outcome === 'confirmed'
      ? 'Identity confirmed'
      : `Plate says ${event.payload.seenSerial ?? event.payload.seenTag}`
  }
  if (isKind(event, 'as-found-impossible')) return `As-found not taken: ${event.payload.reason}`
  if (isKind(event, 'test-started'))
    return `${runWords[event.payload.run]} test begun with gauge ${event.payload.gauge.tag}`
  if (isKind(event, 'reading'))
    return `${runWords[event.payload.run]} ${itemWords(event.payload.item)}: ${formatQuantity(event.payload)}`
  if (isKind(event, 'answer'))
    return `${runWords[event.payload.run]} ${itemWords(event.payload.item)}: ${event.payload.label}`
  if (isKind(event, 'test-finished')) return `${runWords[event.payload.run]} test finished`
  if (isKind(event, 'repair')) return `Repair: ${event.payload.text}`
  if (isKind(event, 'station-done')) return `${stationTitles[event.payload.station]} finished`
  if (isKind(event, 'reopened')) return `Back to Open up: ${event.payload.reason}`
  if (isKind(event, 'hose-moved'))
    return event.payload.port
      ? `${sentence(event.payload.hose)} hose to ${itemWords(event.payload.port)}`
      : `${sentence(event.payload.hose)} hose off`
  if (isKind(event, 'valve-moved'))
    return `${sentence(itemWords(event.payload.element))} ${moveWords[event.payload.to]}`
  if (isKind(event, 'guide-chosen'))
    return `Guide ${itemWords(event.payload.guideId)}, ${itemWords(event.payload.variant)}`
  if (isKind(event, 'guide-value'))
    return `${sentence(itemWords(event.payload.slot))}: ${event.payload.value} ${event.payload.unit ?? ''} (${event.payload.source})`
  if (isKind(event, 'guide-step')) {
    const { step, finding, departure } = event.payload
    return `Guide step ${step}${finding ? `: ${itemWords(finding)}` : ''}${departure ? ` – out of order: ${departure}` : ''}`
  }
  if (isKind(event, 'stopped')) return `Stopped: ${event.payload.reason}`
  if (isKind(event, 'signed')) return `Signed by ${event.payload.name}`
  if (isKind(event, 'certificate-issued')) return `Certificate ${event.payload.number} issued`
  return null
}

const runWords = { 'as-found': 'As-found', 'as-left': 'As-left' } as const
const moveWords = { shut: 'shut', crack: 'cracked', half: 'half open', open: 'opened' } as const
const sentence = (text: string) => text.charAt(0).toUpperCase() + text.slice(1)
const itemWords = (item: string) => item.replaceAll('-', ' ')
