import { integer, line } from '@uvanta/core/schema'
import { mount } from '@vue/test-utils'
import { describe, expect, it } from 'vitest'
import { object } from 'yup'
import { handsOn } from '@/testing/hands'
import RecordForm from './RecordForm.vue'

const schema = object({
  id: line(10).required(),
  tag: line(5).required(),
  note: line(20),
  count: integer(1, 9),
}).test('together', 'nine of a note', (v) => !(v.note && v.count === 9))
type Kit = { id: string; tag: string; note?: string | undefined; count?: number | undefined }

function show(initial: Partial<Kit> = { id: 'k' }) {
  const screen = mount(RecordForm<Kit>, {
    props: {
      schema,
      initial,
      action: 'Save',
      fields: [
        { name: 'tag', label: 'Tag' },
        { name: 'note', label: 'Note' },
        { name: 'count', label: 'Count', kind: 'number' },
      ],
    },
  })
  return { screen, ...handsOn(screen), sent: () => screen.emitted('submit')?.map(([v]) => v) }
}

describe('a form', () => {
  it('sends what is entered with what it began with, numbers as numbers, nothing for nothing', async () => {
    const { fill, submit, sent } = show()
    await fill('Tag', 'K-1')
    await fill('Note', 'x')
    await fill('Note', '')
    await fill('Count', '3')
    await submit('form')
    expect(sent()).toEqual([{ id: 'k', tag: 'K-1', count: 3 }])
  })
  it('sends nothing that does not fit, and says beside each field what is wrong', async () => {
    const { fill, submit, sent, screen } = show()
    await fill('Count', '12')
    await submit('form')
    expect(sent()).toBeUndefined()
    expect(screen.findAll('.fault').map((f) => f.text())).toEqual([
      'Tag is missing.',
      'Count must be at most 9.',
    ])
    await fill('Tag', 'K-1')
    await fill('Count', '2')
    await submit('form')
    expect(sent()).toHaveLength(1)
  })
  it('says what is wrong with its fields together', async () => {
    const { fill, submit, sent, screen } = show({ id: 'k', tag: 'K-1', note: 'x' })
    await fill('Count', '9')
    await submit('form')
    expect(sent()).toBeUndefined()
    expect(screen.find('[role=alert]').text()).toContain('nine of a note')
  })
})
