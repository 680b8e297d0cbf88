import { readdirSync, readFileSync } from 'node:fs'
import { join } from 'node:path'
import { parse } from 'yaml'
import { type Guide, guideSchema, type SubGuide, subGuideSchema } from '../guide'
import { check } from '../schema'

const home = join(import.meta.dirname, '../../library/guides/')
const read = <T>(folder: string, schema: unknown): T[] =>
  readdirSync(`${home}${folder}`)
    .filter((f) => f.endsWith('.yaml'))
    .map((f) => check(schema as never, parse(readFileSync(`${home}${folder}/${f}`, 'utf8'))) as T)

/** The shipped guides, for tests. */
export const shippedGuides = read<Guide>('', guideSchema)
export const shippedSubGuides = read<SubGuide>('shared', subGuideSchema)
