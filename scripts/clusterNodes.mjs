// What the tests of the cluster ask its nodes, and wait for.
import { execFileSync } from 'node:child_process'
import { nodeHome } from '../launcher/cluster/nodes.js'
import { socketOf } from '../launcher/settings.js'
import { pause } from './oneVisit.mjs'

export const NODES = [1, 2, 3]
export const say = (line) => process.stdout.write(`· ${line}\n`)
export const fail = (why) => {
  process.stderr.write(`cluster: ${why}\n`)
  process.exit(1)
}

/** @param home data directory of the cluster */
export function nodesOf(home) {
  const on = (node, sql) =>
    execFileSync(
      'mariadb',
      ['--no-defaults', `--socket=${socketOf(nodeHome(home, node))}`, '-N', '-e', sql],
      { encoding: 'utf8', stdio: ['ignore', 'pipe', 'ignore'] },
    ).trim()
  return {
    on,
    /** That every node holds these entries of a visit, each once, in their order, behind its plan. */
    async hold(visit, sent) {
      for (const node of NODES)
        await within(60, `node ${node} is in step`, () =>
          on(node, "SHOW STATUS LIKE 'wsrep_cluster_size'").endsWith('3'),
        )
      for (const node of NODES) {
        const rows = on(
          node,
          `SET SESSION wsrep_sync_wait = 1; SELECT seq, id FROM uvanta.visit_event WHERE visit_id = '${visit}' ORDER BY seq`,
        )
        const [, ...stored] = rows.split('\n').map((row) => row.split('\t'))
        const numbers = stored.every(([seq], index) => Number(seq) === index + 2)
        const same =
          stored.length === sent.length && stored.every(([, id], index) => id === sent[index])
        if (!numbers || !same)
          fail(`node ${node} holds ${stored.length} entries of ${sent.length}, or in another order`)
      }
      say('Every node holds each of them once, in their order, without a gap')
    },
  }
}

/** Waits until something holds. */
export async function within(seconds, what, holds) {
  for (let n = 0; n < seconds * 4; n++) {
    try {
      if (await holds()) return
    } catch {
      // Not yet.
    }
    await pause(250)
  }
  fail(`${what}: not within ${seconds} s`)
}
