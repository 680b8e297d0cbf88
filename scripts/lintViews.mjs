// Lints the scripts of .vue files by types. What does that reads .ts alone, and a linter that reads .vue makes a
// program anew for each, which takes minutes: so every script is written into a .ts file, at the lines it has.
import { spawnSync } from 'node:child_process'
import { mkdirSync, readdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs'
import { dirname, join } from 'node:path'
import { fileURLToPath } from 'node:url'
import { parse } from 'vue/compiler-sfc'

const ROOT = fileURLToPath(new URL('..', import.meta.url))
const VIEWS = join(ROOT, 'web/src')
const LINTED = join(ROOT, '.uvanta/lint')

/** Another view takes it for a component; which one is not asked by any rule. */
const A_COMPONENT = '\nexport default {}\n'

/** What is written in the script of the view, at its own lines. */
function scriptOf(view) {
  const { descriptor } = parse(readFileSync(view, 'utf8'), { filename: view })
  return [descriptor.script, descriptor.scriptSetup]
    .filter(Boolean)
    .sort((a, b) => a.loc.start.line - b.loc.start.line)
    .reduce((text, { loc, content }) => {
      const linesBefore = loc.start.line - text.split('\n').length
      return text + '\n'.repeat(linesBefore) + content
    }, '')
}

rmSync(LINTED, { recursive: true, force: true })
const files = readdirSync(VIEWS, { recursive: true })
  .filter((path) => path.endsWith('.vue'))
  .map((path) => {
    const file = join(LINTED, 'src', `${path}.ts`)
    mkdirSync(dirname(file), { recursive: true })
    writeFileSync(file, scriptOf(join(VIEWS, path)) + A_COMPONENT)
    return file
  })
const tsconfig = {
  extends: '../../web/tsconfig.json',
  // Neighbours of a view are found where it was.
  compilerOptions: { rootDirs: ['src', '../../web/src'], paths: { '@/*': ['../../web/src/*'] } },
  include: ['src/**/*.ts', '../../web/src/**/*.ts', '../../web/components.d.ts'],
}
writeFileSync(join(LINTED, 'tsconfig.json'), JSON.stringify(tsconfig))
const { status } = spawnSync('oxlint', ['--type-aware', '--no-ignore', ...files], {
  cwd: ROOT,
  stdio: 'inherit',
})
process.exitCode = status ?? 1
