import { performance } from 'node:perf_hooks'
import { DEMO_PASSWORD } from '../demo/scenario'

/** Milliseconds of each of `count` runs. */
export async function times(
  count: number,
  run: (n: number) => Promise<unknown>,
): Promise<number[]> {
  const taken: number[] = []
  for (let n = 0; n < count; n++) {
    const start = performance.now()
    await run(n)
    taken.push(performance.now() - start)
  }
  return taken
}

export function percentile(values: readonly number[], p: number): number {
  const sorted = [...values].sort((a, b) => a - b)
  return sorted[Math.min(sorted.length - 1, Math.floor((p / 100) * sorted.length))] ?? NaN
}

/** p50 and p95 of one thing against another. */
export function ratios(name: string, ours: readonly number[], theirs: readonly number[]): object[] {
  return [50, 95].map((p) => {
    const [a, b] = [percentile(ours, p), percentile(theirs, p)]
    return {
      name: `${name} p${p}`,
      ratio: Number((a / b).toFixed(2)),
      ms: Number(a.toFixed(2)),
      againstMs: Number(b.toFixed(2)),
    }
  })
}

/** Signs in, as anybody of the demo. @returns the cookie of the session */
export async function cookieOf(base: string, username: string): Promise<string> {
  const response = await fetch(`${base}/api/v1/session`, {
    method: 'POST',
    headers: { 'Content-Type': 'application/json' },
    body: JSON.stringify({ username, password: DEMO_PASSWORD }),
  })
  return response.headers.get('set-cookie')?.split(';')[0] ?? ''
}

/** Signs in and answers a fetch that carries the session. */
export async function signedInFetch(base: string, username: string) {
  const cookie = await cookieOf(base, username)
  return async (path: string, init: RequestInit = {}) => {
    const answer = await fetch(`${base}${path}`, {
      ...init,
      headers: { 'Content-Type': 'application/json', Cookie: cookie },
    })
    // What is refused is refused quickly, and would pass for speed.
    if (!answer.ok) throw new Error(`${path}: ${await answer.text()}`)
    return answer
  }
}
