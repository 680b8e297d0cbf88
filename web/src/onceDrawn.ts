/** A page that is not looked at is never drawn: it does not wait longer, ms. */
const LONGEST_MS = 100

/** After the page as it came has been drawn once, where it says something; at once where it does not. */
export async function onceDrawn(): Promise<void> {
  if (!document.querySelector('.said')) return
  await new Promise<void>((drawn) => {
    requestAnimationFrame(() => setTimeout(drawn))
    setTimeout(drawn, LONGEST_MS)
  })
}
