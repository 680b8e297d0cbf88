import { shippedLibrary } from '@uvanta/core/testing'
import { mount } from '@vue/test-utils'
import { describe, expect, it } from 'vitest'
import MachineParts from './MachineParts.vue'

const machine = shippedLibrary.machines.find((m) => m.id === 'spool-valve')
if (!machine) throw new Error('no machine')
const open = (options = ['dry-air']) => mount(MachineParts, { props: { machine, options } })
const numberOf = (screen: ReturnType<typeof open>, title: string) =>
  screen
    .findAll('.parts > li')
    .find((li) => li.text().includes(title))
    ?.attributes('value')

describe('a machine with its parts', () => {
  it('has every part under the same number in the drawing and in the list', () => {
    const screen = open()
    const drawn = screen.findAll('.scroll-x g.number text').map((t) => t.text())
    const listed = screen.findAll('.parts > li').map((li) => li.attributes('value'))
    expect(drawn.sort()).toEqual(listed.sort())
    expect(numberOf(screen, 'Snap ring')).toBe('4')
  })
  it('lights a part that is pressed, in the list or in the drawing, and says what can be wrong with it', async () => {
    const screen = open()
    const at = machine.parts.findIndex((p) => p.id === 'spool')
    await screen.findAll('.parts > li button')[at]?.trigger('click')
    expect(screen.findAll('g.part.lit')).toHaveLength(1)
    expect(screen.text()).toContain('land scored: renew the assembly, spool and sleeve as one')
    await screen.find('g.number.lit').trigger('click')
    expect(screen.findAll('g.part.lit')).toHaveLength(0)
  })
  it('is drawn apart on wish, with all its parts', async () => {
    const screen = open()
    const before = screen.find('.scroll-x svg.machine').attributes('viewBox')
    await screen.findAll('.views button')[1]?.trigger('click')
    expect(screen.find('.scroll-x svg.machine').attributes('viewBox')).not.toBe(before)
    expect(screen.findAll('.scroll-x g.part')).toHaveLength(machine.parts.length)
    expect(screen.find('.scroll-x svg.machine').attributes('aria-label')).toContain('pulled apart')
  })
  it('of another build has the parts of that build, under the numbers they always have', () => {
    const plain = open(['plain'])
    expect(plain.text()).not.toContain('Slide rings')
    expect(numberOf(plain, 'Sleeve O-rings')).toBe(numberOf(open(), 'Sleeve O-rings'))
  })
})
