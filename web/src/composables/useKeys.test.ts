import { mount } from '@vue/test-utils'
import { afterEach, describe, expect, it } from 'vitest'
import { defineComponent, h, nextTick } from 'vue'
import { useKeys, useSingleKeys } from './useKeys'

let found = 0
const View = defineComponent(() => {
  useKeys([{ key: '/', does: 'Search', run: () => (found += 1) }])
  return () => h('input')
})
const press = (target: EventTarget = document) =>
  target.dispatchEvent(new KeyboardEvent('keydown', { key: '/', bubbles: true }))
let open: ReturnType<typeof mount> | null = null
afterEach(() => {
  open?.unmount()
  open = null
  useSingleKeys().value = true
  found = 0
})

describe('a single key', () => {
  it('does what its view says, while that is shown', () => {
    open = mount(View)
    press()
    expect(found).toBe(1)
    open.unmount()
    open = null
    press()
    expect(found).toBe(1)
  })
  it('is a letter where something is typed', () => {
    open = mount(View, { attachTo: document.body })
    press(open.find('input').element)
    expect(found).toBe(0)
  })
  it('does nothing once single keys are switched off', async () => {
    open = mount(View)
    useSingleKeys().value = false
    await nextTick()
    press()
    expect(found).toBe(0)
  })
})
