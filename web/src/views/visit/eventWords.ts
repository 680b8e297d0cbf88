import { type AnyQuantity, formatQuantity } from '@uvanta/core/quantity'
import { isKind, purposeTitles, stationTitles, type VisitEvent } from '@uvanta/core/visit'

/**
 * An event as a line of the log; null for what the line shows already.
 * @param stepSays the sentence of a step of the job guide
 */
export function eventWords(
  event: VisitEvent,
  stepSays: (step: string) => string | undefined = () => undefined,
): string | null {
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
    return `${runWords[event.payload.run]} ${itemWords(event.payload.item)}: ${formatQuantity(event.payload)}${insisted(event.payload.insisted)}`
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
    return `${sentence(itemWords(event.payload.element))} ${moveWords[event.payload.to]}${because(event.payload.departure)}`
  if (isKind(event, 'checked'))
    return `${runWords[event.payload.run]}: ${checkWords[event.payload.outcome]}. ${event.payload.text}`
  if (isKind(event, 'photo')) return `Photograph: ${event.payload.caption}`
  if (isKind(event, 'result')) return `${event.payload.title}: ${event.payload.says}`
  if (isKind(event, 'stopped')) return `Stopped: ${event.payload.reason}`
  if (isKind(event, 'pinned')) return 'Newer rules taken up before it was begun'
  if (isKind(event, 'correction-asked')) return `Correction asked for: ${event.payload.why}`
  if (isKind(event, 'certificate-voided'))
    return `Certificate ${event.payload.number} declared void: ${event.payload.reason}`
  if (isKind(event, 'signed')) return `Signed by ${event.payload.name}`
  if (isKind(event, 'certificate-issued')) return `Certificate ${event.payload.number} issued`
  return guideWords(event, stepSays)
}

/** What was done by the guide, made safe, counted. */
function guideWords(
  event: VisitEvent,
  stepSays: (step: string) => string | undefined,
): string | null {
  if (isKind(event, 'guide-chosen'))
    return `Guide ${itemWords(event.payload.guideId)}, ${itemWords(event.payload.variant)}, version ${event.payload.version}`
  if (isKind(event, 'guide-value'))
    return `${sentence(itemWords(event.payload.slot))}: ${event.payload.value} ${event.payload.unit ?? ''} (${event.payload.source})`
  if (isKind(event, 'guide-step')) {
    const { step, finding, defects = [], setting, counted, throws } = event.payload
    const { temporary, departure } = event.payload
    const seen = defects.length > 0 ? ` (${defects.join(', ')})` : ''
    const found = finding ? `: ${itemWords(finding)}${seen}` : ''
    const until = temporary
      ? `: temporary until ${temporary.until}, permitted by ${temporary.permittedBy}`
      : ''
    const measured = [
      setting,
      counted && `${counted.grooves} grooves, ${counted.rings} rings`,
      throws && `${lengthWords(throws.one)} and ${lengthWords(throws.other)}`,
    ]
      .filter(Boolean)
      .map((m) => `: ${m}`)
      .join('')
    return `${stepSays(step) ?? `Step ${step}`}${found}${measured}${until}${because(departure)}`
  }
  if (isKind(event, 'guide-round'))
    return `Round at step ${event.payload.step}: ${event.payload.moved ? 'one moved' : 'none moved'}`
  if (isKind(event, 'guide-timer')) return `Clock of step ${event.payload.step} started`
  if (isKind(event, 'guide-redo'))
    return `Taken up again from step ${event.payload.from}: ${event.payload.reason}`
  if (isKind(event, 'zone-proved')) {
    const { zone, reading, heldMinutes, by } = event.payload
    return `Zero proved, ${itemWords(zone)}: ${formatQuantity(reading)}, watched ${heldMinutes} min by ${by}`
  }
  if (isKind(event, 'lock'))
    return `Lock ${event.payload.number} ${event.payload.on ? 'on' : 'off'} ${itemWords(event.payload.element)}`
  if (isKind(event, 'prepared')) return `${event.payload.item}: ${event.payload.state}`
  if (isKind(event, 'kit-taken'))
    return `Kit ${event.payload.number} counted${because(event.payload.departure)}`
  if (isKind(event, 'kit-closed')) return 'Kit accounted for'
  return null
}

const lengthWords = (length: { value: string; unit: string }) =>
  formatQuantity({ dimension: 'length', ...length } as AnyQuantity)
const because = (departure: string | undefined) => (departure ? ` – departure: ${departure}` : '')
const insisted = (why: string | undefined) => (why ? ` – insisted on: ${why}` : '')
const checkWords = {
  works: 'it works',
  'works-not': 'it does not work',
  'not-tried': 'it could not be tried',
} as const
const runWords = { 'as-found': 'As-found', 'as-left': 'As-left' } as const
const moveWords = { shut: 'shut', crack: 'cracked', half: 'half open', open: 'opened' } as const
const sentence = (text: string) => text.charAt(0).toUpperCase() + text.slice(1)
const itemWords = (item: string) => item.replaceAll('-', ' ')
