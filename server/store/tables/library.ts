import { hash, int, key, longText, moment, text } from '../column'
import { type RowOf, table } from '../table'

export type LibraryKind =
  'guide' | 'spec-sheet' | 'procedure' | 'rule-pack' | 'family' | 'programme' | 'policy'

export const libraryVersion = table(
  'library_version',
  {
    kind: key(text<LibraryKind>(20)),
    id: key(text(80)),
    version: key(int()),
    hash: hash(),
    content: longText(),
    firstSeenAt: moment(),
  },
  { appendOnly: true },
)
export type LibraryVersionRow = RowOf<typeof libraryVersion>
