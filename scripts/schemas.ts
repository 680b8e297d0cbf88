import { mkdirSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { librarySchemas } from '@uvanta/core/library'
import { format } from 'prettier'

/** Writes the JSON Schemas of the library’s files, from the schemas that the loader goes by. */
const folder = join(import.meta.dirname, '..', 'library', 'schema')
mkdirSync(folder, { recursive: true })
for (const [name, schema] of Object.entries(librarySchemas())) {
  const text = await format(JSON.stringify(schema), { parser: 'json', printWidth: 100 })
  writeFileSync(join(folder, name), text)
}
