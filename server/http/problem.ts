import type { ProblemDetails } from '@uvanta/contract'
import { NotInLibrary } from '@uvanta/core/library'
import { InvalidInput } from '@uvanta/core/schema'
import { CannotCompute } from '@uvanta/core/registry'
import type { ErrorRequestHandler, Response } from 'express'
import { ServiceError, type ErrorKind } from '../service/errors'

const STATUS: Readonly<Record<ErrorKind, number>> = {
  invalid: 422,
  'not-signed-in': 401,
  forbidden: 403,
  'not-found': 404,
  conflict: 409,
  refused: 409,
  stale: 412,
  'too-many': 429,
}

const TITLES: Readonly<Record<number, string>> = {
  400: 'The request cannot be read',
  401: 'Not signed in',
  403: 'Not allowed',
  404: 'Not found',
  409: 'Not possible now',
  412: 'Changed meanwhile',
  413: 'Too large',
  415: 'Wrong kind of content',
  422: 'Something does not fit',
  428: 'Version missing',
  429: 'Too many attempts',
  500: 'A fault of ours',
  503: 'Not available now',
}

export function sendProblem(
  res: Response,
  status: number,
  detail: string,
  extra: Readonly<Record<string, unknown>> = {},
): void {
  const problem: ProblemDetails = {
    type: 'about:blank',
    title: TITLES[status] ?? 'Not possible',
    status,
    detail: detail.charAt(0).toUpperCase() + detail.slice(1),
    ...extra,
  }
  res.status(status).type('application/problem+json').send(JSON.stringify(problem))
}

/** Turns whatever was thrown into problem details; only a fault of ours is a 500. */
export const problemHandler: ErrorRequestHandler = (error: unknown, req, res, next) => {
  if (res.headersSent) return next(error)
  if (error instanceof InvalidInput) {
    const first = error.faults[0]
    const more = error.faults.length > 1 ? ` (and ${error.faults.length - 1} more)` : ''
    const detail = `${first?.path ? `“${first.path}” ` : ''}${first?.message ?? 'does not fit'}${more}.`
    return sendProblem(res, 422, detail, { fields: error.faults.slice(0, 50) })
  }
  if (error instanceof CannotCompute) return sendProblem(res, 422, error.message)
  if (error instanceof ServiceError)
    return sendProblem(res, STATUS[error.kind], error.message, error.extra)
  if (error instanceof NotInLibrary) return sendProblem(res, 409, error.message)
  const fault = error as {
    status?: number
    type?: string
    name?: string
    original?: { errno?: number }
  }
  if (fault.type === 'entity.too.large')
    return sendProblem(
      res,
      413,
      'Too much in one request: send at most 1 MB, and pictures of at most 3 MB.',
    )
  if (fault.type === 'encoding.unsupported' || fault.type === 'charset.unsupported') {
    return sendProblem(res, 415, 'Send JSON in UTF-8.')
  }
  if (fault.status && fault.status >= 400 && fault.status < 500) {
    return sendProblem(
      res,
      400,
      'The request is not well-formed JSON or its address is not valid. Check it and send it again.',
    )
  }
  if (fault.name === 'SequelizeUniqueConstraintError') {
    return sendProblem(res, 409, 'There is an entry with this id or name already. Use another.')
  }
  if (fault.name?.startsWith('SequelizeConnection')) {
    return sendProblem(
      res,
      503,
      'The database does not answer. What you entered is kept on this device; try again shortly.',
    )
  }
  req.log.error({ err: error }, 'request failed')
  sendProblem(
    res,
    500,
    'Something went wrong on the server. Nothing was changed; try again, and tell the administrator if it stays.',
  )
}
