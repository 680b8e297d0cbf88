import { readdirSync } from 'node:fs'
import { join } from 'node:path'
import { type Guide, guideSchema } from '@uvanta/core/guide'
import type * as yup from 'yup'
import { loadYaml } from '../library/yamlFile'
import { keepEarlier, textOf } from '../library/versions'
import type { DemoApp } from './app'

/** Guides as they were before: what a visit of that time would have been done with. */
export async function loadEarlierGuides(app: DemoApp): Promise<void> {
  const folder = join(app.config.libraryDirectory, 'demo', 'earlier', 'guides')
  for (const file of readdirSync(folder)) {
    const { value } = loadYaml(
      join(folder, file),
      `demo/earlier/guides/${file}`,
      guideSchema as unknown as yup.Schema<Guide>,
    )
    const from = new Date(`${value.date}T00:00:00Z`)
    await keepEarlier(app.db, textOf(value, app.shelf.library.subGuides), from)
  }
}
