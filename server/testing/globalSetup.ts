import type { TestProject } from 'vitest/node'
import { startMariaDb } from './mariadb'

declare module 'vitest' {
  interface ProvidedContext {
    mariadb: { port: number; password: string }
  }
}

/** One throwaway MariaDB for all tests of the server; each file makes databases of its own in it. */
export default async function setup(project: TestProject) {
  const server = await startMariaDb()
  project.provide('mariadb', { port: server.port, password: server.password })
  return async () => {
    await server.stop()
    server.remove()
  }
}
