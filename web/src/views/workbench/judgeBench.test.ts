import { shippedLibrary } from '@uvanta/core/testing'
import { mount } from '@vue/test-utils'
import { createPinia, setActivePinia } from 'pinia'
import { expect, it } from 'vitest'
import { nextTick } from 'vue'
import { useLibrary } from '@/stores/library'
import JudgeBench from './JudgeBench.vue'

async function bench() {
  const pinia = createPinia()
  setActivePinia(pinia)
  useLibrary().library = shippedLibrary
  const screen = mount(JudgeBench, {
    global: { plugins: [pinia], stubs: { EquipmentDrawing: true } },
  })
  await nextTick()
  const field = (label: string) => {
    const id = screen
      .findAll('label')
      .find((l) => l.text() === label)
      ?.attributes('for')
    return screen.find(`[id="${id}"]`)
  }
  const item = (name: string) =>
    screen.findAll('.verdict li').find((l) => l.find('.name').text().startsWith(name))
  return { screen, field, item }
}

it('nothing entered is nothing assessed', async () => {
  const { screen } = await bench()
  expect(screen.find('.verdict').text()).toContain('Not assessed')
})
it('a check valve judged by what was counted under its rules', async () => {
  const { field, item } = await bench()
  await field('Equipment').setValue('check valve')
  const bubbles = () => item('Bubbles')
  await field('Bubbles when shut').setValue('0')
  expect(bubbles()?.find('.state').classes().join(' ')).toMatch(/pass/)
  await field('Bubbles when shut').setValue('40')
  expect(bubbles()?.find('.state').classes().join(' ')).toMatch(/fail/)
})
it('rubbish is a sentence, and the rest of what was entered stays', async () => {
  const { screen, field } = await bench()
  await field('Equipment').setValue('check valve')
  await field('Bubbles when shut').setValue('forty')
  expect(screen.find('[role=alert]').text()).toMatch(/forty/)
  expect((field('Bubbles when shut').element as HTMLInputElement).value).toBe('forty')
})
