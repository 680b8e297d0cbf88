import { readdirSync, readFileSync } from 'node:fs'
import { fileURLToPath } from 'node:url'
import Ajv from 'ajv/dist/2020'
import { describe, expect, it } from 'vitest'
import { parse } from 'yaml'
import { mendedBy, renewalAdvice, serves } from '../guide'
import { check } from '../schema'
import { shippedLibrary } from '../testing/library'
import { kitOf, librarySchemas, sheetFaults, sheetsOf, specSheetSchema } from '.'
import { policySchema } from '../catalogue'

const home = fileURLToPath(new URL('../../library/', import.meta.url))
const read = (path: string): unknown => parse(readFileSync(`${home}${path}`, 'utf8'))
const files = (folder: string) =>
  readdirSync(`${home}${folder}`)
    .filter((f) => f.endsWith('.yaml'))
    .map((f) => `${folder}/${f}`)

describe('the published schemas', () => {
  it.each(Object.entries(librarySchemas()))('%s is what the loader goes by', (name, schema) => {
    const published = JSON.parse(readFileSync(`${home}schema/${name}`, 'utf8')) as unknown
    expect(published).toEqual(JSON.parse(JSON.stringify(schema)))
  })
  const ajv = new Ajv({ strict: false, allErrors: true })
  const cases: readonly (readonly [string, readonly string[]])[] = [
    ['guide.json', files('guides')],
    ['sub-guide.json', files('guides/shared')],
    ['spec-sheet.json', files('demo/specsheets')],
    ['procedure.json', files('procedures')],
    ['rule-pack.json', [...files('demo/rulepacks'), ...files('starters/rulepacks')]],
    ['policies.json', ['demo/policies.yaml']],
    ['families.json', ['families.yaml']],
    ['programmes.json', ['demo/programmes.yaml', 'starters/programmes.yaml']],
  ]
  it.each(cases)('%s takes every shipped file', (name, paths) => {
    const valid = ajv.compile(librarySchemas()[name] ?? false)
    expect(paths.length).toBeGreaterThan(0)
    for (const path of paths) {
      expect([path, valid(read(path)), valid.errors]).toEqual([path, true, null])
    }
  })
  it('refuses a step deep in a guide that says what it does not know', () => {
    const valid = ajv.compile(librarySchemas()['guide.json'] ?? false)
    const guide = structuredClone(
      shippedLibrary.guides.find((g) => g.id === 'sleeve-regulator-actuator'),
    )
    const repeat = guide?.steps.find((s) => s.repeat)?.repeat?.[0] as { wobble?: boolean }
    expect(valid(guide)).toBe(true)
    repeat.wobble = true
    expect(valid(guide)).toBe(false)
  })
})

describe('a spec sheet', () => {
  it.each(shippedLibrary.specSheets.map((s) => [s.id, s] as const))(
    '%s fits its guides, every figure with source and date',
    (_, sheet) => {
      expect(check(specSheetSchema, sheet)).toBe(sheet)
      expect(sheetFaults(sheet, shippedLibrary.guides)).toEqual([])
    },
  )
  it('is there for every family that is serviced by a guide', () => {
    const without = shippedLibrary.families.filter(
      (f) =>
        shippedLibrary.guides.some((g) => serves(g, f.id)) &&
        sheetsOf(shippedLibrary, f.id).length === 0,
    )
    expect(without).toEqual([])
  })
  const [sheet] = sheetsOf(shippedLibrary, 'motor-control-valve')
  if (!sheet) throw new Error('no sheet')
  const faults = (change: Partial<typeof sheet>) =>
    sheetFaults({ ...sheet, ...change }, shippedLibrary.guides).map((f) => `${f.path} ${f.message}`)
  const [figure] = sheet.figures
  const [kit] = sheet.kits
  it.each([
    [
      'an unknown slot',
      { figures: [{ ...figure!, slot: 'moon-phase' }] },
      /no guide.*“moon-phase”/,
    ],
    [
      'a torque in psi',
      { figures: [{ ...figure!, unit: 'psi' }] },
      /unit .*is a torque: give one of/,
    ],
    [
      'a rubber that the family is not built with',
      { figures: [{ ...figure!, slot: 'ring-rubber', value: 'epdm', unit: undefined }] },
      /value .*is a rubber: give one of neoprene, nbr, fkm/,
    ],
    [
      'a rating of another quantity',
      {
        ratings: [
          {
            name: 'spring-low' as const,
            value: { dimension: 'length' as const, value: '4', unit: 'mm' },
            source: 'Sheet 1',
            date: '2026-01-01',
          },
        ],
      },
      /“spring-low” is a gauge pressure/,
    ],
    ['a kit for a stranger', { kits: [{ ...kit!, guide: 'spool-valve' }] }, /has no guide/],
    [
      'a kit that is short',
      { kits: [{ ...kit!, items: kit!.items.slice(1) }] },
      /must hold as many/,
    ],
    [
      'an item that no guide uses',
      { kits: [{ ...kit!, items: [...kit!.items, { ...kit!.items[0]!, item: 'kit-moon' }] }] },
      /uses no “kit-moon”/,
    ],
  ])('%s is named', (_, change, words) => {
    expect(faults(change).join('\n')).toMatch(words)
  })
  it('has the kit of one guide', () => {
    expect(kitOf(sheet, 'motor-control-valve')?.number).toBe(kit?.number)
    expect(kitOf(sheet, 'spool-valve')).toBeUndefined()
  })
})

describe('the house’s renewal policies', () => {
  it('are one for every family', () => {
    for (const p of shippedLibrary.policies) check(policySchema, p)
    expect(shippedLibrary.policies.map((p) => p.family).sort()).toEqual(
      shippedLibrary.families.map((f) => f.id).sort(),
    )
  })
  const offered = ['keep', 'clean', 'renew', 'stop'] as const
  it.each([
    ['renew-all', [], 'renew'],
    ['renew-all', ['debris'], 'renew'],
    ['inspect', [], 'keep'],
    ['inspect', ['debris'], 'clean'],
    ['clean-if-fouled', ['debris'], 'clean'],
    ['clean-if-fouled', ['debris', 'cut'], 'renew'],
    ['inspect', ['swollen'], 'renew'],
  ] as const)('%s, seen %o: %s', (policy, defects, verdict) => {
    expect(renewalAdvice(policy, offered, defects).verdict).toBe(verdict)
  })
  it('put right in place what the inspection says it can: a flared hose end is cut off', () => {
    const hose = shippedLibrary.guides
      .find((g) => g.id === 'proportional-injector')
      ?.steps.find((s) => s.inspect === 'hose')
    const seen = (...defects: string[]) =>
      renewalAdvice(
        'inspect',
        hose?.verdicts?.map((v) => v.id) ?? [],
        defects,
        mendedBy(hose ?? {}),
      ).verdict
    expect(seen()).toBe('keep')
    expect(seen('end flared')).toBe('clean')
    expect(seen('end flared', 'cracked')).toBe('renew')
  })
  it('stop the work on damage that nothing renews', () => {
    expect(renewalAdvice('inspect', ['keep', 'stop'], ['nick']).verdict).toBe('stop')
  })
})
