import type { Request, RequestHandler } from 'express'
import { sendProblem } from './problem'

const THIS_MACHINE = ['127.0.0.1', 'localhost', '[::1]']

/** Name of the host that a request asks for, without its port; empty where it names none. */
function hostOf(req: Request): string {
  try {
    return new URL(`http://${req.get('Host')}`).hostname
  } catch {
    return ''
  }
}

/** Whether the browser runs on this machine: it asks for it by a name that no other machine can have. */
export const isOnThisMachine = (req: Request): boolean => THIS_MACHINE.includes(hostOf(req))

/**
 * Answers under Uvanta’s own address and this machine’s names alone: a page elsewhere that has its name
 * point here (DNS rebinding) would else pass for one of ours.
 */
export function ownHostOnly(publicUrl: string): RequestHandler {
  const { hostname } = new URL(publicUrl)
  return (req, res, next) => {
    if (isOnThisMachine(req) || hostOf(req) === hostname) return next()
    sendProblem(res, 421, {
      code: 'another-host',
      why: 'Uvanta is not known by this address.',
      remedy: 'Open it by its own, or have its keeper set UVANTA_PUBLIC_URL to this one.',
    })
  }
}
