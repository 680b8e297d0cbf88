/** The box that a signature is drawn in, as in its SVG path. */
const BOX = { width: 400, height: 120 }
/** Below this, width and height together, it is a speck on paper. */
const LEAST = 30

/**
 * Whether an SVG path is a line that somebody can see on paper: long enough within the box of 400 × 120.
 * What is drawn beyond its edges counts for nothing.
 * @param path absolute commands M, L, C and Q with their points
 */
export function isDrawnLine(path: string): boolean {
  if (!/^M[\d\s.,MLCQZ-]*[LCQ][\d\s.,MLCQZ-]*$/.test(path)) return false
  const figures = (path.match(/-?\d+(\.\d+)?/g) ?? []).map(Number)
  const along = (axis: 0 | 1, most: number) => {
    let [least, greatest] = [most, 0]
    for (let i = axis; i < figures.length; i += 2) {
      const at = Math.min(most, Math.max(0, figures[i] ?? 0))
      least = Math.min(least, at)
      greatest = Math.max(greatest, at)
    }
    return Math.max(0, greatest - least)
  }
  return along(0, BOX.width) + along(1, BOX.height) >= LEAST
}
