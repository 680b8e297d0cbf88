import { type AssemblyKind, kindTraits, kitValves, layoutOf } from '@uvanta/core/apparatus/backflow'
import type { Element, Place } from '@uvanta/core/apparatus'

/** Where things stand on the sheet, in units of the drawing; flow runs left to right. */
export interface Spot {
  readonly x: number
  readonly y: number
}

export interface DrawnElement extends Element, Spot {}

/** A stretch of pipe that belongs to one place. */
export interface DrawnPlace extends Place {
  /** What is filled. */
  readonly water: readonly { x: number; y: number; width: number; height: number }[]
  /** Path of the walls. */
  readonly walls: string
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
/** What is turned stands 48 apart at least: on a phone a unit is a pixel, and a glove is not less. */
const BYPASS: Readonly<Record<string, number>> = {
  'cock-1': 196,
  'shutoff-1': 246,
  'cock-2': 296,
  'check-1': 344,
  'cock-3': 390,
  relief: 424,
  'check-2': 464,
  'cock-4': 512,
  'shutoff-2': 560,
  meter: 606,
}
/** The bypass leaves the main before check 1 and comes back after check 2. */
const RISERS = [182, 632] as const

/** The sheet of a kind of assembly, with or without the test kit under it. */
export function geometryOf(kind: AssemblyKind, withKit: boolean): Geometry {
  const detector = kindTraits[kind].detector
  const breaker = kindTraits[kind].breaker
  const mainY = detector ? 176 : breaker ? 92 : 56
  const bypassY = 46
  const along = breaker ? VACUUM_BREAKER : TWO_CHECKS
  const layout = layoutOf(kind)
  const elements = layout.elements.map((e): DrawnElement => {
    const onBypass = e.line === 'bypass'
    const x = (onBypass ? BYPASS : along)[e.name] ?? 0
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

/** Half the width of the main line, and of the bypass. */
const MAIN_HALF = 14
const BYPASS_HALF = 8

function drawnPlace(
  place: Place,
  elements: readonly DrawnElement[],
  mainY: number,
  bypassY: number,
  detector: boolean,
): DrawnPlace {
  const onBypass = place.line === 'bypass'
  const y = onBypass ? bypassY : mainY
  const half = onBypass ? BYPASS_HALF : MAIN_HALF
  const passes = elements.filter((e) => e.line === place.line && e.to)
  const left = passes.find((e) => e.to === place.id)?.x ?? 8
  const right = passes.find((e) => e.at === place.id)?.x ?? WIDTH - 8
  const main = { x: left, y: y - half, width: right - left, height: 2 * half }
  const walls = `M${left} ${y - half}H${right}M${left} ${y + half}H${right}`
  const text = { x: (left + right) / 2, y: y - half - 8 }
  const riser = riserOf(place.id, detector, mainY, bypassY)
  return {
    ...place,
    water: riser ? [main, ...riser.water] : [main],
    walls: riser ? `${walls}${riser.walls}` : walls,
    text: riser ? { ...text, x: text.x + (place.id === 'body-1' ? 24 : -16) } : text,
  }
}

/** The bypass leaves the body before check 1 upwards, and comes down into the body after check 2. */
function riserOf(place: string, detector: boolean, mainY: number, bypassY: number) {
  if (!detector || (place !== 'body-1' && place !== 'body-2')) return null
  const up = place === 'body-1'
  const x = up ? RISERS[0] : RISERS[1]
  const end = (up ? BYPASS['shutoff-1'] : BYPASS.meter) ?? x
  const h = BYPASS_HALF
  const foot = mainY - MAIN_HALF
  const outer = up ? x - h : x + h
  const inner = up ? x + h : x - h
  return {
    water: [
      { x: x - h, y: bypassY - h, width: 2 * h, height: foot - bypassY + h },
      { x: Math.min(inner, end), y: bypassY - h, width: Math.abs(end - inner), height: 2 * h },
    ],
    walls: `M${outer} ${foot}V${bypassY - h}H${end}M${inner} ${foot}V${bypassY + h}H${end}`,
  }
}
