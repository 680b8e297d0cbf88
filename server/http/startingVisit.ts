import type { VisitRow } from '@uvanta/contract'
import { purposeTitles } from '@uvanta/core/visit'
import type { App } from '../context'
import { dayWords } from '../service/certificate/pdfText'
import { escapeHtml } from './escapeHtml'
import { STARTING } from './placePage'

const VISIT = /^\/visits\/([0-9a-f]{8}(?:-[0-9a-f]{4}){3}-[0-9a-f]{12})$/

/**
 * The page of a visit that says, until the application has come, where one goes and to what: on a slow line that is
 * some seconds earlier.
 * @param page with nothing but the name of the application on it
 * @param path address of the place; a page of another one stays as it is
 */
export async function startingVisit(app: App, page: string, path: string): Promise<string> {
  const [, id] = VISIT.exec(path) ?? []
  const visit = id
    ? await app.db.visits.findByPk(id, { attributes: ['plannedOn', 'purpose', 'equipment'] })
    : null
  if (!visit) return page
  const purpose = visit.purpose as VisitRow['purpose']
  const { tag, site, address, position, kind, sizeIn, serial } =
    visit.equipment as VisitRow['equipment']
  const lines = [
    `${purposeTitles[purpose]}, ${dayWords(visit.plannedOn)}`,
    `${site}, ${address}`,
    position,
    `${kind} ${sizeIn} in, serial ${serial}`,
  ]
  const said = [
    `<strong>${escapeHtml(tag)}</strong>`,
    ...lines.map(escapeHtml),
    '<span class="soft">The visit is being opened …</span>',
  ].join('<br>')
  return page.replace(STARTING, () => `<p class="starting said">${said}</p>`)
}
