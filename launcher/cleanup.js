/** @type {(() => unknown)[]} */
let works = []
/** @type {Promise<void> | null} */
let ending = null

/**
 * Does something when the command ends, however it ends; what was begun last is ended first.
 * @param {() => unknown} work
 */
export function atEnd(work) {
  works.push(work)
}

/** Whether the command is being ended: nothing is started any more. */
export const isEnding = () => ending !== null

/** Ends everything that was begun, once, whoever asks for it meanwhile. */
export function endAll() {
  ending ??= endEach().finally(() => (ending = null))
  return ending
}

async function endEach() {
  const last = works.reverse()
  works = []
  for (const work of last) await work()
}
