import { flushPromises, type VueWrapper } from '@vue/test-utils'

/** Waits until a form has checked what it holds, which it does a few milliseconds later. */
export async function settled() {
  await flushPromises()
  await new Promise((resolve) => setTimeout(resolve, 20))
  await flushPromises()
}

/** What hands do with a part of the screen that is under test; every move waits until it has settled. */
export function handsOn(screen: VueWrapper) {
  /** Those that can be pressed. */
  const buttons = () => screen.findAll('button:not([disabled])')
  const press = async (name: string | RegExp) => {
    const says = (text: string) =>
      typeof name === 'string' ? text.startsWith(name) : name.test(text)
    const found = buttons().find((b) => says(b.text()))
    if (!found) {
      const there = buttons().map((b) => b.text())
      throw new Error(`no button “${String(name)}” among ${there.join(', ')}`)
    }
    // A button of a form sends it, as in a browser.
    await found.trigger(found.attributes('type') === 'submit' ? 'submit' : 'click')
    await settled()
  }
  const submit = async (form: string) => {
    await screen.find(form).trigger('submit')
    await settled()
  }
  const fill = async (label: string, value: string | boolean) => {
    const named = screen.findAll('label').find((l) => l.text().startsWith(label))
    const field = named?.attributes('for')
      ? screen.find(`[id="${named.attributes('for')}"]`)
      : (named?.find('input') ?? screen.find(`[aria-label="${label}"]`))
    await field.setValue(value)
    await settled()
  }
  return { press, submit, fill }
}
