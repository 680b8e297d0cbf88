/** Where a code of the authenticator is typed beside the password. */
export const codeField = {
  name: 'code',
  label: 'Code of your authenticator',
  mono: true,
  autocomplete: 'one-time-code',
  inputmode: 'numeric',
} as const
