import type { VisitRow } from '@uvanta/contract'
import { api } from 'virtual:api'
import { defineStore } from 'pinia'
import { computed, ref } from 'vue'
import { ApiProblem, keepAnswer } from '@/api/client'
import { asOf } from '@/api/kept'

/** Places that are opened ahead, so that the device keeps what they show. */
const AT_ONCE = 3

/** What is taken into the pit: the visits ahead with their equipment, the know-how, gauges and stock. */
export const useTakeAlong = defineStore('take-along', () => {
  const taken = ref(0)
  const wanted = ref(0)
  const missing = ref(0)
  /** When everything was last here. */
  const at = ref('')
  const ready = computed(() => at.value !== '' && missing.value === 0)

  /** Fetches what the visits need; without a line it says what the device still has. */
  async function take(visits: readonly VisitRow[]): Promise<void> {
    if (asOf.value) return
    const jobs = [
      () => keepAnswer(api.library.read),
      () => keepAnswer(api.library.earlier),
      () => keepAnswer(api.gauges.list),
      () => keepAnswer(api.gauges.link),
      () => keepAnswer(api.stock.list),
      ...visits.flatMap((v) => {
        const equipment = { params: { id: v.equipment.id } }
        return [
          () => keepAnswer(api.visits.read, { params: { id: v.id } }),
          () => keepAnswer(api.register.readEquipment, equipment),
          () => keepAnswer(api.register.history, equipment),
          () => keepAnswer(api.register.station, equipment),
        ]
      }),
    ]
    wanted.value = visits.length
    taken.value = 0
    missing.value = 0
    let next = 0
    const work = async () => {
      for (let job = jobs[next++]; job; job = jobs[next++]) {
        try {
          await job()
        } catch (error) {
          if (!(error instanceof ApiProblem)) throw error
          missing.value += 1
        }
      }
    }
    await Promise.all(Array.from({ length: AT_ONCE }, work))
    taken.value = visits.length
    at.value = new Date().toISOString()
  }

  /** Asks the browser not to clear away what is kept when room is short. */
  async function settle(): Promise<void> {
    if ('storage' in navigator) await navigator.storage.persist()
  }

  return { taken, wanted, missing, at, ready, take, settle }
})
