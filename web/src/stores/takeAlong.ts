import type { VisitRow } from '@uvanta/contract'
import { api } from 'virtual:api'
import { defineStore } from 'pinia'
import { computed, ref } from 'vue'
import { ApiProblem, keepAnswer } from '@/api/client'
import { asOf } from '@/api/kept'

/** Places that are opened ahead, so that the device keeps what they show. */
const AT_ONCE = 3
/** What was taken along of equipment is not fetched again for so long: a day is opened many times over. */
const FRESH_MS = 30 * 60_000

/** From when something is kept here; undefined where it is not. */
interface Taken {
  readonly at: string | undefined
}

/** What is taken into the pit: the visits ahead with their equipment, the know-how, gauges and stock. */
export const useTakeAlong = defineStore('take-along', () => {
  const taken = ref(0)
  /** What of it could not be had: tags of visits, and what all of them need. */
  const missing = ref<readonly string[]>([])
  /** Whether something came and this device had no room for it. */
  const full = ref(false)
  /** What this device has left to keep things in, and whether it keeps them when that runs short. */
  const room = ref<{ readonly free: number; readonly kept: boolean } | null>(null)
  /** When what is here came: the oldest of it. */
  const at = ref('')
  const ready = computed(() => at.value !== '' && missing.value.length === 0)

  /** Fetches what the visits need; without a line it says what the device still has. */
  async function take(visits: readonly VisitRow[]): Promise<void> {
    if (asOf.value) return
    const jobs: readonly (readonly [of: string, job: () => Promise<Taken>])[] = [
      ['the know-how', () => keepAnswer(api.library.read)],
      ['the know-how', () => keepAnswer(api.library.earlier)],
      ['gauges', () => keepAnswer(api.gauges.list)],
      ['gauges', () => keepAnswer(api.gauges.link)],
      ['stock', () => keepAnswer(api.stock.list)],
      ...visits.flatMap(({ id, equipment: { id: equipmentId, tag } }) => {
        const equipment = { params: { id: equipmentId } }
        return [
          [tag, () => keepAnswer(api.visits.read, { params: { id } })],
          [tag, () => keepAnswer(api.register.readEquipment, equipment, FRESH_MS)],
          [tag, () => takeHistory(equipmentId)],
          [tag, () => keepAnswer(api.register.station, equipment, FRESH_MS)],
        ] as const
      }),
    ]
    taken.value = 0
    const lost = new Set<string>()
    const since: string[] = []
    let noRoom = false
    let next = 0
    const work = async () => {
      for (let one = jobs[next++]; one; one = jobs[next++]) {
        const [of, job] = one
        try {
          const { at: keptAt } = await job()
          if (keptAt) since.push(keptAt)
          else {
            lost.add(of)
            noRoom = true
          }
        } catch (error) {
          if (!(error instanceof ApiProblem)) throw error
          lost.add(of)
        }
      }
    }
    await Promise.all(Array.from({ length: AT_ONCE }, work))
    missing.value = [...lost]
    full.value = noRoom
    taken.value = visits.length
    at.value = since.sort()[0] ?? new Date().toISOString()
  }

  /** What was found before, and the log of the last visit that was closed. */
  async function takeHistory(id: VisitRow['equipment']['id']): Promise<Taken> {
    const history = await keepAnswer(api.register.history, { params: { id } }, FRESH_MS)
    const last = history.answer().items.find((v) => v.state === 'signed')
    if (!last || !history.at) return history
    const log = await keepAnswer(api.visits.read, { params: { id: last.visitId } }, FRESH_MS)
    return log.at && log.at > history.at ? history : log
  }

  /** Asks the browser not to clear away what is kept when room is short. */
  async function settle(): Promise<void> {
    if (!('storage' in navigator)) return
    const kept = await navigator.storage.persist()
    const { quota, usage } = await navigator.storage.estimate()
    if (quota !== undefined) room.value = { free: Math.max(0, quota - (usage ?? 0)), kept }
  }

  return { taken, missing, full, at, ready, room, take, settle }
})
