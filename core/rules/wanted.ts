import { type AnyQuantity, formatQuantity } from '../quantity'
import type { PackItem } from './basis'

/** How a reading, a nominal value or an answer is called where the words are read. */
export interface WantedNames {
  readonly value: (id: string) => string
  readonly answer: (item: string, option: string) => string
}

const said = (q: unknown) => formatQuantity(q as AnyQuantity)
const end = ({ atLeast, atMost }: { atLeast?: unknown; atMost?: unknown }) =>
  atLeast ? `at least ${said(atLeast)}` : `at most ${said(atMost)}`

interface Tiered {
  readonly tiers: readonly {
    readonly from: unknown
    readonly percent?: number | undefined
    readonly add?: unknown
  }[]
  readonly of: string
}
const tiers = (item: Tiered, value: WantedNames['value']) =>
  item.tiers
    .map(({ from, percent, add }) => {
      const over = [percent === undefined ? '' : `${percent} %`, add ? said(add) : '']
      return `from ${said(from)}: ${value(item.of)} and ${over.filter(Boolean).join(' or ')}`
    })
    .join('; ')

/** What an item of a rule pack wants, in words; what it refers to is called by its name. */
export function wantedWords(item: PackItem, { value, answer }: WantedNames): string {
  switch (item.basis) {
    case 'answer':
      return item.accept.map((a) => answer(item.id, a)).join(', or ')
    case 'limit':
      return end(item)
    case 'band':
      return `from ${said(item.from)} to ${said(item.to)}`
    case 'difference':
      return `${value(item.minuend)} less ${value(item.subtrahend)}: ${end(item)}`
    case 'percent': {
      const { below, above, belowClass, aboveClass, of } = item
      const by = (n: number | undefined, cls: string | undefined) =>
        [n === undefined ? '' : `${n} %`, cls ? value(cls) : ''].filter(Boolean).join(', or by ')
      const under = by(below, belowClass)
      const over = by(above, aboveClass)
      return `${value(of)}${under ? `, down to ${under} under` : ''}${over ? `, up to ${over} over` : ''}`
    }
    case 'rate':
      return item.atMost
        ? `at most ${said(item.atMost)} a minute`
        : `at most ${item.percent} % of ${value(item.of ?? '')} a minute`
    case 'creep':
      return `at most ${item.percent} % of ${value(item.of)} over ${said({ dimension: 'time', ...item.over })}`
    case 'curve':
      return `within ${said(item.atMost)} of ${item.points.map((p) => p.ideal).join(', ')}`
    case 'spread':
      return `no further apart than ${said(item.atMost)}`
    case 'swing':
      return `${value(item.reading)} swings by at most ${item.percent} % of ${value(item.of)}`
    case 'order':
      return `${item.ascending.map(value).join(' < ')}, at least ${said(item.apart)} apart`
    case 'tiers':
      return `${value(item.reading)} at most, ${tiers(item, value)}`
    case 'capacity':
      return `the relief passes what the regulator lets through, ${tiers(item, value)}`
  }
}
