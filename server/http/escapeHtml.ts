const ENTITIES: Readonly<Record<string, string>> = {
  '&': '&amp;',
  '<': '&lt;',
  '>': '&gt;',
  '"': '&quot;',
  "'": '&#39;',
}

/** Text as it stands in HTML, within elements and within quoted attributes. */
export const escapeHtml = (text: string): string =>
  text.replaceAll(/[&<>"']/g, (c) => ENTITIES[c] ?? c)
