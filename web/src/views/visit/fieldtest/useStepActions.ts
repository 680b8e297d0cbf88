import { actionsOf, carriedOut, type ProcedureStep, type StepAction } from '@uvanta/core/procedure'
import { apparatusOf, restOpeningOf, type Opening } from '@uvanta/core/apparatus'
import type { Notice } from '@uvanta/core/visit'
import { computed, ref, shallowRef, watch } from 'vue'
import { useGauge } from '@/stores/gauge'
import { useVisit } from '@/stores/visit'

/**
 * What hands do in a step: each turn is recorded and, at a virtual site, carried out there. A valve
 * that was turned on the drawing counts when it was the next one.
 */
export function useStepActions(step: () => ProcedureStep) {
  const visit = useVisit()
  const gauge = useGauge()
  const actions = computed(() => actionsOf(step()))
  const done = ref(0)
  // Taken up where it was left, as after a reload or a flat battery.
  const takeUp = () => (done.value = carriedOut(actions.value, visit.state.handsSinceStep))
  watch(step, takeUp, { immediate: true, flush: 'sync' })
  const busy = ref(false)
  const refusal = shallowRef<Notice | null>(null)
  const left = computed(() => actions.value.length - done.value)
  const next = computed(() => actions.value[done.value])

  function record(action: StepAction): Notice | null {
    if (action.kind === 'move') {
      gauge.moved(action.element, action.to)
      return visit.record('valve-moved', { element: action.element, to: action.to })
    }
    if (action.kind === 'apply') {
      gauge.applied(action.source, action.to)
      return visit.record('applied', { source: action.source, to: action.to })
    }
    gauge.hoseMoved(action.hose, action.port)
    const { hose, port } = action
    return visit.record('hose-moved', { hose, ...(port ? { port } : {}) })
  }

  /** Carries out what is left of the step. With a gauge on the line, each turn takes its time. */
  async function carryOut(): Promise<boolean> {
    busy.value = true
    refusal.value = null
    try {
      while (next.value) {
        const action = next.value
        // What the gauge reads after the last turn is the trace of this step.
        gauge.begin()
        refusal.value = record(action)
        if (refusal.value) return false
        done.value++
        if (gauge.virtual) await gauge.wait(action.lastsS)
      }
      return true
    } finally {
      busy.value = false
    }
  }

  /** A valve pressed on the drawing: turned as the step wants it next, else simply over. */
  function turn(element: string): void {
    if (busy.value) return
    const wanted = next.value
    const asked = wanted?.kind === 'move' && wanted.element === element ? wanted.to : null
    const now = positionOf(element)
    const to: Opening = asked ?? (now === 'shut' ? 'open' : 'shut')
    gauge.begin()
    refusal.value = record({ kind: 'move', element, to, lastsS: 0 })
    if (!refusal.value && asked) done.value++
  }

  function positionOf(element: string): Opening {
    const kind = visit.state.plan?.equipment.kind ?? ''
    return visit.state.valves[element] ?? restOpeningOf(apparatusOf(kind), element)
  }

  return { actions, done, left, busy, refusal, carryOut, turn }
}
