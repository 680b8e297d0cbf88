import type { Guide } from '@uvanta/core/guide'
import { Job, shippedLibrary } from '@uvanta/core/testing'
import { flushPromises, mount } from '@vue/test-utils'
import { describe, expect, it } from 'vitest'
import { settled } from '@/testing/hands'
import { OneVisitServer, openOnScreen } from '@/testing/visitOnScreen'
import KitCount from './KitCount.vue'
import ReadyList from './ReadyList.vue'

const guide = (id: string) => shippedLibrary.guides.find((g) => g.id === id) as Guide
const chosen = (
  family: string,
  kind: string,
  id: string,
  variant: string,
  jobs: readonly string[] = [],
) => new Job({ family, kind }).choose(guide(id), variant, true, jobs)

async function ready(job: Job, licences?: OneVisitServer['licences']) {
  const server = new OneVisitServer(job)
  if (licences) server.licences = licences
  const { store, pinia } = await openOnScreen(server)
  const list = mount(ReadyList, { props: { writable: true }, global: { plugins: [pinia] } })
  await flushPromises()
  const press = async (label: string) => {
    await list.find(`[aria-label="${label}"]`).trigger('click')
    await flushPromises()
  }
  return { list, store, press }
}

describe('getting ready', () => {
  const gas = () => chosen('spring-regulator', 'spring regulator', 'spring-regulator', 'gas')
  it('a gas job wants its licence, its detector and its clothing', async () => {
    const { list } = await ready(gas())
    expect(list.text()).toContain('gas-regulator-1, valid to 1 Jan 2030')
    expect(list.text()).toContain('Gas detector')
  })
  it('a water job by the same guide wants neither', async () => {
    const water = chosen(
      'water-pressure-reducer',
      'water pressure reducer',
      'spring-regulator',
      'water',
    )
    const { list } = await ready(water)
    expect(list.text()).not.toMatch(/Gas detector|Flame|gas-regulator/)
    expect(list.text()).toContain('Eye protection')
  })
  it('says when the licence is not there', async () => {
    const { list } = await ready(gas(), [])
    expect(list.text()).toContain('you hold none: hand the visit over')
  })
  it('a tool without substitute says so; one that has another way takes it', async () => {
    const sleeve = chosen(
      'sleeve-pilot-regulator',
      'pilot regulator',
      'sleeve-regulator-actuator',
      'spring-to-close',
    )
    const { list, store, press } = await ready(sleeve)
    expect(list.text()).toContain('no substitute')
    await press('Slings and hoist: A second person instead')
    expect(store.state.prepared['Slings and hoist']?.state).toBe('substitute')
    await press('Torque wrenches in the range of all groups: missing')
    expect(store.state.prepared['Torque wrenches in the range of all groups']?.state).toBe(
      'missing',
    )
  })
  it('asks now for the figures that no sheet has', async () => {
    const dome = chosen('dome-regulator', 'dome regulator', 'dome-regulator', 'gas', ['diaphragm'])
    const { list, store } = await ready(dome)
    const ask = list.find('form.ask')
    expect(ask.text()).toContain('Torque of the upper case')
    const [value, from] = ask.findAll('input')
    await value?.setValue('40')
    await ask.trigger('submit')
    await settled()
    expect(store.state.guideValues).toEqual([])
    await from?.setValue('Maker’s sheet DR-1156, page 7, 2025')
    await ask.trigger('submit')
    await settled()
    expect(store.state.guideValues.at(-1)).toMatchObject({
      slot: 'case-torque',
      value: '40',
      source: 'Maker’s sheet DR-1156, page 7, 2025',
    })
  })
})

describe('the kit', () => {
  async function counting() {
    const job = chosen('cartridge-check', 'DC', 'cartridge-check', 'dc')
    const { store, pinia } = await openOnScreen(new OneVisitServer(job))
    const kit = mount(KitCount, { props: { writable: true }, global: { plugins: [pinia] } })
    await flushPromises()
    const count = async (number: string, counts: (wanted: number) => number) => {
      await kit.find('input').setValue(number)
      for (const line of kit.findAll('.lines li')) {
        const wanted = Number(line.find('span.soft').text().replace('of ', ''))
        await line.find('input').setValue(counts(wanted))
      }
      await kit.find('form').trigger('submit')
      await flushPromises()
    }
    return { kit, store, count }
  }
  it('is counted item by item, spares that are there on purpose with it', async () => {
    const { kit, store, count } = await counting()
    const inner = kit.findAll('.lines li').find((l) => l.text().includes('Cartridge O-ring'))
    expect(inner?.text()).toContain('of 3')
    await count('K-DCC-041', (wanted) => wanted)
    expect(store.state.kit?.items.find((i) => i.item === 'kit-oring')?.count).toBe(3)
  })
  it('that is not counted through is not taken', async () => {
    const { kit, store } = await counting()
    await kit.find('input').setValue('K-DCC-041')
    await kit.find('form').trigger('submit')
    await flushPromises()
    expect(kit.text()).toContain('Not every item is counted')
    expect(store.state.kit).toBeUndefined()
  })
  it('that is short needs a reason why work goes on', async () => {
    const { kit, store, count } = await counting()
    await count('K-DCC-041', (wanted) => wanted - 1)
    expect(kit.text()).toContain('Not as its list says')
    expect(store.state.kit).toBeUndefined()
    await kit.find('.reason input').setValue('The rest comes with the second van')
    await kit.find('form').trigger('submit')
    await flushPromises()
    expect(store.state.kit?.departure).toBe('The rest comes with the second van')
  })
})
