/**
 * A way to a test gauge: lines in, lines out. The stand-in over WebSocket and an instrument behind
 * a serial port are two of them; a typed reading needs none.
 */
export interface GaugeDriver {
  /** What it is called where it is chosen. */
  readonly title: string
  /** A virtual site stands behind it: it is told which valves are turned and which hoses are moved. */
  readonly virtual: boolean
  /** Opens the way. Calls `closed` once when it ends, however that comes. Rejects when it cannot be opened. */
  open(hear: (line: string) => void, closed: () => void): Promise<void>
  send(line: string): void
  close(): void
}

/** Puts chunks together to lines, as they come from a port or a socket. */
export function lineReader(hear: (line: string) => void): (chunk: string) => void {
  /** A gauge’s line is short; more than this without an end is noise. */
  const longest = 500
  let rest = ''
  return (chunk) => {
    const lines = (rest + chunk).split(/\r?\n/)
    rest = (lines.pop() ?? '').slice(-longest)
    for (const line of lines) if (line) hear(line.slice(0, longest))
  }
}
