import { describe, expect, it } from 'vitest'
import { isDrawnLine } from './drawnLine'

describe('a signature', () => {
  it.each([
    'M 10 60 L 200 40 L 380 70',
    'M 30 80 C 60 20 80 20 85 70',
    // Two strokes, the second of which runs over the edge.
    'M 100 20 L 120 40 M 110 10 L 100.5 140',
  ])('that is seen: %s', (path) => {
    expect(isDrawnLine(path)).toBe(true)
  })
  it.each([
    ['nothing', ''],
    ['a point', 'M 10 10'],
    ['a command without points', 'M L'],
    ['a speck', 'M 10 10 L 12 11'],
    ['a line of no length', 'M 200 60 L 200 60'],
    ['a line beside the box', 'M 500 10 L 900 10'],
    ['a line under the box', 'M 10 -50 L 10 -10'],
    ['no path at all', 'hello'],
    ['markup', 'M 10 10 L 200 20"/><script>'],
    ['a character of no length', 'M 10 10 L 200\u0000 20'],
  ])('that is not: %s', (_, path) => {
    expect(isDrawnLine(path)).toBe(false)
  })
})
