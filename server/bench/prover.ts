import { readdirSync, readFileSync } from 'node:fs'
import { join } from 'node:path'
import { proveGuide } from '@uvanta/core/guide'
import { parse } from 'yaml'
import type { App } from '../context'
import { percentile } from './measure'

const RUNS = 9

/** Proving every guide on every way through it, against parsing the same guides as YAML. */
export function benchProver(app: App): object[] {
  const { guides, subGuides } = app.shelf.library
  const folder = join(app.config.libraryDirectory, 'guides')
  const texts = readdirSync(folder)
    .filter((f) => f.endsWith('.yaml'))
    .map((f) => readFileSync(join(folder, f), 'utf8'))
  const time = (work: () => unknown) => {
    const start = performance.now()
    work()
    return performance.now() - start
  }
  const rows = Array.from({ length: RUNS }, () => ({
    parsed: time(() => texts.map((t) => parse(t) as unknown)),
    proved: guides.map((g) => time(() => proveGuide(g, subGuides))),
  }))
  const sum = (list: readonly number[]) => list.reduce((a, b) => a + b, 0)
  const median = (list: readonly number[]) => percentile(list, 50)
  const parsedMs = median(rows.map((r) => r.parsed))
  const slowest = guides
    .map((g, n) => ({ id: g.id, ms: median(rows.map((r) => r.proved[n] ?? 0)) }))
    .sort((a, b) => b.ms - a.ms)[0]
  return [
    {
      name: 'proof of all guides ÷ parsing their YAML',
      ratio: Number(median(rows.map((r) => sum(r.proved) / r.parsed)).toFixed(2)),
      ms: Number(median(rows.map((r) => sum(r.proved))).toFixed(1)),
      againstMs: Number(parsedMs.toFixed(1)),
      guides: guides.length,
    },
    {
      name: 'the guide that takes longest to prove ÷ the mean',
      guide: slowest?.id,
      ratio: Number(
        (((slowest?.ms ?? 0) * guides.length) / median(rows.map((r) => sum(r.proved)))).toFixed(2),
      ),
      ms: Number((slowest?.ms ?? 0).toFixed(2)),
    },
  ]
}
