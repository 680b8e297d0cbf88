/** The name under which the browser wakes what sends behind the pages. */
export const SEND_WAITING = 'uvanta-entries'

interface Syncing {
  readonly sync?: { register(tag: string): Promise<void> }
}

/**
 * Asks the browser to have sent what waits as soon as there is a line, though no page is open then. A browser that
 * cannot do that leaves it to the next page.
 */
export async function askForSync(): Promise<void> {
  const workers = navigator.serviceWorker as ServiceWorkerContainer | undefined
  const registration = await workers?.getRegistration()
  await (registration as Syncing | undefined)?.sync?.register(SEND_WAITING).catch(() => undefined)
}
