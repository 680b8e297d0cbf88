import type { VisitEvent } from '@uvanta/core/visit'

/**
 * The logs last written, so that appending does not read the whole log again. An entry counts only
 * while the visit's row, read under its lock, names the same head; so a second server does no harm.
 */
export class LogCache {
  private readonly logs = new Map<string, readonly VisitEvent[]>()

  constructor(private readonly most: number) {}

  get(visitId: string, count: number, headHash: string): readonly VisitEvent[] | undefined {
    const log = this.logs.get(visitId)
    return log && log.length === count && log.at(-1)?.hash === headHash ? log : undefined
  }

  put(visitId: string, log: readonly VisitEvent[]): void {
    this.logs.delete(visitId)
    this.logs.set(visitId, log)
    const oldest = this.logs.keys().next()
    if (this.logs.size > this.most && !oldest.done) this.logs.delete(oldest.value)
  }
}
