import { flushPromises, mount } from '@vue/test-utils'
import { createPinia } from 'pinia'
import { describe, expect, it, vi } from 'vitest'
import { h } from 'vue'
import { createRouter, createWebHistory, type Router, RouterView } from 'vue-router'
import { ApiProblem } from '@/api/client'
import { settled } from '@/testing/hands'
import type { ListPage, ListQuery } from './listTypes'
import { localPage } from './localPage'
import RecordList from './RecordList.vue'

interface Valve {
  readonly id: string
  readonly tag: string
  readonly state: string
  readonly size: number
}
const valves: readonly Valve[] = [
  { id: '1', tag: 'RP-2', state: 'failed', size: 2 },
  { id: '2', tag: 'RP-1', state: 'in-order', size: 10 },
  { id: '3', tag: 'DC-1', state: 'in-order', size: 1 },
]
const whole = (query: ListQuery) =>
  localPage(valves, query, {
    words: (v) => `${v.tag} ${v.state}`,
    sorts: { tag: (v) => v.tag, size: (v) => v.size },
    filters: { state: (v, state) => v.state === state },
  })
const asked = (more: Partial<ListQuery>) =>
  whole({ q: '', filters: {}, sort: '', ...more }).items.map((v) => v.tag)

describe('a short list that came whole', () => {
  it('is searched by every word, in any order', () => {
    expect(asked({ q: 'order rp' })).toEqual(['RP-1'])
    expect(asked({ q: 'nothing' })).toEqual([])
  })
  it('is filtered; a filter that nobody knows takes nothing away', () => {
    expect(asked({ filters: { state: 'failed' } })).toEqual(['RP-2'])
    expect(asked({ filters: { state: '', colour: 'red' } })).toHaveLength(3)
  })
  it('is ordered both ways, numbers as numbers', () => {
    expect(asked({ sort: 'tag' })).toEqual(['DC-1', 'RP-1', 'RP-2'])
    expect(asked({ sort: '-size' })).toEqual(['RP-1', 'RP-2', 'DC-1'])
  })
})

/** A place that comes over a slow line: when the test lets it. */
let letCome = () => {}
const slowPlace = new Promise<{ render: () => ReturnType<typeof h> }>((resolve) => {
  letCome = () => resolve({ render: () => h('p', 'The slow place') })
})

async function show(load: (query: ListQuery) => Promise<ListPage<Valve>>, at = '/valves') {
  const list = () =>
    h(RecordList<Valve>, {
      what: 'valves',
      search: 'Tag',
      none: 'No valve was entered.',
      order: 'tag',
      orders: ['size'],
      columns: [
        { key: 'tag', title: 'Tag', sortable: true },
        { key: 'state', title: 'State' },
      ],
      filters: [
        {
          name: 'state',
          label: 'State',
          all: 'Any',
          options: [{ value: 'failed', text: 'Failed' }],
        },
      ],
      load,
      rowKey: (v: Valve) => v.id,
      to: (v: Valve) => ({ name: 'valve', params: { id: v.id } }),
    })
  const router: Router = createRouter({
    history: createWebHistory(),
    routes: [
      { path: '/valves', name: 'valves', component: { render: list } },
      { path: '/valve/:id', name: 'valve', component: { render: () => h('p', 'One valve') } },
      { path: '/slow', name: 'slow', component: () => slowPlace },
    ],
  })
  await router.push(at)
  const screen = mount(RouterView, { global: { plugins: [router, createPinia()] } })
  await flushPromises()
  const tags = () => screen.findAll('tbody tr').map((row) => row.find('td').text())
  return { router, screen, tags }
}
const page = (items: readonly Valve[], next: string | null = null) =>
  Promise.resolve({ items, next })

describe('a list of records', () => {
  it('asks for what its address says, and keeps what is chosen there', async () => {
    const load = vi.fn((query: ListQuery) => Promise.resolve(whole(query)))
    const { router, screen, tags } = await show(load, '/valves?state=failed')
    expect(tags()).toEqual(['RP-2'])
    await screen.find('select').setValue('')
    await settled()
    expect(router.currentRoute.value.query).toEqual({})
    await screen.find('th button').trigger('click')
    await settled()
    expect(router.currentRoute.value.query).toEqual({ sort: '-tag' })
    expect(tags()).toEqual(['RP-2', 'RP-1', 'DC-1'])
  })
  it('asks for nothing that an old or mistyped address says and nobody offers', async () => {
    const load = vi.fn((query: ListQuery) => Promise.resolve(whole(query)))
    const { tags } = await show(load, '/valves?state=molten&sort=-colour&q=rp')
    expect(load.mock.calls).toEqual([[{ q: 'rp', filters: { state: '' }, sort: '' }]])
    expect(tags()).toEqual(['RP-2', 'RP-1'])
  })
  it('takes an order that no column stands for, from a link elsewhere', async () => {
    const load = vi.fn((query: ListQuery) => Promise.resolve(whole(query)))
    const { tags } = await show(load, '/valves?sort=-size')
    expect(tags()).toEqual(['RP-1', 'RP-2', 'DC-1'])
  })
  it('shows more behind what is there', async () => {
    const load = vi.fn(({ cursor }: ListQuery) =>
      cursor ? page(valves.slice(2)) : page(valves.slice(0, 2), 'c'),
    )
    const { screen, tags } = await show(load)
    expect(screen.text()).toContain('2 shown, there are more')
    await screen.findAll('button').at(-1)?.trigger('click')
    await settled()
    expect(tags()).toEqual(['RP-2', 'RP-1', 'DC-1'])
    expect(screen.text()).not.toContain('Show more')
  })
  it('says that nothing fits, and that there is nothing yet, in different words', async () => {
    expect((await show(() => page([]))).screen.text()).toContain('No valve was entered.')
    expect((await show(() => page([]), '/valves?q=x')).screen.text()).toContain('Nothing fits')
  })
  it('never lets a slow answer overtake a later one', async () => {
    let slow: (page: ListPage<Valve>) => void = () => undefined
    const load = vi.fn(({ sort }: ListQuery) =>
      sort ? page(valves.slice(2)) : new Promise<ListPage<Valve>>((answer) => (slow = answer)),
    )
    const { router, tags } = await show(load)
    await router.replace('/valves?sort=tag')
    await settled()
    slow({ items: valves, next: null })
    await settled()
    expect(tags()).toEqual(['DC-1'])
  })
  it('says what went wrong and tries again', async () => {
    let broken = true
    const load = () =>
      broken
        ? Promise.reject(
            new ApiProblem({
              type: 'urn:uvanta:problem:no-database',
              title: '',
              status: 503,
              detail: 'The database does not answer.',
            }),
          )
        : page(valves)
    const { screen, tags } = await show(load)
    expect(screen.text()).toContain('The database does not answer.')
    broken = false
    await screen.find('.problem button').trigger('click')
    await settled()
    expect(tags()).toHaveLength(3)
  })
  it('leads where a row leads', async () => {
    const { router, screen } = await show(() => page(valves))
    await screen.findAll('tbody tr')[1]?.trigger('click')
    await settled()
    expect(router.currentRoute.value.path).toBe('/valve/2')
  })
  it('keeps its pages for whoever comes back, and asks anew of whoever comes again', async () => {
    const load = vi.fn(({ cursor }: ListQuery) =>
      cursor ? page(valves.slice(2)) : page(valves.slice(0, 2), 'c'),
    )
    const { router, screen, tags } = await show(load)
    await screen.findAll('button').at(-1)?.trigger('click')
    await settled()
    await router.push('/valve/2')
    router.back()
    await vi.waitFor(() => expect(tags()).toHaveLength(3))
    expect(load).toHaveBeenCalledTimes(2)
    await router.push('/valve/2')
    await router.push('/valves')
    await settled()
    expect(load).toHaveBeenCalledTimes(3)
    expect(tags()).toHaveLength(2)
  })
})

it('words that were typed while another place was on its way do not call that off', async () => {
  const { screen, router } = await show((q) => Promise.resolve(whole(q)))
  const gone = router.push('/slow')
  await screen.find('input[type=search]').setValue('RP')
  await new Promise((resolve) => setTimeout(resolve, 300))
  letCome()
  await gone
  await flushPromises()
  expect(screen.text()).toBe('The slow place')
})
