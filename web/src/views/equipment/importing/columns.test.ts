import { describe, expect, it } from 'vitest'
import { cellsOf, matchedColumns, orderOf } from './columns'

describe('the columns of a table', () => {
  it('are known by their titles and by what they are called elsewhere, each once', () => {
    const headings = ['Asset ID', 'TYPE', 'Size', 'Colour', 'Serial No.', 'Serial', 'Next due']
    expect(matchedColumns(headings)).toEqual({ tag: 0, kind: 1, sizeIn: 2, serial: 5, dueOn: 6 })
  })
  it.each(['Set point, psi', 'Set point (psi)', 'SET PRESSURE [psi]'])(
    'give their unit to a figure that has none: %s',
    (heading) => {
      const headings = ['Tag', heading]
      const columns = matchedColumns(headings)
      const said = (figure: string) =>
        cellsOf({ line: 2, cells: ['SR-1', figure] }, columns, headings)
      expect(said('60')).toEqual({ tag: 'SR-1', 'set-point': '60 psi' })
      // What the cell says itself goes before.
      expect(said('4 bar')).toEqual({ tag: 'SR-1', 'set-point': '4 bar' })
      expect(said('')).toEqual({ tag: 'SR-1' })
    },
  )
  it('leave the size and words as they stand', () => {
    const headings = ['Tag', 'Size, in', 'Position (room)']
    expect(
      cellsOf({ line: 2, cells: ['7', '2', 'B 1'] }, matchedColumns(headings), headings),
    ).toEqual({ tag: '7', sizeIn: '2', position: 'B 1' })
  })
})

it.each([
  [['1.2.2027', '24.11.2027'], 'day-first'],
  [['1/2/2027', '11/24/2027'], 'month-first'],
  // Neither of them gives it away.
  [['1/2/2027', '3/4/2027'], 'year-first'],
  [['2027-02-13', ''], 'year-first'],
])('the dates %j are written %s', (dates, order) => expect(orderOf(dates)).toBe(order))
