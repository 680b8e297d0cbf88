import { toTypedSchema } from '@vee-validate/yup'
import { useForm } from 'vee-validate'
import { nextTick, ref } from 'vue'
import type * as yup from 'yup'
import { keepTyped } from './keepTyped'

/**
 * A form on the schema that what it makes must fit, of the contract or of an entry of the log. Its
 * fields are `EntryField`s with the names of that schema; what does not fit stands beside its field.
 * @param send gets the values when all of them fit; what it refuses, it answers with what is true of that
 * @param typed place under which what is typed is kept until it is sent; it is not for secrets
 */
export function useEntry<T extends object>(
  schema: yup.Schema<T>,
  initial: Partial<T>,
  send: (values: T) => unknown,
  typed?: string,
) {
  const form = useForm<T>({
    validationSchema: toTypedSchema(schema),
    // What the form begins with may lack what is still to be entered.
    initialValues: { ...initial } as never,
  })
  /** What is wrong with the fields together, as an expiry before the issue. */
  const together = ref('')
  const submit = form.handleSubmit(
    async (values) => {
      together.value = ''
      const refused = await send({ ...values } as T)
      if (!refused) forget()
      return refused
    },
    ({ results }) => {
      const whole = (results as Readonly<Record<string, { readonly errors?: string[] }>>)['']
      together.value = whole?.errors?.[0] ?? ''
      // The first of them may lie outside of what is seen.
      void nextTick(() => document.querySelector<HTMLElement>('.entry-field .is-invalid')?.focus())
    },
  )
  const forget = typed
    ? keepTyped(
        typed,
        () => ({ ...form.values }),
        (kept) => form.setValues({ ...form.values, ...kept } as never, false),
      )
    : () => {}
  /** What is entered so far; any of it may still be missing. */
  const values = form.values as Readonly<Partial<T>>
  return { values, submit, together, forget, reset: form.resetForm, set: form.setFieldValue }
}
