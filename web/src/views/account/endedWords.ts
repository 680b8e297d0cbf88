import type { EndedKeys } from '@uvanta/contract'

const listed = (what: string, labels: readonly string[]) =>
  labels.length === 0 ? [] : [`${what}: ${labels.join('; ')}`]

/** Says which device keys and passkeys sign in no longer; nothing where there was none. */
export function endedWords({ devices, passkeys }: EndedKeys): string {
  const parts = [...listed('Device keys', devices), ...listed('passkeys', passkeys)]
  return parts.length === 0
    ? ''
    : `These can no longer sign in. ${parts.join('; ')}. Register again those that are yours.`
}
