import { toTypedSchema } from '@vee-validate/yup'
import { useForm } from 'vee-validate'
import { nextTick, ref } from 'vue'
import type * as yup from 'yup'

/**
 * A form on the schema that what it makes must fit, of the contract or of an entry of the log. Its
 * fields are `EntryField`s with the names of that schema; what does not fit stands beside its field.
 * @param send gets the values when all of them fit
 */
export function useEntry<T extends object>(
  schema: yup.Schema<T>,
  initial: Partial<T>,
  send: (values: T) => unknown,
) {
  const form = useForm<T>({
    validationSchema: toTypedSchema(schema),
    // What the form begins with may lack what is still to be entered.
    initialValues: { ...initial } as never,
  })
  /** What is wrong with the fields together, as an expiry before the issue. */
  const together = ref('')
  const submit = form.handleSubmit(
    (values) => {
      together.value = ''
      return send({ ...values } as T)
    },
    ({ results }) => {
      const whole = (results as Readonly<Record<string, { readonly errors?: string[] }>>)['']
      together.value = whole?.errors?.[0] ?? ''
      // The first of them may lie outside of what is seen.
      void nextTick(() => document.querySelector<HTMLElement>('.entry-field .is-invalid')?.focus())
    },
  )
  /** What is entered so far; any of it may still be missing. */
  const values = form.values as Readonly<Partial<T>>
  return { values, submit, together, reset: form.resetForm, set: form.setFieldValue }
}
