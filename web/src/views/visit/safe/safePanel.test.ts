import type { Guide, PlacedStep } from '@uvanta/core/guide'
import { Job, shippedLibrary } from '@uvanta/core/testing'
import { flushPromises, mount } from '@vue/test-utils'
import { describe, expect, it } from 'vitest'
import { settled } from '@/testing/hands'
import { OneVisitServer, openOnScreen } from '@/testing/visitOnScreen'
import LockList from './LockList.vue'
import PlanList from './PlanList.vue'
import ProofForm from './ProofForm.vue'
import SafePanel from './SafePanel.vue'

const guide = (id: string) => shippedLibrary.guides.find((g) => g.id === id) as Guide
/** A pilot-operated regulator, made safe up to a step. */
const regulator = (until: (s: PlacedStep) => boolean) =>
  new Job({ family: 'sleeve-pilot-regulator', kind: 'pilot regulator' })
    .choose(guide('sleeve-regulator-actuator'), 'spring-to-close')
    .toMakeSafe()
    .carryOut('make-safe', until)

async function panel(job: Job) {
  const { store, pinia } = await openOnScreen(new OneVisitServer(job))
  const shown = mount(SafePanel, {
    props: { station: 'make-safe', step: job.due('make-safe'), pressable: true },
    global: { plugins: [pinia] },
  })
  const turn = async (valve: string) => {
    await shown.find(`[aria-label^="${valve}"]`).trigger('click')
    await flushPromises()
  }
  const rooms = () =>
    Object.fromEntries(
      shown.findAll('g.room').map((g) => [g.find('.title').text(), g.find('.state').text()]),
    )
  return { shown, store, pinia, turn, rooms }
}

const LOADING = 'Loading chamber, both sides of the diaphragm'

describe('a regulator’s spaces', () => {
  it('are drawn one by one, each as it stands', async () => {
    const { rooms, turn } = await panel(regulator((s) => s.isolate === 'inlet-valve'))
    expect(rooms()).toEqual({
      'Outlet side': 'live',
      'Control line': 'live',
      [LOADING]: 'live',
      'Inlet side': 'live',
    })
    await turn('Inlet valve')
    // Pilot and control line have a supply of their own.
    expect(rooms()).toEqual({
      'Outlet side': 'trapped',
      'Control line': 'live',
      [LOADING]: 'live',
      'Inlet side': 'trapped',
    })
    await turn('Pilot supply valve')
    await turn('Control line valve')
    expect(new Set(Object.values(rooms()))).toEqual(new Set(['trapped']))
    await turn('Outlet vent')
    // A shut seat holds what is behind it: the outlet at zero says nothing of the rest.
    expect(rooms()).toEqual({
      'Outlet side': 'vented',
      'Control line': 'trapped',
      [LOADING]: 'trapped',
      'Inlet side': 'trapped',
    })
  })
})

describe('a move that is not safe to go by', () => {
  const fed = () => panel(regulator((s) => s.isolate === 'inlet-valve'))
  it('is refused with its reason before it is on record', async () => {
    const { shown, store, turn } = await fed()
    await turn('Inlet vent')
    expect(shown.text()).toContain('Inlet vent is still fed')
    expect(store.state.valves['inlet-vent']).toBeUndefined()
  })
  it('that really happened is recorded with why', async () => {
    const { shown, store, turn } = await fed()
    await turn('Inlet vent')
    await shown.find('form input').setValue('The handle was knocked')
    await shown.find('form').trigger('submit')
    await settled()
    expect(store.state.valves['inlet-vent']).toBe('open')
    expect(store.events.at(-1)?.payload).toMatchObject({ departure: 'The handle was knocked' })
  })
  it('names the vent that comes first, across the spaces', async () => {
    const { shown, turn } = await panel(regulator((s) => Boolean(s.vent)))
    await turn('Inlet vent')
    expect(shown.text()).toContain('Open Outlet vent first')
  })
})

describe('the plan', () => {
  it('ticks what is done', async () => {
    const { pinia } = await openOnScreen(new OneVisitServer(regulator((s) => Boolean(s.vent))))
    const lines = mount(PlanList, { global: { plugins: [pinia] } }).findAll('li')
    const words = lines.map((l) => l.text())
    expect(words[0]).toContain('Shut outlet valve')
    expect(words.at(-1)).toContain('Prove zero: the inlet side')
    const ticked = lines.filter((l) => l.find('[aria-label="pass"], .pass').exists())
    // Outlet, inlet, pilot supply, control line.
    expect(ticked).toHaveLength(4)
  })
})

describe('zero', () => {
  const proof = async () => {
    const opened = await openOnScreen(new OneVisitServer(regulator((s) => s.prove === 'loading')))
    const form = mount(ProofForm, {
      props: { zone: 'loading' },
      global: { plugins: [opened.pinia] },
    })
    const read = async (reading: string) => {
      await form.find('input').setValue(reading)
      await form.find('form').trigger('submit')
      await settled()
    }
    return { ...opened, form, read }
  }
  it('that is none is not proved', async () => {
    const { form, read, store } = await proof()
    await read('4')
    expect(form.text()).toContain('4 psi is not zero')
    expect(store.state.proofs.map((p) => p.zone)).toEqual(['outlet', 'sense'])
  })
  it('is on record with its reading, its time and who read it', async () => {
    const { read, store } = await proof()
    await read('0.0')
    expect(store.state.proofs.at(-1)).toMatchObject({
      zone: 'loading',
      heldMinutes: 2,
      by: 'Odda Marrin',
      reading: { value: '0.0', unit: 'psi' },
    })
  })
})

describe('locks', () => {
  it('go on a valve that is shut, and come off again', async () => {
    const { pinia, store } = await openOnScreen(
      new OneVisitServer(regulator((s) => s.locked === true)),
    )
    const list = mount(LockList, { props: { writable: true }, global: { plugins: [pinia] } })
    await list.find('input').setValue('14')
    const press = async (name: RegExp) => {
      await list
        .findAll('button')
        .find((b) => name.test(b.text()))
        ?.trigger('click')
      await flushPromises()
    }
    await press(/^Lock$/)
    expect(Object.values(store.state.locks).map((l) => l.number)).toEqual(['14'])
    await press(/^Take off$/)
    expect(store.state.locks).toEqual({})
  })
})
