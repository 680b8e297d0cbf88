import {
  type AssemblyKind,
  type Element,
  kitValves,
  layoutOf,
  type Place,
} from '@uvanta/core/assembly'

/** Where things stand on the sheet, in units of the drawing; flow runs left to right. */
export interface Spot {
  readonly x: number
  readonly y: number
}

export interface DrawnElement extends Element, Spot {}

/** A stretch of pipe that belongs to one place. */
export interface DrawnPlace extends Place {
  /** Centre lines, each from one corner to the next. */
  readonly runs: readonly (readonly [Spot, Spot])[]
  readonly label: string
  /** Where its pressure is written. */
  readonly text: Spot
}

export interface Geometry {
  readonly width: number
  readonly height: number
  readonly mainY: number
  readonly elements: readonly DrawnElement[]
  readonly places: readonly DrawnPlace[]
  readonly kit: readonly (Spot & { readonly id: string; readonly label: string })[]
  readonly gauge: Spot
  /** Where the three hoses leave the kit. */
  readonly hoses: Readonly<Record<'high' | 'low' | 'bypass', Spot>>
}

const WIDTH = 800

/** x along the main line, by element. */
const TWO_CHECKS: Readonly<Record<string, number>> = {
  'cock-1': 62,
  'shutoff-1': 132,
  'cock-2': 208,
  'check-1': 290,
  'cock-3': 366,
  relief: 428,
  'check-2': 506,
  'cock-4': 588,
  'shutoff-2': 664,
}
const VACUUM_BREAKER: Readonly<Record<string, number>> = {
  'shutoff-1': 132,
  'cock-1': 216,
  'check-1': 320,
  'air-inlet': 440,
  'cock-2': 536,
  'shutoff-2': 640,
}
const BYPASS: Readonly<Record<string, number>> = {
  'cock-1': 190,
  'shutoff-1': 226,
  'cock-2': 274,
  'check-1': 324,
  'cock-3': 372,
  relief: 408,
  'check-2': 456,
  'cock-4': 504,
  'shutoff-2': 548,
  meter: 596,
}
/** The bypass leaves the main before check 1 and comes back after check 2. */
const RISERS = [182, 632] as const

const plain = (id: string) => id.replace('bypass-', '')

/** The sheet of a kind of assembly, with or without the test kit under it. */
export function geometryOf(kind: AssemblyKind, withKit: boolean): Geometry {
  const detector = kind.endsWith('DA')
  const breaker = kind === 'PVB' || kind === 'SVB'
  const mainY = detector ? 176 : breaker ? 92 : 56
  const bypassY = 46
  const along = breaker ? VACUUM_BREAKER : TWO_CHECKS
  const layout = layoutOf(kind)
  const elements = layout.elements.map((e): DrawnElement => {
    const onBypass = e.line === 'bypass'
    const x = (onBypass ? BYPASS : along)[plain(e.id)] ?? 0
    return { ...e, x, y: onBypass ? bypassY : mainY }
  })
  const kitY = mainY + 172
  return {
    width: WIDTH,
    height: withKit ? kitY + 80 : mainY + 124,
    mainY,
    elements,
    places: layout.places.map((p) => drawnPlace(p, elements, mainY, bypassY, detector)),
    kit: kitSpots(kitY),
    gauge: { x: 400, y: kitY + 38 },
    hoses: {
      high: { x: 300, y: kitY - 26 },
      bypass: { x: 400, y: kitY - 26 },
      low: { x: 500, y: kitY - 26 },
    },
  }
}

const KIT_X: Readonly<Record<string, number>> = {
  'high-bleed': 216,
  'high-control': 300,
  'bypass-control': 400,
  'low-control': 500,
  'low-bleed': 584,
}
const kitSpots = (y: number) => kitValves.map((v) => ({ ...v, x: KIT_X[v.id] ?? 0, y }))

function drawnPlace(
  place: Place,
  elements: readonly DrawnElement[],
  mainY: number,
  bypassY: number,
  detector: boolean,
): DrawnPlace {
  const onBypass = place.line === 'bypass'
  const y = onBypass ? bypassY : mainY
  const passes = elements.filter((e) => e.line === place.line && e.to)
  const left = passes.find((e) => e.to === place.id)?.x ?? (onBypass ? RISERS[0] : 8)
  const right = passes.find((e) => e.at === place.id)?.x ?? (onBypass ? RISERS[1] : WIDTH - 8)
  const end = place.id === 'outlet' ? WIDTH - 8 : right
  const runs: [Spot, Spot][] = [
    [
      { x: left, y },
      { x: end, y },
    ],
  ]
  const riser = (x: number): [Spot, Spot] => [
    { x, y: mainY },
    { x, y: bypassY },
  ]
  if (detector && place.id === 'body-1') {
    runs.push(riser(RISERS[0]), [
      { x: RISERS[0], y: bypassY },
      { x: BYPASS['shutoff-1'] ?? 0, y: bypassY },
    ])
  }
  if (detector && place.id === 'body-2') {
    runs.push(riser(RISERS[1]), [
      { x: BYPASS.meter ?? 0, y: bypassY },
      { x: RISERS[1], y: bypassY },
    ])
  }
  return { ...place, runs, text: { x: (left + end) / 2, y: y - 22 } }
}
