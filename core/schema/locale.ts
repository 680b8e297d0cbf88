import { setLocale } from 'yup'

/** What a schema says in its own words is said without the field’s name: the place says it already. */
setLocale({
  mixed: {
    required: 'is missing',
    defined: 'is missing',
    notNull: 'must not be empty',
    oneOf: 'must be one of ${values}',
    notType: 'must be a ${type}',
  },
  array: { min: 'needs at least ${min}', max: 'takes at most ${max}' },
})
