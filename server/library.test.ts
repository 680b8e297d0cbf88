import { cpSync, mkdtempSync, readFileSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { describe, expect, it } from 'vitest'
import { loadLibrary } from './library/load'
import { BadLibraryFile } from './library/yamlFile'

const shipped = join(import.meta.dirname, '..', 'library')

/** A copy of the library with one text replaced, and what loading it says. */
function damaged(file: string, from: string | RegExp, to: string): BadLibraryFile | null {
  const copy = mkdtempSync(join(tmpdir(), 'uvlib-'))
  cpSync(shipped, copy, { recursive: true })
  const path = join(copy, file)
  const before = readFileSync(path, 'utf8')
  const after = before.replace(from, to)
  expect(after).not.toBe(before)
  writeFileSync(path, after)
  try {
    loadLibrary([copy, join(copy, 'demo')])
    return null
  } catch (error) {
    if (error instanceof BadLibraryFile) return error
    throw error
  }
}
const lineOf = (file: string, text: string) =>
  readFileSync(join(shipped, file), 'utf8')
    .split('\n')
    .findIndex((l) => l.includes(text)) + 1

describe('the shipped library', () => {
  it('loads, with every family under a programme that exists', () => {
    const library = loadLibrary([shipped, join(shipped, 'demo')])
    const programmes = new Set(library.programmes.map((p) => p.id))
    expect(library.families.filter((f) => !programmes.has(f.programme))).toEqual([])
    expect(library.families.length).toBeGreaterThanOrEqual(24)
  })
})

describe('a bad file is refused with file, line and reason', () => {
  const procedure = 'procedures/rp-relief-first.yaml'
  const pack = 'demo/rulepacks/larkhaven-relief-first.yaml'
  it('that is no YAML', () => {
    expect(damaged(procedure, 'version: 4', 'version: [3')?.message).toMatch(
      /^procedures\/rp-relief-first\.yaml:\d+ /,
    )
  })
  it('with a field that is not known', () => {
    const fault = damaged(procedure, 'school:', 'scool: x\nschool:')
    expect(fault?.message).toMatch(/scool/)
  })
  it('with a unit of another dimension', () => {
    const fault = damaged(procedure, /unit: psi/, 'unit: N·m')
    expect(fault?.message).toMatch(/a reading needs dimension, unit/)
  })
  it('with a step twice', () => {
    const fault = damaged(procedure, '- id: hoses', '- id: flush')
    expect(fault?.message).toMatch(/“flush” names two steps/)
    expect(fault?.places[0]?.line).toBe(lineOf(procedure, '- id: hoses'))
  })
  it('that judges what no step records', () => {
    const fault = damaged(pack, '- id: check-1', '- id: check-9')
    expect(fault?.places[0]).toMatchObject({ line: lineOf(pack, '- id: check-1') })
    expect(fault?.message).toMatch(/no step of rp-relief-first records it/)
  })
  it('that accepts an answer nobody can give', () => {
    expect(damaged(pack, 'accept: [held]', 'accept: [fine]')?.message).toMatch(
      /“fine” is not an answer.*held, leaked/,
    )
  })
  it.each([
    [
      'families.yaml',
      /programme: backflow-annual/,
      'programme: nonsense',
      /no programme “nonsense”/,
    ],
    [
      'demo/policies.yaml',
      /family: tower-double-check/,
      'family: nonsense',
      /no family “nonsense”/,
    ],
    [
      'demo/policies.yaml',
      /family: tower-double-check/,
      'family: cartridge-check',
      /has a policy already/,
    ],
    [pack, 'licence: backflow-tester', 'licence: no-such-licence', /no licence “no-such-licence”/],
    [
      'demo/specsheets/d-shuttle-valve.yaml',
      /^family: .*/m,
      'family: nonsense',
      /family has no guide/,
    ],
    [
      'guides/spool-valve.yaml',
      /^(family: .*)/m,
      '$1\nalsoFor: [nonsense]',
      /no family “nonsense”/,
    ],
    [
      'machines/dome-regulator.yaml',
      /element: regulator/,
      'element: rubber-duck',
      /no element “rubber-duck”/,
    ],
    [
      'guides/double-check-detector.yaml',
      'lacks: [bypass-cock-4]',
      'lacks: [bypass-cock-9]',
      /“bypass-cock-9”/,
    ],
    ['guides/dome-regulator.yaml', 'licence: gas-regulator', 'licence: none', /no licence “none”/],
    [
      'demo/programmes.yaml',
      /^- id: gas-annual/m,
      '- { id: gas-annual, version: 9, title: X, intervalMonths: 1, maximumMonths: 1, graceDays: 0, firstNoticeDays: 0, secondNoticeDays: 0, repairWithinDays: 1 }\n- id: gas-annual',
      /stands twice/,
    ],
    [
      'demo/earlier/programmes/gas-annual.1.yaml',
      'version: 1',
      'version: 4',
      /asks for the file name/,
    ],
    [
      procedure,
      /read: first-drip/,
      'read: first-drip\n      creep: { value: "1", unit: psi }',
      /creep goes with a plateau/,
    ],
    [
      pack,
      "atLeast: { dimension: differential, value: '2.0', unit: psi }",
      "atLeast: { dimension: differential, value: '2.0', unit: psi }\n        atMost: { dimension: differential, value: '9.0', unit: psi }",
      /one of atLeast and atMost/,
    ],
  ] as const)('%s with %s for %s', (file, from, to, says) => {
    expect(damaged(file, from, to)?.message).toMatch(says)
  })
  it('that names a procedure which is not there', () => {
    expect(damaged(pack, 'procedure: rp-relief-first', 'procedure: rp-sideways')?.message).toMatch(
      /no procedure “rp-sideways”/,
    )
  })
  it('that turns a valve which the assembly does not have', () => {
    const fault = damaged(
      procedure,
      'element: low-control, to: crack',
      'element: low-tap, to: crack',
    )
    expect(fault?.places[0]?.line).toBe(lineOf(procedure, 'element: low-control, to: crack'))
    expect(fault?.message).toMatch(/a RP has no “low-tap”/)
  })
  it('that takes over steps of a procedure which is not there', () => {
    const detector = 'procedures/dcda-across.yaml'
    const fault = damaged(detector, 'include: dc-across', 'include: dc-sideways')
    expect(fault?.places[0]?.line).toBe(lineOf(detector, 'include: dc-across'))
    expect(fault?.message).toMatch(/no procedure “dc-sideways”/)
  })
  it('that takes over steps in a circle', () => {
    const fault = damaged(
      'procedures/dc-across.yaml',
      'steps:',
      'steps:\n  - include: dc-across\n    line: main',
    )
    expect(fault?.message).toMatch(/dc-across\.yaml:\d+ .*circle/)
  })
  it('whose name is not its id', () => {
    expect(damaged(pack, 'id: larkhaven-relief-first', 'id: another')?.message).toMatch(
      /use one name/,
    )
  })

  it('that is a guide which forgets to put a part back', () => {
    const guide = 'guides/rp-relief.yaml'
    const fault = damaged(guide, / {2}- fit: relief-cover\n( {4}.*\n)+/, '')
    expect(fault?.file).toBe(guide)
    expect(fault?.message).toMatch(/Relief cover is left on the tray/)
  })
  it('that is a guide with a part nobody knows', () => {
    const guide = 'guides/rp-relief.yaml'
    const fault = damaged(guide, '- fit: relief-cover', '- fit: releif-cover')
    expect(fault?.places[0]?.line).toBe(lineOf(guide, '- fit: relief-cover'))
    expect(fault?.message).toMatch(/there is no part “releif-cover”/)
  })
  it('that is a sub-guide which goes round in a circle', () => {
    const shared = 'guides/shared/finish.yaml'
    const fault = damaged(
      shared,
      'steps:',
      'steps:\n  - include: finish\n    parameters:\n      what: x',
    )
    expect(fault?.file).toMatch(/^guides\//)
    expect(fault?.message).toMatch(/circle: finish → finish/)
  })
  const sheet = 'demo/specsheets/b-tower-double-check.yaml'
  it('that is a spec sheet with a figure which no guide asks for', () => {
    const fault = damaged(sheet, 'slot: cover-bolt-count', 'slot: moon-phase')
    expect(fault?.places[0]?.line).toBe(lineOf(sheet, 'slot: cover-bolt-count'))
    expect(fault?.message).toMatch(/no guide of the family asks for “moon-phase”/)
  })
  it('that is a spec sheet with a figure of unknown origin', () => {
    expect(damaged(sheet, /\n {4}source: .*page.*/, '')?.message).toMatch(/figures\[0\]\.source/)
  })
})
