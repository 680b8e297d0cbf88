import { spawn } from 'node:child_process'
import { existsSync, mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { PORT } from './playwright.config'

const root = join(import.meta.dirname, '..')

/** Data with the demo in it, where somebody has loaded that already; else an empty directory. */
function dataDirectory(): string {
  const loaded = process.env.UVANTA_E2E_DATA
  return loaded && existsSync(loaded) ? loaded : mkdtempSync(join(tmpdir(), 'uve2e-'))
}

/** Starts Uvanta as a person does, with ./uvanta start. */
export default async function launch() {
  const data = dataDirectory()
  const child = spawn(join(root, 'uvanta'), ['start'], {
    env: {
      ...process.env,
      UVANTA_DATA: data,
      UVANTA_PORT: String(PORT),
      UVANTA_DB_WANTED_PORT: '4990',
      UVANTA_GAUGE_WANTED_PORT: '4994',
      UVANTA_GAUGE_SPEED: '30',
    },
    stdio: ['ignore', 'pipe', 'pipe'],
  })
  let said = ''
  child.stdout.on('data', (chunk: Buffer) => (said += chunk.toString()))
  child.stderr.on('data', (chunk: Buffer) => (said += chunk.toString()))
  const deadline = Date.now() + 240_000
  while (!said.includes(`Uvanta is at  http://127.0.0.1:${PORT}`)) {
    if (child.exitCode !== null || Date.now() > deadline)
      throw new Error(`Uvanta did not start:\n${said}`)
    await new Promise((r) => setTimeout(r, 200))
  }
  return async () => {
    await new Promise<void>((done) => {
      child.once('exit', () => done())
      child.kill('SIGTERM')
    })
    rmSync(data, { recursive: true, force: true })
  }
}
