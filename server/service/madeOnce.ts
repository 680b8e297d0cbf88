/**
 * Makes a record once under the id that its client chose: whoever sends it again, be it at the same moment,
 * finds it as it stands.
 */
export async function madeOnce(
  table: { findByPk(id: string): Promise<unknown> },
  id: string,
  make: () => Promise<unknown>,
): Promise<void> {
  if (await table.findByPk(id)) return
  try {
    await make()
  } catch (error) {
    // Another one of the same was faster: by its id, or by a name that is taken since.
    if (!(await table.findByPk(id))) throw error
  }
}
