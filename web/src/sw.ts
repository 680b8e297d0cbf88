import { api } from 'virtual:api'
import {
  cleanupOutdatedCaches,
  createHandlerBoundToURL,
  type PrecacheEntry,
  precacheAndRoute,
} from 'workbox-precaching'
import { NavigationRoute, registerRoute } from 'workbox-routing'
import { ApiProblem, call } from '@/api/client'
import { keptAnswers } from '@/api/kept'
import { SEND_WAITING } from '@/stores/backgroundSync'
import { outbox } from '@/stores/outbox'
import { sendEntries, sendingAlone } from '@/stores/sendEntries'

/** What works behind the pages: it keeps the application on the device, and sends when no page is there to do it. */
interface Worker {
  readonly __WB_MANIFEST: PrecacheEntry[]
  readonly clients: {
    matchAll(of: { type: 'window' }): Promise<readonly { readonly visibilityState: string }[]>
  }
  skipWaiting(): Promise<void>
  addEventListener(type: 'message' | 'sync', hear: (event: Heard) => void): void
}
interface Heard {
  readonly data?: { readonly type?: string }
  readonly tag: string
  waitUntil(work: Promise<void>): void
}
const worker = self as unknown as Worker

// By this very name the build puts in what is kept.
precacheAndRoute((self as unknown as Worker).__WB_MANIFEST)
cleanupOutdatedCaches()
registerRoute(
  new NavigationRoute(createHandlerBoundToURL('/index.html'), {
    // What the server answers itself is no place of the application.
    denylist: [/^\/api\//, /^\/\.well-known\//, /\.(?:txt|pdf|json)$/],
  }),
)

worker.addEventListener('message', ({ data }) => {
  if (data?.type === 'SKIP_WAITING') void worker.skipWaiting()
})
worker.addEventListener('sync', (event) => {
  if (event.tag === SEND_WAITING) event.waitUntil(sendingAlone(sendAll))
})

/**
 * Sends what whoever is signed in has recorded, unless a page is in sight that does it and says what is refused.
 * @throws ApiProblem without a line, so that the browser tries again
 */
async function sendAll(): Promise<void> {
  const pages = await worker.clients.matchAll({ type: 'window' })
  if (pages.some((p) => p.visibilityState === 'visible')) return
  const { person } = await call(api.session.me, { live: true })
  if (!person) return
  keptAnswers.belongTo(person.id)
  const rows = await outbox.of(person.id)
  for (const visitId of new Set(rows.map((e) => e.visitId))) {
    const own = rows.filter((e) => e.visitId === visitId)
    await sendEntries(visitId, person.id, own).catch((error: unknown) => {
      // What is refused is said and mended where its visit is opened.
      if (!(error instanceof ApiProblem) || error.offline) throw error
    })
  }
}
