import { certificates } from './certificates'
import type { Endpoint } from './endpoint'
import { gauges } from './gauges'
import { know } from './know'
import { people, session } from './people'
import { register } from './register'
import { stock } from './stock'
import { visits } from './visits'

export * from './certificates'
export * from './endpoint'
export * from './gauges'
export * from './people'
export * from './register'
export * from './stock'
export * from './visits'

/** Every call of the HTTP interface, by area and name. */
export const api = { session, people, gauges, register, visits, certificates, stock, know }

export const allEndpoints = Object.values(api).flatMap((area) => Object.values(area)) as Endpoint[]
