import {
  type DateOrder,
  type ImportColumn,
  type ImportedLine,
  type ImportRequest,
  MOST_LINES,
} from '@uvanta/contract'
import { v7 as uuidv7 } from 'uuid'
import { computed, onScopeDispose, ref, shallowRef, triggerRef } from 'vue'
import { ApiProblem } from '@/api/client'
import type { Table } from '@/workers/table'
import { cellsOf, type Columns } from './columns'

export type ImportLine = ImportRequest['lines'][number]
type Send = (body: ImportRequest, signal: AbortSignal) => Promise<{ items: ImportedLine[] }>
type Run = 'check' | 'keep'

/**
 * Has the lines of a table looked at, and then brought in, piece by piece: it can be ended after any of them, and goes
 * on from there, for what is in the register stays there.
 * @param send asks the server
 */
export function useImport(send: Send) {
  const lines = shallowRef<readonly ImportLine[]>([])
  const dates = ref<DateOrder>('year-first')
  /** What was said of each line, by its place in the table. */
  const checked = shallowRef(new Map<number, ImportedLine>())
  const kept = shallowRef(new Map<number, ImportedLine>())
  const running = ref<Run | null>(null)
  const problem = shallowRef<ApiProblem | null>(null)
  let abort = new AbortController()
  onScopeDispose(() => abort.abort())

  /** Takes up a table anew: what was said of another, or under other columns, does not hold for it. */
  function take(table: Table, columns: Columns, order: DateOrder): void {
    cancel()
    problem.value = null
    dates.value = order
    lines.value = table.lines.map((l) => ({
      line: l.line,
      id: uuidv7(),
      cells: cellsOf(l, columns, table.headings),
    }))
    checked.value = twice(lines.value)
    kept.value = new Map()
  }

  const answers = computed(() => [...checked.value.values()])
  const of = (outcome: ImportedLine['outcome']) =>
    answers.value.filter((a) => a.outcome === outcome)
  const isChecked = computed(() => checked.value.size === lines.value.length)
  const fit = computed(() =>
    lines.value.filter((l) => checked.value.get(l.line)?.outcome === 'new'),
  )
  const refused = computed(() => [
    ...of('refused'),
    ...[...kept.value.values()].filter((k) => k.outcome === 'refused'),
  ])
  const isKept = computed(() => fit.value.length > 0 && kept.value.size === fit.value.length)
  const done = computed(() => (running.value === 'keep' ? kept : checked).value.size)
  const total = computed(() => (running.value === 'keep' ? fit.value : lines.value).length)

  async function run(kind: Run): Promise<void> {
    const [asked, said] = kind === 'keep' ? [fit.value, kept] : [lines.value, checked]
    const signal = (abort = new AbortController()).signal
    running.value = kind
    problem.value = null
    try {
      const waiting = asked.filter((l) => !said.value.has(l.line))
      for (let at = 0; at < waiting.length; at += MOST_LINES) {
        const piece = waiting.slice(at, at + MOST_LINES)
        const body = { lines: piece, dates: dates.value, keep: kind === 'keep' }
        const { items } = await send(body, signal)
        if (signal.aborted) return
        for (const item of items) said.value.set(item.line, item)
        triggerRef(said)
      }
    } catch (error) {
      if (signal.aborted) return
      if (!(error instanceof ApiProblem)) throw error
      problem.value = error
    } finally {
      if (abort.signal === signal) running.value = null
    }
  }

  function cancel(): void {
    abort.abort()
    running.value = null
  }

  return {
    ...{ lines, running, problem, done, total, isChecked, fit, refused, isKept },
    there: computed(() => of('there').length),
    brought: computed(() => [...kept.value.values()].filter((k) => k.outcome !== 'refused').length),
    take,
    check: () => run('check'),
    keep: () => run('keep'),
    cancel,
  }
}

/** A tag that an earlier line has is refused here: the register could not say of which line it is. */
function twice(lines: readonly ImportLine[]): Map<number, ImportedLine> {
  const first = new Map<string, number>()
  const column: ImportColumn = 'tag'
  return new Map(
    lines.flatMap(({ line, cells: { tag } }): [number, ImportedLine][] => {
      const name = tag?.toLowerCase()
      if (name === undefined) return []
      const before = first.get(name)
      if (before === undefined) {
        first.set(name, line)
        return []
      }
      const faults = [{ column, message: `stands in line ${before} of this table already` }]
      return [[line, { line, outcome: 'refused', faults }]]
    }),
  )
}
