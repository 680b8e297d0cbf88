import { existsSync, readFileSync } from 'node:fs'
import { join } from 'node:path'
import { api } from '@uvanta/contract'

/** What the build says of a file of the web application: what came of it, and what that needs. */
interface Built {
  readonly file: string
  readonly imports?: readonly string[]
  readonly css?: readonly string[]
}
type Manifest = Readonly<Record<string, Built>>

interface Place {
  readonly at: RegExp
  /** Its view; that of Today comes with the application itself. */
  readonly view?: string
  /** Anyone may see it: nobody asks first who is there. */
  readonly open?: true
  /** What it asks for next, of whoever may work: the same for all of them. */
  readonly next?: string
}

/** Places that are opened first and most. */
const PLACES: readonly Place[] = [
  { at: /^\/$/ },
  { at: /^\/sign-in$/, view: 'src/views/account/SignInView.vue', open: true },
  {
    at: /^\/visits\/[^/]+$/,
    view: 'src/views/visit/VisitView.vue',
    next: api.library.read.path,
  },
  { at: /^\/equipment$/, view: 'src/views/equipment/EquipmentListView.vue' },
]

const asked = (path: string) => `<link rel="preload" as="fetch" crossorigin href="${path}">`
/** What is seen until the application has come. */
export const STARTING = '<p class="starting">Uvanta</p>'

/** Who is there is what every other place asks first, whatever the answer. */
const WHO = asked(api.session.me.path)

/** The page of a place, for anybody and for whoever may work. */
export interface PlacePage {
  readonly page: string
  /**
   * With what is asked for next named as well. For nobody else: the refusal of somebody who has yet to sign in would
   * lie there and be taken for the answer to the next one.
   */
  readonly atWork?: string
}

/**
 * The page of a place: the application, with the code of the view and its first questions named in it, so that a browser
 * fetches them at once and not one after the other.
 * @param directory what the build of the web application has made
 * @returns the page of a path; a place that is not known in advance has nothing named
 */
export function placePages(directory: string): (path: string) => PlacePage {
  const page = readFileSync(join(directory, 'index.html'), 'utf8')
  const list = join(directory, '.vite', 'manifest.json')
  const manifest = existsSync(list) ? (JSON.parse(readFileSync(list, 'utf8')) as Manifest) : {}
  const pages = PLACES.map((place) => [place.at, pageOf(place, page, manifest)] as const)
  return (path) => pages.find(([at]) => at.test(path))?.[1] ?? { page }
}

function pageOf({ view, open, next }: Place, page: string, manifest: Manifest): PlacePage {
  const needed = view ? neededBy(manifest, view) : []
  const [scripts, styles] = [needed.map(({ file }) => file), needed.flatMap(({ css = [] }) => css)]
  const link = (attributes: string) => (file: string) =>
    page.includes(`"/${file}"`) ? '' : `<link ${attributes} crossorigin href="/${file}">`
  const links = [
    // The application itself goes first.
    ...scripts.map(link('rel="modulepreload" fetchpriority="low"')),
    ...styles.map(link('rel="preload" as="style" fetchpriority="low"')),
    open ? '' : WHO,
  ]
  const withLinks = (...more: string[]) =>
    page.replace('</head>', `${[...links, ...more].join('')}</head>`)
  return { page: withLinks(), ...(next ? { atWork: withLinks(asked(next)) } : {}) }
}

/** A file of the application and everything that it imports. */
function neededBy(manifest: Manifest, entry: string, seen = new Set<string>()): Built[] {
  const built = manifest[entry]
  if (!built || seen.has(entry)) return []
  seen.add(entry)
  return [built, ...(built.imports ?? []).flatMap((name) => neededBy(manifest, name, seen))]
}
