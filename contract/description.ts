import { endpoint } from './endpoint'

/** What this interface says of itself. */
export const description = {
  page: endpoint({
    method: 'get',
    path: '/api/v1/docs',
    summary: 'This interface as a page to read',
    tag: 'Description',
    access: 'signed-in',
    file: 'text/html',
  }),
  document: endpoint({
    method: 'get',
    path: '/api/v1/openapi.json',
    summary: 'This interface as a machine reads it, OpenAPI 3.1',
    tag: 'Description',
    access: 'signed-in',
    file: 'application/json',
  }),
}
