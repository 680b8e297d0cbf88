import { expandGuide, type Guide, type PlacedStep } from '@uvanta/core/guide'
import { shippedLibrary } from '@uvanta/core/testing'
import { describe, expect, it } from 'vitest'
import { actionWords } from './actionWords'

const steps = (guide: Guide) => expandGuide(guide, shippedLibrary.subGuides).steps
const spool = shippedLibrary.guides.find((g) => g.id === 'spool-valve') as Guide
const saidBy = (is: (s: PlacedStep) => boolean) => {
  const step = steps(spool).find(is)
  if (!step) throw new Error('the guide has no such step')
  return actionWords(step, spool)
}

describe('what the press on a step states', () => {
  it('is what is then true of the thing at hand', () => {
    expect(saidBy((s) => s.remove === 'spool')).toBe('Spool – off')
    expect(saidBy((s) => s.loosen === 'mounting-screws')).toBe('Mounting screws – loose')
    expect(saidBy((s) => s.isolate !== undefined)).toBe('It is shut')
    expect(saidBy((s) => s.renew === 'port-seals')).toBe('New: port seals – in place')
  })
  it.each(shippedLibrary.guides.map((g) => [g.id, g] as const))(
    'names what it is about and fits a button in %s',
    (_, guide) => {
      const said = steps(guide)
        .filter((s) => !s.verify)
        .map((s) => [s, actionWords(s, guide)] as const)
      const nameless = said.filter(([, words]) => words.startsWith('It – ') || words.includes('{'))
      const long = said.filter(([s, words]) => words.length > 64 && s.verb !== 'repeat')
      expect(nameless.map(([s]) => s.id)).toEqual([])
      expect(long.map(([, words]) => words)).toEqual([])
    },
  )
})
