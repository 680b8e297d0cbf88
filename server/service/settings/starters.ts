import { existsSync, mkdirSync, readFileSync, rmSync } from 'node:fs'
import { dirname, join } from 'node:path'
import type { Person } from '@uvanta/contract'
import type { Programme } from '@uvanta/core/catalogue'
import type { Transaction } from 'sequelize'
import { parse, stringify } from 'yaml'
import type { App } from '../../context'
import { loadStarters } from '../../library/load'
import { replaceFile } from '../../store/keptFile'
import { audited } from '../audit'
import { ID } from './keptUtility'
import { notFound, ServiceError } from '../errors'

/** What a utility may begin with, and what of it is in force here. */
export async function listStarters(app: App) {
  await app.utility.refresh()
  const { rulePacks, programmes } = loadStarters(app.config.libraryDirectory)
  const { library } = app.shelf
  return {
    rulePacks: rulePacks
      .toSorted((a, b) => a.title.localeCompare(b.title, 'en'))
      .map(({ id, title, source, tests }) => ({
        id,
        title,
        source,
        kinds: tests.map((t) => t.kind),
        inForce: library.rulePacks.some((p) => p.id === ownId(app, id)),
      })),
    programmes: programmes.map((offered) => {
      const own = library.programmes.find((p) => p.id === offered.id)
      const { version: _, ...programme } = own ?? offered
      return { ...programme, inForce: own !== undefined }
    }),
  }
}

/** The id of a rule pack that was taken from a starter: the utility’s own, so that nobody takes it for another’s. */
const ownId = (app: App, starter: string) =>
  `${app.utility.current.certificatePrefix.toLowerCase()}-${starter}`

/**
 * Puts a rule pack in force that is copied from a starter, under the utility’s authority. Done again it is a new
 * version; visits that were begun keep theirs.
 * @throws ServiceError utility-not-set, demo-settings, not-found, or invalid with what the prover says
 */
export async function adoptRulePack(
  app: App,
  actor: Person,
  input: {
    readonly starter: string
    readonly title: string
    readonly authority: string
    readonly source: string
    readonly effectiveFrom: string
  },
) {
  await needOwn(app)
  const { starter, ...named } = input
  const pack = loadStarters(app.config.libraryDirectory).rulePacks.find((p) => p.id === starter)
  if (!pack) throw notFound('rule pack')
  const id = ownId(app, starter)
  const file = join(app.config.ownLibrary, 'rulepacks', `${id}.yaml`)
  const { rulePacks, earlier } = app.shelf.library
  const version = nextVersion([...rulePacks, ...earlier.rulePacks].filter((p) => p.id === id))
  const subject = `${named.title}, under ${named.authority}, in force from ${named.effectiveFrom}`
  await audited(
    app,
    actor,
    `put rule pack ${id} version ${version} in force`,
    subject,
    async (transaction) => {
      await oneAtATime(app, transaction)
      await putInForce(app, file, stringify({ ...pack, ...named, id, version }))
    },
  )
  return listStarters(app)
}

/**
 * Puts a programme in force, with the utility’s own times. Done again it is a new version.
 * @throws ServiceError as adoptRulePack
 */
export async function adoptProgramme(app: App, actor: Person, input: Omit<Programme, 'version'>) {
  await needOwn(app)
  const file = join(app.config.ownLibrary, 'programmes.yaml')
  const { programmes, earlier } = app.shelf.library
  const version = nextVersion(
    [...programmes, ...earlier.programmes].filter((p) => p.id === input.id),
  )
  const subject = `${input.title}, every ${input.intervalMonths} months`
  await audited(
    app,
    actor,
    `put programme ${input.id} version ${version} in force`,
    subject,
    async (transaction) => {
      await oneAtATime(app, transaction)
      const before = existsSync(file) ? (parse(readFileSync(file, 'utf8')) as Programme[]) : []
      const others = before.filter((p) => p.id !== input.id)
      await putInForce(app, file, stringify([...others, { ...input, version }]))
    },
  )
  return listStarters(app)
}

const nextVersion = (known: readonly { readonly version: number }[]) =>
  Math.max(0, ...known.map((k) => k.version)) + 1

/** Of two who change the files at once the second waits, in whichever process: what the first wrote is not lost. */
const oneAtATime = (app: App, transaction: Transaction) =>
  app.db.utility.findByPk(ID, { transaction, lock: transaction.LOCK.UPDATE })

/** Writes a file of the utility’s own library and takes it up; one that is refused is put back as it was. */
async function putInForce(app: App, file: string, text: string): Promise<void> {
  const before = existsSync(file) ? readFileSync(file, 'utf8') : null
  mkdirSync(dirname(file), { recursive: true })
  replaceFile(file, text)
  const { faults } = await app.shelf.reload()
  if (faults.length === 0) return
  if (before === null) rmSync(file)
  else replaceFile(file, before)
  await app.shelf.reload()
  throw new ServiceError(
    'invalid',
    faults.map((f) => `${f.file}, line ${f.line}: ${f.message}`).join('\n'),
    'Mend the files of your own library, then try again.',
    { code: 'library-faults' },
  )
}

async function needOwn(app: App): Promise<void> {
  if (app.config.isDemo)
    throw new ServiceError(
      'refused',
      'The demo has Larkhaven’s rules.',
      'Start your own in another directory: ./uvanta --data DIRECTORY start --empty',
      { code: 'demo-settings' },
    )
  // Another process may have been told.
  await app.utility.refresh()
  if (app.utility.current.certificatePrefix === '')
    throw new ServiceError(
      'refused',
      'Rules are put in force in the name of a utility.',
      'Fill in the settings of the utility first.',
      { code: 'utility-not-set' },
    )
}
