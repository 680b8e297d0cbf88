// Writes what is shipped, by whom it is and under which licence, beside the pages: /dependencies.json
import { execFileSync } from 'node:child_process'
import { writeFileSync } from 'node:fs'
import { dirname, join } from 'node:path'
import { fileURLToPath } from 'node:url'

const here = dirname(fileURLToPath(import.meta.url))
// By the lock file: what checks and tests it need not be there.
const asked = ['sbom', '--omit=dev', '--package-lock-only', '--sbom-format=cyclonedx']
const said = execFileSync('npm', asked, {
  cwd: join(here, '..'),
  encoding: 'utf8',
  maxBuffer: 50_000_000,
  stdio: ['ignore', 'pipe', 'ignore'],
})
/** Those that do not say it where it is looked for; read off the file that comes with them. */
const SAID_ELSEWHERE = { 'png-js': 'MIT', 'dejavu-fonts-ttf': 'Bitstream-Vera' }
const licenceOf = ({ name, licenses = [] }) =>
  licenses.map((l) => l.license?.id ?? l.license?.name ?? l.expression).join(' AND ') ||
  SAID_ELSEWHERE[name]

const own = ['web', 'server', 'core', 'contract', 'standins', 'e2e', 'launcher']
const packages = JSON.parse(said)
  .components.filter((c) => !own.includes(c.name))
  .map((c) => ({
    name: c.group ? `${c.group}/${c.name}` : c.name,
    version: c.version,
    licence: licenceOf(c),
  }))
const silent = packages.filter((p) => !p.licence)
if (silent.length > 0) {
  process.stderr.write(`No licence is known of ${silent.map((p) => p.name).join(', ')}.\n`)
  process.exit(1)
}
writeFileSync(join(here, 'dist', 'dependencies.json'), `${JSON.stringify(packages, null, 1)}\n`)
