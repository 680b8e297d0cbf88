import { createPinia, setActivePinia } from 'pinia'
import { afterEach, beforeEach, describe, expect, it } from 'vitest'
import { effectScope, ref } from 'vue'
import { useSession } from '@/stores/session'
import { keepTyped } from './keepTyped'

beforeEach(() => setActivePinia(createPinia()))
afterEach(() => localStorage.clear())

/** A field of a form, as a page shows it until it is closed. */
function page(personId = 'odda') {
  useSession().person = { id: personId } as never
  const scope = effectScope()
  const text = ref('')
  const forget = scope.run(() =>
    keepTyped(
      'visit-1/note',
      () => text.value,
      (kept) => (text.value = kept),
    ),
  )
  return { text, forget: () => forget?.(), close: () => scope.stop() }
}

describe('what is typed and not recorded', () => {
  it('is there again on the next page', () => {
    const first = page()
    first.text.value = 'Gate locked'
    first.close()
    expect(page().text.value).toBe('Gate locked')
  })
  it('is nobody else’s', () => {
    page().text.value = 'Gate locked'
    expect(page('teo').text.value).toBe('')
  })
  it('is gone once it is recorded or emptied', () => {
    const recorded = page()
    recorded.text.value = 'Gate locked'
    recorded.forget()
    expect(page().text.value).toBe('')
    const emptied = page()
    emptied.text.value = 'Gate'
    emptied.text.value = ''
    expect(page().text.value).toBe('')
    expect(localStorage).toHaveLength(0)
  })
  it('is kept anew after a recording', async () => {
    const form = page()
    form.text.value = 'First'
    form.forget()
    form.text.value = ''
    await Promise.resolve()
    form.text.value = 'Second'
    expect(page().text.value).toBe('Second')
  })
})
