import type { App } from '../../context'

/** What people are called, by id; of nobody is anything else read. */
export async function namesOf(
  app: Pick<App, 'db'>,
  ids: readonly string[],
): Promise<ReadonlyMap<string, string>> {
  const people = await app.db.people.findAll({
    attributes: ['id', 'name'],
    where: { id: [...new Set(ids)] },
    raw: true,
  })
  return new Map(people.map((p) => [p.id, p.name]))
}
