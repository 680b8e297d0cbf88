import { dateWords, sentence } from '@/composables/words'
import { type AnyQuantity, formatQuantity } from '@uvanta/core/quantity'
import {
  type EventKind,
  purposeTitles,
  type RunName,
  stationTitles,
  upcast,
  type VisitEvent,
} from '@uvanta/core/visit'

/** What the entries of a log name by id. */
export interface Names {
  /** The sentence of a step of the job guide. */
  readonly step: (id: string) => string | undefined
  /** The label of something on the equipment. */
  readonly element: (id: string) => string
  /** What a run records under this name. */
  readonly item: (run: RunName, id: string) => string
}

type Words = {
  readonly [K in EventKind]: (payload: VisitEvent<K>['payload'], names: Names) => string | null
}

/**
 * An event as a line of the log; null for what the line shows already.
 * @param names where they are not given, ids stand for them
 */
export const eventWords = (event: VisitEvent, names: Partial<Names> = {}): string | null =>
  wordsOf(upcast(event), { ...byId, ...names })

const byId: Names = {
  step: () => undefined,
  element: (id) => sentence(itemWords(id)),
  item: (_, id) => itemWords(id),
}

const wordsOf = <K extends EventKind>(event: VisitEvent<K>, names: Names): string | null =>
  words[event.kind](event.payload, names)

const words: Words = {
  planned: (p) => `Planned: ${purposeTitles[p.purpose].toLowerCase()}`,
  pinned: () => 'Newer rules taken up before it was begun',
  replanned: (p) =>
    `Planned for ${dateWords(p.plannedOn)}${p.time ? `, ${p.time}` : ''}, ${p.technician}${p.why ? `: ${p.why}` : ''}`,
  'replan-asked': (p) => `Asked the office to plan it otherwise: ${p.why}`,
  note: (p) => `${stationTitles[p.station]}: ${p.text}`,
  identity: (p) =>
    p.outcome === 'confirmed' ? 'Identity confirmed' : `Plate says ${p.seenSerial ?? p.seenTag}`,
  repair: (p) => `Repair: ${p.text}`,
  'station-done': (p) => `${stationTitles[p.station]} finished`,
  reopened: (p) => `Back to Open up: ${p.reason}`,
  'valve-moved': (p, { element }) =>
    `${element(p.element)} ${moveWords[p.to]}${because(p.departure)}`,
  'hose-moved': (p, { element }) =>
    p.port
      ? `${sentence(p.hose)} hose to ${lower(element(p.port))}`
      : `${sentence(p.hose)} hose off`,
  applied: (p) => `${sentence(p.source)} ${formatQuantity(p.to)}`,
  adjusted: (p) => `Adjuster ${itemWords(p.adjuster)} turned ${p.way} by ${p.turns}`,
  checked: (p) => `${runWords[p.run]}: ${checkWords[p.outcome]}. ${p.text}`,
  photo: (p) => `Photograph: ${p.caption}`,
  result: (p) => `${p.title}: ${p.says}`,
  'as-found-impossible': (p) => `As-found not taken: ${p.reason}`,
  'test-started': (p) =>
    `${runWords[p.run]} test begun with gauge ${p.instruments.map((i) => i.tag).join(', ')}`,
  'step-done': () => null,
  reading: (p, { item }) =>
    `${runWords[p.run]}, ${lower(item(p.run, p.item))}: ${formatQuantity(p)}${insisted(p.insisted)}`,
  answer: (p, { item }) => `${runWords[p.run]}, ${lower(item(p.run, p.item))}: ${p.label}`,
  'test-finished': (p) => `${runWords[p.run]} test finished`,
  'guide-chosen': (p) =>
    `Guide ${itemWords(p.guideId)}, ${itemWords(p.variant)}, version ${p.version}`,
  'guide-value': (p) => `${sentence(itemWords(p.slot))}: ${p.value} ${p.unit ?? ''} (${p.source})`,
  'guide-step': (p, { step }) => guideStepWords(p, step(p.step) ?? `Step ${p.step}`),
  'guide-round': (p) => `Round at step ${p.step}: ${p.moved ? 'one moved' : 'none moved'}`,
  'guide-timer': (p) => `Clock of step ${p.step} started`,
  'guide-redo': (p) => `Taken up again from step ${p.from}: ${p.reason}`,
  'zone-proved': (p) =>
    `Zero proved, ${itemWords(p.zone)}: ${formatQuantity(p.reading)}, watched ${p.heldMinutes} min by ${p.by}`,
  lock: (p, { element }) => `Lock ${p.number} ${p.on ? 'on' : 'off'} ${lower(element(p.element))}`,
  prepared: (p) => `${p.item}: ${p.state}`,
  'kit-taken': (p) => `Kit ${p.number} counted${because(p.departure)}`,
  'kit-closed': () => 'Kit accounted for',
  correction: () => null,
  undone: () => null,
  'correction-asked': (p) => `Correction asked for: ${p.why}`,
  'times-attested': (p) =>
    `${p.what === 'clock' ? 'Times of the device attested' : 'Times released'}: ${p.why}`,
  stopped: (p) => `Stopped: ${p.reason}`,
  signed: (p) => `Signed by ${p.name}`,
  'certificate-issued': (p) => `Certificate ${p.number} issued`,
  'certificate-voided': (p) => `Certificate ${p.number} declared void: ${p.reason}`,
}

/** A step of the job guide with what was found, set and counted at it. */
function guideStepWords(done: VisitEvent<'guide-step'>['payload'], says: string): string {
  const { finding, defects = [], setting, counted, throws, temporary, tightened } = done
  const { unphotographed, pieces, departure } = done
  const seen = defects.length > 0 ? ` (${defects.join(', ')})` : ''
  const found = finding ? `: ${itemWords(finding)}${seen}` : ''
  const until = temporary
    ? `: temporary until ${temporary.until}, permitted by ${temporary.permittedBy}`
    : ''
  const measured = [
    setting,
    counted && `${counted.grooves} grooves, ${counted.rings} rings`,
    pieces !== undefined && `${pieces} counted`,
    unphotographed && 'no photograph',
    tightened && `tightened to ${tightened.value} ${tightened.unit}`,
    throws && `${lengthWords(throws.one)} and ${lengthWords(throws.other)}`,
  ]
    .filter(Boolean)
    .map((m) => `: ${m}`)
    .join('')
  return `${says}${found}${measured}${until}${because(departure)}`
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
const lower = (text: string) => text.charAt(0).toLowerCase() + text.slice(1)
const itemWords = (item: string) => item.replaceAll('-', ' ')
