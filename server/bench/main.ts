import { createServer } from 'node:http'
import type { AddressInfo } from 'node:net'
import { join } from 'node:path'
import { pino } from 'pino'
import { openApp } from '../app'
import { readConfig } from '../config'
import { loadDemo } from '../demo/load'
import { makeServer } from '../http/server'
import { benchAppend } from './append'
import { benchCrowd } from './crowd'
import { benchFirstLoad } from './firstLoad'
import { benchFold } from './fold'
import { benchFluid, benchMachines, benchRegulators } from './fluid'
import { benchBatch, benchHistory, benchImport, benchLag } from './lag'
import { benchPress } from './press'
import { benchProver } from './prover'
import { benchSearch } from './search'
import { benchTrace } from './trace'

/** Prints one JSON line a figure. */
const app = await openApp(readConfig(process.env, join(import.meta.dirname, '..', '..')))
await loadDemo(app, () => undefined)
const http = createServer(makeServer(app, pino({ level: 'silent' })))
await new Promise<void>((done) => http.listen(0, '127.0.0.1', done))
const base = `http://127.0.0.1:${(http.address() as AddressInfo).port}`

const print = (figure: object) => process.stdout.write(`${JSON.stringify(figure)}\n`)
for (const figure of await benchAppend(app, base)) print(figure)
print(await benchCrowd(app, base))
for (const figure of await benchFirstLoad(base)) print(figure)
for (const figure of await benchPress(app, base)) print(figure)
for (const figure of await benchFold()) print(figure)
print(benchFluid())
for (const ratio of [...benchRegulators(), ...benchMachines()]) print(ratio)
print(benchTrace())
for (const figure of benchProver(app)) print(figure)
print(await benchBatch(app, base))
print(await benchHistory(app, base))
print(await benchImport(base))
for (const figure of await benchLag(app)) print(figure)
for (const figure of await benchSearch(app, base)) print(figure)
http.close()
http.closeAllConnections()
await app.db.sequelize.close()
