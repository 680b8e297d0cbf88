import type { Job } from '@uvanta/core/testing'
import type { VisitEvent } from '@uvanta/core/visit'
import { flushPromises, mount } from '@vue/test-utils'
import { describe, expect, it } from 'vitest'
import { handsOn } from '@/testing/hands'
import { testedDoubleCheck } from '@/testing/testedDoubleCheck'
import { OneVisitServer, openOnScreen, PASSWORD } from '@/testing/visitOnScreen'
import CorrectDialog from './CorrectDialog.vue'

const signed = () =>
  testedDoubleCheck('1.6')
    .done('as-found', 'return')
    .done('return')
    .must('signed', { signature: 'M 10 10 L 200 90', name: 'P', outcome: 'pass' })

async function dialog(
  job: Job,
  which: (e: VisitEvent) => boolean,
  person?: { id: string; name: string },
) {
  const server = new OneVisitServer(job)
  if (person) server.person = person
  const { store, pinia } = await openOnScreen(server)
  const screen = mount(CorrectDialog, {
    props: { event: store.events.findLast(which) ?? null, modelValue: false },
    global: {
      plugins: [pinia],
      stubs: { BModal: { template: '<div><slot /></div>' } },
    },
  })
  await screen.setProps({ modelValue: true })
  await flushPromises()
  const closed = () => screen.emitted('update:modelValue')?.at(-1)?.[0] === false
  return { screen, store, server, closed, ...handsOn(screen) }
}
const lastReading = (e: VisitEvent) => e.kind === 'reading'

describe('correcting an entry', () => {
  it('says beforehand how the verdict comes out', async () => {
    const { screen, fill } = await dialog(testedDoubleCheck(), lastReading)
    expect(screen.find('.effect').exists()).toBe(false)
    await fill('It should say', '1.6')
    expect(screen.find('.effect').text()).toMatch(/As-found: Fail\s*→\s*Pass/)
  })
  it('needs its reason', async () => {
    const { screen, store, fill, submit, closed } = await dialog(testedDoubleCheck(), lastReading)
    await fill('It should say', '1.6')
    await submit('form')
    expect(screen.text()).toContain('Why is missing: the reason stays on the record.')
    expect(store.events.some((e) => e.kind === 'correction')).toBe(false)
    expect(closed()).toBe(false)
  })
  it('keeps the entry that it corrects, and what stands is judged', async () => {
    const { store, fill, submit, closed } = await dialog(testedDoubleCheck(), lastReading)
    await fill('It should say', '1.6')
    await fill('Why', 'Two digits exchanged')
    await submit('form')
    expect(closed()).toBe(true)
    expect(store.events.filter((e) => e.kind === 'reading')).toHaveLength(2)
    expect(store.verdict('as-found')?.outcome).toBe('pass')
  })
  it('withdraws an entry, whose item is then missing', async () => {
    const { screen, store, fill, submit } = await dialog(testedDoubleCheck(), lastReading)
    await fill('Withdraw it', true)
    expect(screen.find('.effect').text()).toContain('Not assessed')
    await fill('Why', 'Taken at the wrong check')
    await submit('form')
    expect(store.verdict('as-found')?.items.find((i) => i.id === 'check-2')?.outcome).toBe(
      'not-assessed',
    )
  })
  it('shows what the guard says of a value that is none', async () => {
    const { screen, store, fill, submit } = await dialog(testedDoubleCheck(), lastReading)
    await fill('It should say', '1,6 or so')
    await fill('Why', 'Two digits exchanged')
    await submit('form')
    expect(screen.find('[role="alert"]').text()).not.toBe('')
    expect(store.events.some((e) => e.kind === 'correction')).toBe(false)
  })
})

describe('correcting what was signed', () => {
  const about = { value: '0.6', why: 'Two digits exchanged' }
  it('wants the tester’s password, and changes nothing with a wrong one', async () => {
    const { screen, store, fill, submit, closed } = await dialog(signed(), lastReading)
    await fill('It should say', about.value)
    await fill('Why', about.why)
    await fill('Your password', 'guessed')
    await submit('form')
    expect(screen.text()).toContain('That is not your password.')
    expect(store.events.some((e) => e.kind === 'correction')).toBe(false)
    expect(closed()).toBe(false)
    await fill('Your password', PASSWORD)
    await submit('form')
    expect(store.events.at(-1)).toMatchObject({ kind: 'correction', payload: { why: about.why } })
    expect(closed()).toBe(true)
  })
  it('is asked for by everybody else, without touching the entry', async () => {
    const other = { id: 'q', name: 'Planner' }
    const { screen, store, fill, submit } = await dialog(signed(), lastReading, other)
    expect(screen.text()).toContain('The tester of this visit corrects it')
    expect(screen.text()).not.toContain('Your password')
    await fill('What, and why', 'The form says 0.6')
    await submit('form')
    expect(store.events.at(-1)).toMatchObject({ kind: 'correction-asked' })
    expect(store.verdict('as-found')?.outcome).toBe('pass')
  })
})
