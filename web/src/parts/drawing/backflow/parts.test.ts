import { facings, type Guide, type PartShape as Shape, partShapes } from '@uvanta/core/guide'
import { siteOf, spaceStates } from '@uvanta/core/pressure'
import { mount } from '@vue/test-utils'
import { describe, expect, it } from 'vitest'
import BoltCircle from '../BoltCircle.vue'
import PartShape from '../PartShape.vue'
import ZoneDrawing from '../ZoneDrawing.vue'

describe('a part on the tray', () => {
  it.each(partShapes)('is drawn as a %s, each shape with a line of its own', (shape) => {
    const lines = (s: Shape) =>
      mount(PartShape, { props: { shape: s, title: 'Part' } })
        .find('.heavy')
        .attributes('d')
    expect(lines(shape)).toMatch(/^M/)
    expect(partShapes.filter((other) => lines(other) === lines(shape))).toEqual([shape])
  })
  it.each(facings)('on an orientation card points %s, in words too', (facing) => {
    const card = mount(PartShape, { props: { shape: 'check', title: 'Check 1', facing } })
    expect(card.find('.arrow').exists()).toBe(true)
    expect(card.attributes('aria-label')).toBe(`Check 1, ${facing}`)
  })
})

describe('a bolt circle', () => {
  const circle = mount(BoltCircle, {
    props: { count: 6, next: 4, done: [1], caption: '30 %' },
  })
  it('has every bolt once, the next one lit and those done sunk', () => {
    expect(circle.findAll('g').map((g) => g.text())).toEqual(['1', '2', '3', '4', '5', '6'])
    expect(circle.findAll('g.next').map((g) => g.text())).toEqual(['4'])
    expect(circle.findAll('g.done').map((g) => g.text())).toEqual(['1'])
  })
  it('says so to those who do not see it', () => {
    expect(circle.attributes('aria-label')).toBe('Bolt circle, next bolt 4')
  })
})

describe('equipment without a drawing of its own', () => {
  const zone = {
    id: 'gas',
    title: 'the regulator',
    shutBy: ['outlet-valve', 'inlet-valve'],
    ventedBy: ['outlet-vent', 'inlet-vent'],
  }
  const site = siteOf({ zones: [zone] } as unknown as Guide, 'pilot regulator')
  if (!site) throw new Error('no site')
  const drawing = (openings: Record<string, 'shut' | 'open'>, pressable = true) =>
    mount(ZoneDrawing, {
      props: {
        site,
        tag: 'SPR-101',
        openings,
        states: spaceStates(site, openings),
        wanted: [],
        pressable,
      },
    })
  it('shows its space as it stands', () => {
    expect(drawing({}).find('.state').text()).toBe('live')
    expect(drawing({ 'outlet-valve': 'shut', 'inlet-valve': 'shut' }).find('.state').text()).toBe(
      'trapped',
    )
  })
  it('turns what is pressed, by finger or by key', async () => {
    const drawn = drawing({})
    const inlet = drawn.find('[aria-label^="Inlet valve"]')
    await inlet.trigger('click')
    await inlet.trigger('keydown', { key: 'Enter' })
    expect(drawn.emitted('turn')).toEqual([['inlet-valve'], ['inlet-valve']])
  })
  it('turns nothing for somebody who only looks', () => {
    expect(drawing({}, false).findAll('[role="button"]')).toHaveLength(0)
  })
})
