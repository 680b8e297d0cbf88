import type { ImportedLine, ImportRequest } from '@uvanta/contract'
import { describe, expect, it, vi } from 'vitest'
import { effectScope } from 'vue'
import { ApiProblem } from '@/api/client'
import { useImport } from './useImport'

const table = (tags: readonly string[]) => ({
  headings: ['Tag'],
  lines: tags.map((tag, n) => ({ line: n + 2, cells: [tag] })),
})
const asNew = ({ lines }: ImportRequest): { items: ImportedLine[] } => ({
  items: lines.map(({ line }) => ({ line, outcome: 'new', faults: [] })),
})
const tags = (n: number) => Array.from({ length: n }, (_, i) => `RP-${i}`)

function start(send: Parameters<typeof useImport>[0], of = tags(120)) {
  const scope = effectScope()
  const bringing = scope.run(() => useImport(send))!
  bringing.take(table(of), { tag: 0 }, 'year-first')
  return { bringing, leave: () => scope.stop() }
}

describe('bringing in a table', () => {
  it('asks piece by piece, and keeps only what was found to be new', async () => {
    const send = vi.fn((body: ImportRequest) => {
      const { items } = asNew(body)
      if (!body.keep) items[0] = { ...items[0]!, outcome: 'there' }
      return Promise.resolve({ items })
    })
    const { bringing } = start(send)
    await bringing.check()
    expect(send.mock.calls.map(([b]) => [b.keep, b.lines.length])).toEqual([
      [false, 50],
      [false, 50],
      [false, 20],
    ])
    expect([bringing.there.value, bringing.fit.value.length]).toEqual([3, 117])
    send.mockClear()
    await bringing.keep()
    expect(send.mock.calls.flatMap(([b]) => b.lines.map((l) => l.line))).toEqual(
      bringing.fit.value.map((l) => l.line),
    )
    expect(bringing.isKept.value).toBe(true)
  })

  it('goes on after a problem where it stopped, with the ids that it had', async () => {
    const sent: ImportRequest[] = []
    let line = true
    const { bringing } = start((body) => {
      sent.push(body)
      if (sent.length === 2 && line)
        throw new ApiProblem({ type: 'x', title: 'x', status: 0, detail: 'No line.' })
      return Promise.resolve(asNew(body))
    })
    await bringing.check()
    expect([bringing.done.value, bringing.problem.value?.offline]).toEqual([50, true])
    line = false
    await bringing.check()
    expect(bringing.isChecked.value).toBe(true)
    expect(sent[2]!.lines).toEqual(sent[1]!.lines)
  })

  it('ends when it is left: what is answered afterwards counts for nothing, and no more is sent', async () => {
    let answer = () => {}
    let ended: AbortSignal | undefined
    const send = vi.fn((body: ImportRequest, signal: AbortSignal) => {
      ended = signal
      return new Promise<{ items: ImportedLine[] }>((resolve) => {
        answer = () => resolve(asNew(body))
      })
    })
    const { bringing, leave } = start(send)
    const going = bringing.check()
    leave()
    answer()
    await going
    expect([ended?.aborted, send.mock.calls.length, bringing.done.value]).toEqual([true, 1, 0])
  })

  it('sends a tag once: the line that has it again is to be mended', async () => {
    const send = vi.fn((body: ImportRequest) => Promise.resolve(asNew(body)))
    const { bringing } = start(send, ['RP-1', 'rp-1', 'RP-2'])
    await bringing.check()
    expect(send.mock.calls[0]![0].lines.map((l) => l.line)).toEqual([2, 4])
    expect(bringing.refused.value).toEqual([
      {
        line: 3,
        outcome: 'refused',
        faults: [{ column: 'tag', message: 'stands in line 2 of this table already' }],
      },
    ])
  })
})
