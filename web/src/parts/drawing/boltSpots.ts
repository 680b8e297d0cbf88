import type { FastenerLayout } from '@uvanta/core/guide'

export interface BoltSpot {
  readonly bolt: number
  readonly x: number
  readonly y: number
}

const MIDDLE = 120
const RADIUS = 88
/** Half the length and half the width of the line on which bolts of a rectangle or an oblong stand. */
const HALF_LONG = 88
const HALF_WIDE = 48

/** Where bolts 1 … count stand on a sheet of 240 by 240: evenly along their line, the first at the top. */
export const boltSpots = (count: number, layout: FastenerLayout): BoltSpot[] =>
  Array.from({ length: count }, (_, n) => {
    const part = n / count
    const { x, y } = layout === 'circle' ? onCircle(part) : onOutline(part, layout)
    return { bolt: n + 1, x: MIDDLE + x, y: MIDDLE + y }
  })

function onCircle(part: number) {
  const angle = 2 * Math.PI * part - Math.PI / 2
  return { x: RADIUS * Math.cos(angle), y: RADIUS * Math.sin(angle) }
}

/** Clockwise from the middle of the upper side; an oblong has half circles at its ends. */
function onOutline(part: number, layout: 'rectangle' | 'oblong') {
  const straight = layout === 'oblong' ? HALF_LONG - HALF_WIDE : HALF_LONG
  const end = layout === 'oblong' ? Math.PI * HALF_WIDE : 2 * HALF_WIDE
  const half = 2 * straight + end
  let left = part * 2 * half
  // The second half is the first one turned round.
  const turned = left >= half ? -1 : 1
  if (turned < 0) left -= half
  const at = (x: number, y: number) => ({ x: turned * x, y: turned * y })
  if (left <= straight) return at(left, -HALF_WIDE)
  left -= straight
  if (left <= end) {
    if (layout === 'rectangle') return at(HALF_LONG, left - HALF_WIDE)
    const angle = left / HALF_WIDE - Math.PI / 2
    return at(straight + HALF_WIDE * Math.cos(angle), HALF_WIDE * Math.sin(angle))
  }
  return at(straight - (left - end), HALF_WIDE)
}
