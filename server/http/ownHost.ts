import type { Request, RequestHandler } from 'express'
import { sendProblem } from './problem'

const THIS_MACHINE = ['127.0.0.1', 'localhost', '[::1]']

/** An address in its parts; none where it is no address. */
function partsOf(address: string): URL | undefined {
  try {
    return new URL(address)
  } catch {
    return undefined
  }
}

/** Name of the host that a request asks for, without its port. */
const nameOf = (req: Request) => partsOf(`http://${req.get('Host')}`)?.hostname ?? ''

/** Whether the browser runs on this machine: it asks for it by a name that no other machine can have. */
export const isOnThisMachine = (req: Request): boolean => THIS_MACHINE.includes(nameOf(req))

/**
 * Answers under Uvanta’s own address and this machine’s names alone: a page elsewhere that has its name
 * point here (DNS rebinding) would else pass for one of ours.
 */
export function ownHostOnly(publicUrl: string): RequestHandler {
  const { hostname } = new URL(publicUrl)
  return (req, res, next) => {
    if (isOnThisMachine(req) || nameOf(req) === hostname) return next()
    sendProblem(res, 421, {
      code: 'another-host',
      why: 'Uvanta is not known by this address.',
      remedy: 'Open it by its own, or have its keeper set UVANTA_PUBLIC_URL to this one.',
    })
  }
}

/** A write that a browser sends from another origin is refused. */
export function sameOriginOnly(publicUrl: string): RequestHandler {
  // A proxy need not hand on the host that it was asked for.
  const own = partsOf(publicUrl)?.host
  return (req, res, next) => {
    const origin = req.get('Origin')
    const from = origin && partsOf(origin)?.host
    const safe = ['GET', 'HEAD', 'OPTIONS'].includes(req.method)
    const same = !origin || (from !== undefined && [req.get('Host'), own].includes(from))
    const crossSite = ['cross-site', 'same-site'].includes(req.get('Sec-Fetch-Site') ?? '')
    if (safe || (same && !crossSite)) return next()
    sendProblem(res, 403, {
      code: 'another-origin',
      why: 'This request comes from another site.',
      remedy: 'Use Uvanta’s own pages.',
    })
  }
}
