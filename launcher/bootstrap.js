// Runs with Node alone: sets up the npm packages that the launcher itself needs, then hands over to it.
import { needNode, needPackages } from './packages.js'
import { LauncherError, reportError } from './output.js'
import { commandIn } from './words.js'

/** These also check, test and measure, for which more packages are needed. */
const DEVELOPMENT = ['test', 'dev', 'mutate', 'bench']

try {
  needNode(process.version)
  const command = commandIn(process.argv.slice(2))
  await needPackages(DEVELOPMENT.includes(command ?? '') ? 'all' : 'own')
} catch (error) {
  if (!(error instanceof LauncherError)) throw error
  reportError(error)
  process.exit(1)
}
const { run } = await import('./main.js')
process.exit(await run(process.argv.slice(2)))
