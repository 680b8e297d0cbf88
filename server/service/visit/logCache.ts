import type { Id } from '@uvanta/core/schema'
import type { FoldedLog, VisitEvent } from '@uvanta/core/visit'

/**
 * The logs last written with the states they fold to, so that appending neither reads nor folds the
 * whole log again. An entry counts only while the visit's row, read under its lock, names the same
 * head; so a second server does no harm.
 */
export class LogCache {
  private readonly logs = new Map<string, { readonly log: FoldedLog; readonly bytes: number }>()
  private bytes = 0

  /** @param mostBytes how much may be kept; whatever was used longest ago goes first */
  constructor(private readonly mostBytes: number) {}

  get(visitId: Id<'visit'>, count: number, headHash: string): FoldedLog | undefined {
    const { log } = this.logs.get(visitId) ?? {}
    return log?.events.length === count && log.events.at(-1)?.hash === headHash ? log : undefined
  }

  put(visitId: Id<'visit'>, log: FoldedLog): void {
    const kept = this.logs.get(visitId)
    const known = kept && log.events[kept.log.events.length - 1] === kept.log.events.at(-1)
    const added = known ? log.events.slice(kept.log.events.length) : log.events
    const bytes = added.reduce((sum, e) => sum + sizeOf(e), known ? kept.bytes : 0)
    this.forget(visitId)
    this.logs.set(visitId, { log, bytes })
    this.bytes += bytes
    for (const oldest of this.logs.keys()) {
      if (this.bytes <= this.mostBytes) break
      this.forget(oldest)
    }
  }

  private forget(visitId: Id<'visit'>): void {
    this.bytes -= this.logs.get(visitId)?.bytes ?? 0
    this.logs.delete(visitId)
  }
}

/** About what an entry takes besides its payload. */
const HEAD_BYTES = 500
const sizeOf = (event: VisitEvent) => JSON.stringify(event.payload).length + HEAD_BYTES
