import type { ProblemDetails } from '@uvanta/contract'
import { ExplainedError } from '@uvanta/core/errors'
import { NotInLibrary } from '@uvanta/core/library'
import { InvalidInput } from '@uvanta/core/schema'
import type { ErrorRequestHandler, Response } from 'express'
import { ServiceError, type ErrorKind } from '../service/errors'
import { metAnother } from '../store/triedAgain'

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

/** What is well formed and cannot be answered is 422; what the library lacks contradicts what is stored. */
const statusOf = (error: ExplainedError): number =>
  error instanceof ServiceError ? STATUS[error.kind] : error instanceof NotInLibrary ? 409 : 422

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

type Explanation = Pick<ExplainedError, 'code' | 'why' | 'remedy'>
const explained = (code: string, why: string, remedy: string): Explanation => ({
  code,
  why,
  remedy,
})

/** Answers with problem details; `type` carries the stable code by which clients tell problems apart. */
export function sendProblem(
  res: Response,
  status: number,
  { code, why, remedy }: Explanation,
  further: Readonly<Record<string, unknown>> = {},
): void {
  const detail = `${why} ${remedy}`
  const problem: ProblemDetails = {
    type: `urn:uvanta:problem:${code}`,
    title: TITLES[status] ?? 'Not possible',
    status,
    detail: detail.charAt(0).toUpperCase() + detail.slice(1),
    why,
    remedy,
    ...further,
  }
  res.status(status).type('application/problem+json').send(JSON.stringify(problem))
}

function furtherOf(error: ExplainedError): Readonly<Record<string, unknown>> {
  if (error instanceof InvalidInput) return { fields: error.faults.slice(0, 50) }
  return error instanceof ServiceError ? error.extra : {}
}

interface Fault {
  readonly status?: number
  readonly type?: string
  readonly name?: string
  /** What the driver said. */
  readonly original?: {
    readonly errno?: number
    readonly code?: string
    readonly message?: string
  }
}

/** A cluster that has no majority. */
const NO_MAJORITY = 1047
const isBusy = (fault: Fault) => metAnother(fault) || fault.original?.errno === NO_MAJORITY

export const diskFull = explained(
  'disk-full',
  'The disk of the server is full. Nothing was changed.',
  'What you entered is kept on this device and sent again; tell the administrator to make room.',
)

/** No room on the disk: as a table says it, as the storage engine does, as a file does. */
const FULL = [1021, 1026, 1114]
const isFull = ({ original }: Fault) =>
  FULL.includes(original?.errno ?? 0) || /\b(errno: 28|error 28)\b/.test(original?.message ?? '')

/** The connection was refused, or went in the middle: the driver’s own codes, and those of the socket. */
const GONE =
  /^(ER_CMD_CONNECTION_CLOSED|ER_CONNECTION_ALREADY_CLOSED|ER_SOCKET_UNEXPECTED_CLOSE|ER_SERVER_SHUTDOWN|ER_CONNECTION_KILLED|ECONNRESET|EPIPE|ECONNREFUSED|ETIMEDOUT)$/
const isGone = ({ name, original }: Fault) =>
  name?.startsWith('SequelizeConnection') === true || GONE.test(original?.code ?? '')

/** What the libraries below throw when the request, and not the server, is at fault. */
function foreign(fault: Fault): [number, Explanation] | null {
  if (fault.type === 'entity.too.large')
    return [
      413,
      explained(
        'too-large',
        'That is too much in one request.',
        'Send at most 1 MB, and pictures of at most 3 MB.',
      ),
    ]
  if (fault.type === 'encoding.unsupported' || fault.type === 'charset.unsupported')
    return [
      415,
      explained(
        'content-kind',
        'The text is in an encoding not known here.',
        'Send JSON in UTF-8.',
      ),
    ]
  if (fault.status === 404)
    return [404, explained('no-such-file', 'There is no such file.', 'Load the page anew.')]
  if (fault.status && fault.status >= 400 && fault.status < 500)
    return [
      400,
      explained(
        'unreadable',
        'The request is not well-formed JSON or its address is not valid.',
        'Check it and send it again.',
      ),
    ]
  if (fault.name === 'SequelizeUniqueConstraintError')
    return [
      409,
      explained('taken', 'There is an entry with this id or name already.', 'Use another.'),
    ]
  if (isBusy(fault))
    return [
      503,
      explained(
        'busy',
        'Others were writing the same thing at the same moment.',
        'Try again shortly; what was sent twice is stored once.',
      ),
    ]
  if (isFull(fault)) return [503, diskFull]
  if (isGone(fault))
    return [
      503,
      explained(
        'no-database',
        'The database does not answer.',
        'What you entered is kept on this device; try again shortly.',
      ),
    ]
  return null
}

/** Turns whatever was thrown into problem details; only a fault of ours is a 500. */
export const problemHandler: ErrorRequestHandler = (error: unknown, req, res, next) => {
  if (res.headersSent) return next(error)
  if (error instanceof ExplainedError)
    return sendProblem(res, statusOf(error), error, furtherOf(error))
  const known = foreign(error as Fault)
  if (known) return sendProblem(res, ...known)
  req.log.error({ err: error }, 'request failed')
  sendProblem(
    res,
    500,
    explained(
      'fault-of-ours',
      // Whether anything was changed cannot be known: it may have failed after it was written.
      'Something went wrong on the server.',
      'Try again – what was sent twice is stored once – and tell the administrator if it stays.',
    ),
  )
}
