import { wrap } from 'comlink'
import { onScopeDispose, ref, shallowRef } from 'vue'
import type { Table, TableReading } from '@/workers/table'

/** Read at once, in memory. */
const MOST_BYTES = 50_000_000

/** A table in a file of whoever sits there: it is read beside the page, which can put an end to it. */
export function useTable() {
  const table = shallowRef<Table | null>(null)
  const name = ref('')
  const reading = ref(false)
  const fault = ref('')
  let stop = () => {}
  onScopeDispose(() => stop())

  async function read(file: File): Promise<void> {
    stop()
    table.value = null
    fault.value = ''
    name.value = file.name
    if (file.size > MOST_BYTES) {
      fault.value = 'This file is larger than 50 MB. Save the table in parts, and bring in each.'
      return
    }
    const worker = new Worker(new URL('@/workers/table.ts', import.meta.url), { type: 'module' })
    const stopped = new Promise<null>((resolve) => {
      stop = () => resolve(null)
    })
    reading.value = true
    try {
      const found = await Promise.race([wrap<TableReading>(worker).table(file), stopped])
      if (found && found.lines.length === 0)
        fault.value = 'There is no line below the first, which is taken for the headings.'
      else table.value = found
    } catch {
      fault.value = 'This is no table that can be read: save it as CSV or XLSX, and choose that.'
    } finally {
      worker.terminate()
      reading.value = false
    }
  }

  return { table, name, reading, fault, read, stop: () => stop() }
}
