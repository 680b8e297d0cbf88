import { describe, expect, it } from 'vitest'
import { shippedLibrary } from '../testing'
import { wantedWords } from './wanted'

const names = {
  value: (id: string) => `the ${id}`,
  answer: (_: string, option: string) => `“${option}”`,
}
const items = shippedLibrary.rulePacks.flatMap((p) =>
  p.tests.flatMap((t) => t.items.map((i) => [`${p.id} ${t.kind} ${i.id}`, i] as const)),
)
const of = (where: string) => {
  const item = items.find(([name]) => name === where)?.[1]
  if (!item) throw new Error(`no item ${where}`)
  return wantedWords(item, names)
}

describe('what an item wants, in words', () => {
  it('is its limit with its unit', () => {
    expect(of('larkhaven-relief-first RP relief-opening')).toBe('at least 2.0 psid')
    expect(of('larkhaven-relief-first RP check-2')).toBe('“held”')
    expect(of('larkhaven-relief-first RP buffer')).toBe(
      'the check-1 less the relief-opening: at least 3.0 psid',
    )
  })
  it.each(items)('%s names every figure that it is judged by', (_, item) => {
    const words = wantedWords(item, names)
    expect(words).not.toMatch(/undefined|NaN|\[object|: $/)
    const figures = JSON.stringify(item, (key, value) =>
      [
        'id',
        'title',
        'reason',
        'says',
        'after',
        'invalidates',
        'points',
        'regulator',
        'relief',
        'specificGravity',
        'gamma',
        'fullAbove',
      ].includes(key)
        ? undefined
        : value,
    ).match(/"(?:value|percent|below|above)":"?(-?[\d.]+)/g)
    for (const figure of figures ?? []) expect(words).toContain(figure.replace(/^.*:"?/, ''))
  })
})
