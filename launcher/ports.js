import { createServer } from 'node:net'

/** @param {number} port @returns {Promise<boolean>} */
const isFree = (port) =>
  new Promise((done) => {
    const probe = createServer()
    probe.once('error', () => done(false))
    probe.listen(port, '127.0.0.1', () => probe.close(() => done(true)))
  })

/** The first port from this one on at which nobody listens. @param {number} from */
export async function freePort(from) {
  let port = from
  while (!(await isFree(port))) port++
  return port
}
