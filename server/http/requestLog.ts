import { randomUUID } from 'node:crypto'
import type { IncomingMessage, ServerResponse } from 'node:http'
import type { RequestHandler } from 'express'
import type { Logger } from 'pino'
import { pinoHttp } from 'pino-http'

/**
 * One line an answer, with an id that goes back to the caller as `X-Request-Id`: method, route, status
 * and time. No address, no name, no cookie, nothing of what was sent.
 */
export const requestLog = (logger: Logger): RequestHandler =>
  pinoHttp<IncomingMessage, ServerResponse>({
    logger,
    genReqId: (_req, res) => {
      const id = randomUUID()
      res.setHeader('X-Request-Id', id)
      return id
    },
    customLogLevel: (_req, res) => (res.statusCode >= 500 ? 'error' : 'info'),
    serializers: {
      req: ({
        id,
        method,
        raw,
      }: {
        id: string
        method: string
        raw?: { route?: { path?: string } }
      }) => ({
        id,
        method,
        route: raw?.route?.path,
      }),
      res: ({ statusCode }: { statusCode: number }) => ({ status: statusCode }),
    },
  }) as RequestHandler
