import { expose } from 'comlink'
import { parse } from 'papaparse'
import { readSheet } from 'read-excel-file/web-worker'

/** What a file holds: its first line as headings, and the lines below that say anything. */
export interface Table {
  readonly headings: readonly string[]
  readonly lines: readonly {
    /** Where it stands in the file, the headings being 1. */
    readonly line: number
    readonly cells: readonly string[]
  }[]
}

/** A packed sheet begins like every such archive. */
const isSheet = (bytes: Uint8Array) => bytes[0] === 0x50 && bytes[1] === 0x4b

const reading = {
  /** Reads a table of text, or the first sheet of a workbook. @throws what the packages say of a file that is neither */
  async table(file: File): Promise<Table> {
    const bytes = await file.arrayBuffer()
    const rows = isSheet(new Uint8Array(bytes, 0, Math.min(2, bytes.byteLength)))
      ? (await readSheet(bytes)).map((row) => row.map(textOf))
      : parse<string[]>(decoded(bytes)).data
    const [headings = [], ...below] = rows.map((row) => row.map((cell) => cell.trim()))
    return {
      headings,
      lines: below
        .map((cells, n) => ({ line: n + 2, cells }))
        .filter(({ cells }) => cells.some((cell) => cell !== '')),
    }
  },
}
export type TableReading = typeof reading

function textOf(cell: unknown): string {
  if (cell === null || cell === undefined) return ''
  return cell instanceof Date ? cell.toISOString().slice(0, '2026-11-24'.length) : String(cell)
}

/** What is no UTF-8 was written by an office program of before. */
function decoded(bytes: ArrayBuffer): string {
  try {
    return new TextDecoder('utf-8', { fatal: true }).decode(bytes)
  } catch {
    return new TextDecoder('windows-1252').decode(bytes)
  }
}

expose(reading)
