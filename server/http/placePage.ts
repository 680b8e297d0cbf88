import { existsSync, readFileSync } from 'node:fs'
import { join } from 'node:path'

/** What the build says of a file of the web application: what came of it, and what that needs. */
interface Built {
  readonly file: string
  readonly imports?: readonly string[]
  readonly css?: readonly string[]
}
type Manifest = Readonly<Record<string, Built>>

/** Places that are opened first and most, and their views; Today comes with the application itself. */
const VIEWS: readonly (readonly [RegExp, string])[] = [
  [/^\/sign-in$/, 'src/views/account/SignInView.vue'],
  [/^\/visits\/[^/]+$/, 'src/views/visit/VisitView.vue'],
  [/^\/equipment$/, 'src/views/equipment/EquipmentListView.vue'],
]

/**
 * The page of a place: the application, with the code of the view named in it, so that a browser fetches both at once
 * and not one after the other.
 * @param directory what the build of the web application has made
 * @returns the page of a path; a place that is not known in advance has none of its view named
 */
export function placePages(directory: string): (path: string) => string {
  const page = readFileSync(join(directory, 'index.html'), 'utf8')
  const list = join(directory, '.vite', 'manifest.json')
  const manifest = existsSync(list) ? (JSON.parse(readFileSync(list, 'utf8')) as Manifest) : {}
  const pages = VIEWS.map(([path, view]) => [path, withView(page, manifest, view)] as const)
  return (path) => pages.find(([place]) => place.test(path))?.[1] ?? page
}

function withView(page: string, manifest: Manifest, view: string): string {
  const needed = neededBy(manifest, view)
  const [scripts, styles] = [needed.map(({ file }) => file), needed.flatMap(({ css = [] }) => css)]
  const link = (attributes: string) => (file: string) =>
    page.includes(`"/${file}"`) ? '' : `<link ${attributes} crossorigin href="/${file}">`
  const links = [
    // The application itself goes first.
    ...scripts.map(link('rel="modulepreload" fetchpriority="low"')),
    ...styles.map(link('rel="preload" as="style" fetchpriority="low"')),
  ]
  return page.replace('</head>', `${links.join('')}</head>`)
}

/** A file of the application and everything that it imports. */
function neededBy(manifest: Manifest, entry: string, seen = new Set<string>()): Built[] {
  const built = manifest[entry]
  if (!built || seen.has(entry)) return []
  seen.add(entry)
  return [built, ...(built.imports ?? []).flatMap((name) => neededBy(manifest, name, seen))]
}
