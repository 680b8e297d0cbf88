import { api, type Endpoint } from '@uvanta/contract'

/**
 * Prints how each call of the interface is made, without what it may say: a page that calls needs no schemas, which
 * take a telephone long to build.
 */
const lean = ({ method, path, versioned }: Endpoint) => ({
  method,
  path,
  ...(versioned ? { versioned } : {}),
})
const each = <T>(of: object, make: (value: never) => T): Record<string, T> =>
  Object.fromEntries(Object.entries(of).map(([name, value]) => [name, make(value as never)]))
process.stdout.write(JSON.stringify(each(api, (area: object) => each(area, lean))))
