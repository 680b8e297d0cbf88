import { readFileSync } from 'node:fs'
import { dirname, join } from 'node:path'
import { fileURLToPath } from 'node:url'
import { libraryLayers, ownDataOf } from '../config'
import { answerTo } from './answerTo'

/** Runs one computation on what stands on standard input. */
const root = join(dirname(fileURLToPath(import.meta.url)), '..', '..')
const layers = libraryLayers(root, ownDataOf(process.env))
const { text, fault } = answerTo(process.argv[2], () => readFileSync(0, 'utf8'), layers)
;(fault ? process.stderr : process.stdout).write(`${text}\n`)
process.exitCode = fault ? 1 : 0
