// After all of a cluster was started again: what was acknowledged is there, and it is written to as before. After a
// restore nobody is signed in who could write.
import { readFileSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { nodesOf } from './clusterNodes.mjs'
import { noteOf, Person } from './oneVisit.mjs'

const [base, home, restored] = process.argv.slice(2)
const file = join(home, 'sent.json')
const { visit, sent, cookie } = JSON.parse(readFileSync(file, 'utf8'))
const nodes = nodesOf(home)
await nodes.hold(visit, sent)
if (!restored) {
  const event = noteOf('after it all')
  await new Person(base, cookie).note(visit, sent.length + 1, event, 60_000)
  await nodes.hold(visit, [...sent, event.id])
  writeFileSync(file, JSON.stringify({ visit, sent: [...sent, event.id], cookie }))
}
