/** Gives the person a file to keep, as a download of the browser. */
export function saveToFile(name: string, content: string, type = 'application/json'): void {
  const url = URL.createObjectURL(new Blob([content], { type }))
  const link = document.createElement('a')
  link.href = url
  link.download = name
  link.click()
  // The browser has taken it up by then.
  setTimeout(() => URL.revokeObjectURL(url), 60_000)
}
