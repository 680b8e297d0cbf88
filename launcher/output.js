/** An expected failure: its message says what is wrong and what to do. */
export class LauncherError extends Error {}

let json = false

/** Leaves standard output to one JSON value, which `report` prints; messages go to standard error. */
export function printJson() {
  json = true
}

/** Where the programs that the launcher runs print to: 'inherit', or standard error while JSON is printed. */
export const programOutput = () => (json ? process.stderr : 'inherit')

/** Prints a line for people. */
export function say(line = '') {
  const to = json ? process.stderr : process.stdout
  to.write(`${line}\n`)
}

/** Prints what the launcher does next. @param {string} line */
export const step = (line) => say(`· ${line}`)

/** Prints the result of a command for a program, where one was asked for. @param {unknown} result */
export function report(result) {
  if (json) process.stdout.write(`${JSON.stringify(result ?? {})}\n`)
}

/** @param {LauncherError} error */
export function reportError(error) {
  process.stderr.write(`uvanta: ${error.message}\n`)
  report({ error: error.message })
}
