import { Job } from '@uvanta/core/testing'
import { mount } from '@vue/test-utils'
import { describe, expect, it } from 'vitest'
import { handsOn } from '@/testing/hands'
import { OneVisitServer, openOnScreen } from '@/testing/visitOnScreen'
import AdjustPanel from './AdjustPanel.vue'

const psi = (value: string) => ({ dimension: 'gaugePressure' as const, value, unit: 'psi' })
function returned() {
  const job = new Job({
    family: 'spring-regulator',
    kind: 'spring regulator',
    packId: 'larkhaven-gas-at-lock-up',
    service: 'gas',
    nominals: [{ name: 'set-point', value: psi('10') }],
  })
    .done('prepare')
    .must('identity', { outcome: 'confirmed' })
    .done('arrive')
    .startTest('as-found')
  job.must('reading', { run: 'as-found', item: 'set', ...psi('9'), source: 'typed' })
  job.must('as-found-impossible', { reason: 'Gas off before the run was through' })
  job.done('as-found').done('make-safe').done('open-up')
  return job.must('repair', { text: 'Cleaned', parts: [] }).done('rebuild')
}
async function panel(item?: string) {
  const { store, pinia } = await openOnScreen(new OneVisitServer(returned()))
  const screen = mount(AdjustPanel, {
    props: item ? { item } : {},
    global: { plugins: [pinia] },
  })
  return { screen, store, ...handsOn(screen) }
}

describe('setting a regulator', () => {
  it('says which way, records what was turned, and adds it up', async () => {
    const { screen, store } = await panel('set')
    expect(screen.text()).toContain('Turn in by ¼')
    const turn = (words: string) =>
      screen
        .findAll('button')
        .find((b) => b.text() === words)
        ?.trigger('click')
    await turn('Turned in')
    await turn('Turned in')
    await turn('Turned out')
    expect(store.state.adjusted.map((a) => [a.adjuster, a.way, a.turns])).toEqual([
      ['regulator', 'in', '0.25'],
      ['regulator', 'in', '0.25'],
      ['regulator', 'out', '0.25'],
    ])
    expect(screen.text()).toContain('0.25 turns in so far')
  })
  it('shows the adjuster of the item alone, and all of them without one', async () => {
    expect((await panel('set')).screen.findAll('.screw')).toHaveLength(1)
    expect((await panel()).screen.findAll('.screw')).toHaveLength(2)
    expect((await panel('inlet')).screen.findAll('.screw')).toHaveLength(0)
  })
})
