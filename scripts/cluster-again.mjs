// After all of a cluster was started again: what was acknowledged is there, and it is written to as before.
import { readFileSync } from 'node:fs'
import { join } from 'node:path'
import { nodesOf } from './clusterNodes.mjs'
import { noteOf, Person } from './oneVisit.mjs'

const [base, home] = process.argv.slice(2)
const { visit, sent, cookie } = JSON.parse(readFileSync(join(home, 'sent.json'), 'utf8'))
const nodes = nodesOf(home)
await nodes.hold(visit, sent)
const event = noteOf('after it all')
await new Person(base, cookie).note(visit, sent.length + 1, event, 60_000)
await nodes.hold(visit, [...sent, event.id])
