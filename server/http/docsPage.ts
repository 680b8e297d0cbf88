import { escapeHtml } from './escapeHtml'
import type { OpenApiDocument, OpenApiOperation } from './openapi'

/** The interface as a page to read: plain HTML, no script. */
export function docsPage(document: OpenApiDocument): string {
  const operations = Object.entries(document.paths).flatMap(([path, methods]) =>
    Object.entries(methods).map(([method, operation]) => ({ path, method, operation })),
  )
  const tags = [...new Set(operations.flatMap((o) => o.operation.tags))]
  const sections = tags.map(
    (tag) =>
      `<section><h2>${escapeHtml(tag)}</h2>${operations
        .filter((o) => o.operation.tags.includes(tag))
        .map((o) => operationHtml(o.method, o.path, o.operation))
        .join('')}</section>`,
  )
  return `<!doctype html><html lang="en"><head><meta charset="utf-8"><title>Uvanta: interface</title>
<meta name="viewport" content="width=device-width, initial-scale=1"><link rel="stylesheet" href="/docs.css"></head>
<body><main><h1>Uvanta’s interface</h1><p>${escapeHtml(document.info.description)}
The same as a machine reads it: <a href="/api/v1/openapi.json">openapi.json</a>.</p>${sections.join('')}</main></body></html>`
}

function operationHtml(method: string, path: string, operation: OpenApiOperation): string {
  const body = operation.requestBody as
    { content?: Record<string, { schema?: unknown; example?: unknown }> } | undefined
  const content = body?.content?.['application/json']
  const shown = content?.example ?? content?.schema
  const details = shown
    ? `<details><summary>What to send</summary><pre>${escapeHtml(JSON.stringify(shown, null, 2))}</pre></details>`
    : ''
  return `<article><h3><code>${escapeHtml(method.toUpperCase())} ${escapeHtml(path)}</code></h3>
<p>${escapeHtml(operation.summary)}. ${escapeHtml(operation.description ?? '')}</p>${details}</article>`
}
