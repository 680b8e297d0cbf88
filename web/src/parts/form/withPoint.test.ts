import { mount } from '@vue/test-utils'
import { expect, it } from 'vitest'
import EntryField from './EntryField.vue'
import { withPoint } from './withPoint'

it.each([
  ['2,4', '2.4'],
  ['2.4', '2.4'],
  ['-0,5', '-0.5'],
  ['1,', '1.'],
  ['12', '12'],
])('a comma in a figure is its point: %s', (typed, shown) => {
  expect(withPoint(typed)).toBe(shown)
})

it('is seen as it is typed, in fields for figures alone', async () => {
  const model = async (inputmode: 'decimal' | undefined, typed: string) => {
    const field = mount(EntryField, {
      props: { label: 'Reading', ...(inputmode ? { inputmode } : {}) },
    })
    await field.find('input').setValue(typed)
    return field.emitted('update:modelValue')?.at(-1)?.[0]
  }
  expect(await model('decimal', '7,3')).toBe('7.3')
  expect(await model(undefined, 'bolts, nuts')).toBe('bolts, nuts')
})
