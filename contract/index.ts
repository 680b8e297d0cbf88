import { apiKeys } from './apiKeys'
import { audit } from './audit'
import { certificates } from './certificates'
import { computations } from './computations'
import { description } from './description'
import { devices } from './devices'
import type { Endpoint } from './endpoint'
import { gauges } from './gauges'
import { library } from './library'
import { passkeys } from './passkeys'
import { people, session } from './people'
import { register } from './register'
import { settings } from './settings'
import { stock } from './stock'
import { visits } from './visits'

export type { Passkey } from './passkeys'
export { type ApiKey, type KeyScope, keyScopes } from './apiKeys'
export type { AuditLine, DailyHead } from './audit'
export * from './certificates'
export * from './devices'
export * from './endpoint'
export * from './gauges'
export * from './gaugeUnder'
export * from './limits'
export * from './people'
export * from './register'
export * from './registerImport'
export {
  neededForCertificates,
  type Starters,
  type UtilityFields,
  type UtilityState,
} from './settings'
export * from './signInText'
export * from './stock'
export * from './visits'
export * from './words'

/** Every call of the HTTP interface, by area and name. */
export const api = {
  session,
  apiKeys,
  devices,
  passkeys,
  people,
  gauges,
  register,
  visits,
  certificates,
  stock,
  settings,
  library,
  computations,
  audit,
  description,
}

export const allEndpoints = Object.values(api).flatMap((area) => Object.values(area)) as Endpoint[]
