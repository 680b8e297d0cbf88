import { mount } from '@vue/test-utils'
import { createPinia } from 'pinia'
import { describe, expect, it } from 'vitest'
import FigureBench from './FigureBench.vue'
import type { FigureBench as Bench } from './figureBench'
import { shippedLibrary } from '@uvanta/core/testing'
import { gasBench, limitBench, reliefBench, waterBench } from './flows'
import { benchSetBench, decayBench, seatBench } from './leaks'
import { driftBench, strokeBench } from './tests'

const overPressure = limitBench(shippedLibrary.rulePacks)
const all: readonly Bench[] = [
  gasBench,
  waterBench,
  reliefBench,
  overPressure,
  benchSetBench,
  seatBench,
  decayBench,
  strokeBench,
  driftBench,
]
const open = (bench: Bench) =>
  mount(FigureBench, { props: { bench }, global: { plugins: [createPinia()] } })
const field = (screen: ReturnType<typeof open>, label: string) => {
  const id = screen
    .findAll('label')
    .find((l) => l.text() === label)
    ?.attributes('for')
  return screen.find(`#${id}`)
}

describe.each(all)('the bench “$title”', (bench) => {
  it('answers as it opens', () => {
    const screen = open(bench)
    expect(screen.find('.answer').text()).toMatch(/\d/)
    expect(screen.text()).not.toContain('NaN')
  })
  it('says which figure is missing, and goes on when it is there again', async () => {
    const screen = open(bench)
    const first = bench.figures.find((f) => !f.optional)
    await field(screen, first?.label ?? '').setValue('')
    expect(screen.find('[role=alert]').text()).toContain(`${first?.label} is missing`)
    await field(screen, first?.label ?? '').setValue(first?.value)
    expect(screen.find('.answer').exists()).toBe(true)
  })
})

it('water through a valve: 30 Cv at 50 psi is 212 gpm', async () => {
  // q = Cv·√Δp = 30·√50.
  expect(open(waterBench).find('.answer').text()).toContain('212.1 gpm')
})
it('an outlet above its inlet is said in a sentence', async () => {
  const screen = open(gasBench)
  await field(screen, 'Outlet').setValue('120')
  expect(screen.find('[role=alert]').text()).toMatch(/above the inlet/)
})
it('bench set: half the gap between rising and falling is friction', () => {
  // (6.4 − 4.6) ÷ 2 psi, and (6.4 + 4.6) ÷ 2 to (30.5 + 28.7) ÷ 2.
  const screen = open(benchSetBench)
  expect(screen.text()).toContain('5.5 psi to 29.6 psi')
  expect(screen.text()).toContain('Friction 0.9 psi')
})
it('a relief that is too small is said so', async () => {
  const screen = open(reliefBench)
  await field(screen, 'Relief, Cv').setValue('1')
  expect(screen.text()).toContain('does not hold the system under its limit')
})
it('an over-pressure limit follows the tiers of each pack', async () => {
  // 49 CFR 192.201 (a) (2): from 60 psi on 110 %, from 12 psi to under 60 psi 6 psi more, under it half more.
  const screen = open(overPressure)
  const at = async (maop: string) => {
    await field(screen, 'Maximum allowable operating pressure').setValue(maop)
    return screen.text()
  }
  expect(await at('100')).toContain('110.0 psi')
  expect(await at('40')).toContain('46.0 psi')
  expect(await at('8')).toContain('12.0 psi')
})

it('a stroke: the gap between up and down is hysteresis', async () => {
  const screen = open(strokeBench)
  // 51.4 − 50.6 %, and the worst error is 51.4 − 50 %.
  expect(screen.find('.answer').text()).toBe('Worst error 1.4 %')
  expect(screen.text()).toContain('hysteresis 0.8 %')
})
it('a drift: what it loses a year, and where it will be', async () => {
  const screen = open(driftBench)
  for (const [label, value] of [
    ['Found three years ago', '60'],
    ['Two years ago', '59'],
    ['A year ago', '58'],
    ['Found now', '57'],
  ] as const)
    await field(screen, label).setValue(value)
  expect(screen.find('.answer').text()).toBe('-1.00 a year')
  expect(screen.text()).toContain('expected at 56.00')
})
