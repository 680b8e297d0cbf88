import { drift } from '@uvanta/core/drift'
import { CannotCompute } from '@uvanta/core/errors'
import { fromSi, roundTo } from '@uvanta/core/quantity'
import { judgeStroke, type StrokePoint } from '@uvanta/core/stroke'
import { type Figure, type FigureBench, type Given, must } from './figureBench'

const percent = (name: string, label: string, value: string): Figure => ({
  name,
  label,
  dimension: 'fraction',
  unit: '%',
  value,
})
const SIGNALS = [0, 50, 100] as const
const asPercent = (given: Given, name: string) => fromSi('fraction', must(given, name), '%')
const words = (value: number | null) => (value === null ? '–' : `${roundTo(value, 1)} %`)

export const strokeBench: FigureBench = {
  computation: 'judge-stroke-test',
  title: 'Stroke of a valve',
  draws: 'control valve',
  figures: [
    percent('up0', 'Travel at 0 %, up', '0.2'),
    percent('up50', 'Travel at 50 %, up', '50.6'),
    percent('up100', 'Travel at 100 %, up', '100.1'),
    percent('down50', 'Travel at 50 %, down', '51.4'),
    percent('down0', 'Travel at 0 %, down', '0.3'),
    percent('tolerance', 'Tolerance, ±', '1'),
  ],
  work(given) {
    const way = (w: StrokePoint['way'], signals: readonly number[]) =>
      signals.map((signal) => ({ way: w, signal, travel: asPercent(given, `${w}${signal}`) }))
    const found = judgeStroke({
      action: 'direct',
      tolerance: asPercent(given, 'tolerance'),
      points: [...way('up', SIGNALS), ...way('down', [50, 0])],
    })
    return {
      answer: `Worst error ${roundTo(found.worstError, 1)} %`,
      says: [
        `Zero ${words(found.zeroError)}, span ${words(found.spanError)}, hysteresis ${words(found.hysteresis)}, linearity ${words(found.linearity)}.`,
        found.says,
      ],
    }
  },
}

/** Tests a year apart; the years themselves do not matter. */
const year = (n: number) => `${2001 + n}-06-01`
const TESTS = ['first', 'second', 'third', 'last'] as const

export const driftBench: FigureBench = {
  computation: 'drift',
  title: 'Drift, tested every year',
  draws: 'spring regulator',
  wide: true,
  figures: [
    { name: 'first', label: 'Found three years ago', value: '60.4' },
    { name: 'second', label: 'Two years ago', value: '59.7', optional: true },
    { name: 'third', label: 'A year ago', value: '58.9', optional: true },
    { name: 'last', label: 'Found now', value: '58.2' },
    { name: 'low', label: 'At least', value: '57', optional: true },
    { name: 'high', label: 'At most', value: '63', optional: true },
  ],
  work(given) {
    const { low, high } = given
    const tests = TESTS.flatMap((name, n) => {
      const asFound = given[name]
      return asFound === undefined ? [] : [{ date: year(n), asFound }]
    })
    const found = drift(tests, year(TESTS.length), { low, high })
    if (!found)
      throw new CannotCompute('drift-too-little', 'There are too few tests.', 'Enter two or more.')
    const { perYear, within, expected, chanceOut } = found
    return {
      answer: `${perYear > 0 ? '+' : ''}${roundTo(perYear, 2)} a year`,
      says: [
        `Next year it is expected at ${roundTo(expected, 2)}.`,
        within === undefined
          ? 'From two tests nobody can say how sure that is.'
          : `The drift is known to ± ${roundTo(within, 2)} a year.`,
        ...(chanceOut === undefined
          ? []
          : [`Out of its limits by then: ${roundTo(chanceOut * 100, 0)} of 100.`]),
      ],
    }
  },
}
