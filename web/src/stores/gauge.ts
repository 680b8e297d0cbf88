import { api } from 'virtual:api'
import { apparatusOf } from '@uvanta/core/apparatus'
import { type AnyQuantity, type Dimension, toSi } from '@uvanta/core/quantity'
import type { PayloadOf } from '@uvanta/core/visit'
import { ask } from '@uvanta/core/instrument'
import { useStorage } from '@vueuse/core'
import { defineStore } from 'pinia'
import { computed, ref, shallowRef } from 'vue'
import { call } from '@/api/client'
import type { GaugeDriver } from '@/gauge/driver'
import { GaugeLink, type LinkView } from '@/gauge/link'
import { chooseSerialPort, serialDriver, serialSupported } from '@/gauge/serialDriver'
import { socketDriver } from '@/gauge/socketDriver'
import { useVisit } from './visit'

/** Where readings come from. */
export type ReadingSource = 'typed' | 'simulated' | 'serial'

/** Inwards is positive. */
const turnsOf = ({ way, turns }: Pick<PayloadOf<'adjusted'>, 'way' | 'turns'>) =>
  way === 'in' ? Number(turns) : -Number(turns)

/** A channel of a recorder that has said nothing for so long is off, s. */
const RECENT_S = 3
/** Beyond what the samples should take, a wait ends by the clock: the link may have dropped out. */
const PATIENCE = 1.5
const PATIENCE_MS = 2_000
/** Faster nobody reads a figure. */
const SHOWN_EVERY_MS = 100

/** The test gauge on the line, and the samples since the present reading began. */
export const useGauge = defineStore('gauge', () => {
  const visit = useVisit()
  const simulatedUrl = ref<string | null>(null)
  /** Whether it has been asked where readings can come from: before that no gauge is there, and none is missing. */
  const known = ref(false)
  const wanted = useStorage<ReadingSource | ''>('uvanta-reading-source', '')
  const view = shallowRef<LinkView | null>(null)
  const link = shallowRef<GaugeLink | null>(null)
  /** Sample at which the trace of the present step begins. */
  const began = ref(0)
  /** The item that is read at present. */
  const item = ref<string | null>(null)

  const sources = computed<{ id: ReadingSource; title: string }[]>(() => [
    ...(simulatedUrl.value ? [{ id: 'simulated' as const, title: 'Simulated gauge' }] : []),
    ...(serialSupported() ? [{ id: 'serial' as const, title: 'Gauge at the USB port' }] : []),
    { id: 'typed' as const, title: 'Read and typed in' },
  ])
  const source = computed<ReadingSource>(
    () => sources.value.find((s) => s.id === wanted.value)?.id ?? sources.value[0]?.id ?? 'typed',
  )
  const places = computed(() => apparatusOf(visit.state.plan?.equipment.kind ?? '')?.places ?? [])
  /** Quantities that an instrument on the line can show of this equipment. */
  const streams = computed(() => apparatusOf(visit.state.plan?.equipment.kind ?? '')?.streams ?? [])
  /** What the present step reads; before the first one, what the equipment is mostly read for. */
  const reads = ref<Dimension | null>(null)
  const dimension = computed(() => reads.value ?? streams.value[0] ?? 'differential')
  const streaming = computed(() => link.value !== null)
  const virtual = computed(() => link.value?.driver.virtual ?? false)
  const periodS = computed(() => view.value?.hello?.periodS ?? 0.1)

  async function load(): Promise<void> {
    try {
      simulatedUrl.value = (await call(api.gauges.link)).url
    } finally {
      known.value = true
    }
  }

  function driverOf(kind: ReadingSource): GaugeDriver | null {
    if (kind === 'simulated' && simulatedUrl.value) return socketDriver(simulatedUrl.value)
    if (kind === 'serial') return serialDriver(chooseSerialPort)
    return null
  }

  /**
   * Puts the chosen gauge on the line, at once where it is known: what appears late moves what is being pressed.
   * Harmless when it is there already.
   */
  async function open(): Promise<void> {
    const isOpen = () => link.value !== null
    if (isOpen()) return
    // Before it is known what there is, the first choice may be another. Where nobody answers, readings are typed.
    if (!known.value || source.value === 'typed') await load().catch(() => undefined)
    const driver = driverOf(source.value)
    // Opened by somebody else while the sources were read.
    if (!driver || isOpen()) return
    link.value = new GaugeLink(driver, heard, introduction)
    link.value.start()
  }

  let latest: LinkView | null = null
  let later: ReturnType<typeof setTimeout> | undefined
  /** Figures are shown so often as somebody reads them; how the link stands and what was seen, at once. */
  function heard(now: LinkView): void {
    latest = now
    const before = view.value
    const news =
      before?.state !== now.state ||
      before.hello !== now.hello ||
      before.says !== now.says ||
      before.seenAt !== now.seenAt
    if (news) showLatest()
    else later ??= setTimeout(showLatest, SHOWN_EVERY_MS)
  }
  function showLatest(): void {
    clearTimeout(later)
    later = undefined
    if (link.value) view.value = latest
  }

  function close(): void {
    clearTimeout(later)
    later = undefined
    link.value?.stop()
    link.value = null
    view.value = null
    began.value = 0
    item.value = null
    reads.value = null
  }

  function choose(kind: ReadingSource): void {
    if (kind !== source.value) close()
    wanted.value = kind
  }

  /** What a virtual site has to know of the visit when the line is opened. */
  function introduction(): string[] {
    const { plan, repairs, valves, hoses, applied, adjusted } = visit.state
    if (!plan || !virtual.value) return []
    const { id, kind, sizeIn } = plan.equipment
    const services = repairs.flatMap((r) => r.services ?? [])
    return [
      ask.site(id, kind, sizeIn),
      ...services.map((s) => ask.service(s.element, s.service)),
      // Said again so that the model is built with what was done to it.
      ...(services.length > 0 ? [ask.site(id, kind, sizeIn)] : []),
      ...Object.entries(hoses).map(([hose, port]) => ask.hose(hose, port)),
      ...Object.entries(valves).map(([element, to]) => ask.move(element, to)),
      ...Object.entries(applied).map(([source, to]) => ask.apply(source, toSi(to))),
      ...adjusted.map((a) => ask.adjust(a.adjuster, turnsOf(a))),
      ...(item.value && reads.value ? [ask.show(item.value, reads.value)] : []),
    ]
  }

  function moved(element: string, to: Parameters<typeof ask.move>[1]): void {
    if (virtual.value) link.value?.turn(ask.move(element, to))
  }
  function hoseMoved(hose: string, port: string | null): void {
    if (virtual.value) link.value?.turn(ask.hose(hose, port))
  }
  function applied(source: string, to: AnyQuantity): void {
    if (virtual.value) link.value?.turn(ask.apply(source, toSi(to)))
  }
  function adjusted(turn: PayloadOf<'adjusted'>): void {
    if (virtual.value) link.value?.turn(ask.adjust(turn.adjuster, turnsOf(turn)))
  }
  /** The present step reads this item, of this quantity. */
  function show(next: string, of: Dimension): void {
    item.value = next
    reads.value = of
    if (virtual.value) link.value?.send(ask.show(next, of))
  }
  function heldAt(metres: number): void {
    if (virtual.value) link.value?.send(ask.height(metres))
  }

  /** The trace begins here. */
  function begin(): void {
    began.value = link.value?.samples.length ?? 0
  }

  /** The first sample of the trace: none that was taken before the last turn was carried out. */
  const first = () => Math.max(began.value, link.value?.turnedAt ?? 0)

  /** Samples since the trace began. */
  function trace(): Float64Array {
    if (!link.value || link.value.turning) return new Float64Array(0)
    return link.value.samples.since(first())
  }

  /** What the recorder’s other channels showed since the trace began, by its samples. */
  function channels(): { place: string; unit: string; points: { at: number; value: number }[] }[] {
    const from = first()
    const length = (link.value?.samples.length ?? 0) - from
    return [...(link.value?.channels ?? [])]
      .map(([place, channel]) => ({
        place,
        unit: channel.unit,
        points: channel.since(from).map((p) => ({ ...p, at: p.at - from })),
      }))
      .filter(({ points }) => (points.at(-1)?.at ?? -Infinity) > length - RECENT_S / periodS.value)
  }

  /**
   * The sample of the trace at which something was first seen to open at a virtual site, whose time
   * may run fast.
   */
  function seenAt(): number | undefined {
    const at = view.value?.seenAt.find((n) => n > first())
    return virtual.value && at !== undefined ? at - first() : undefined
  }

  /** Waits so many seconds of the gauge’s time, from when the last turn is carried out. */
  function wait(seconds: number): Promise<void> {
    const line = link.value
    if (!line || seconds <= 0) return Promise.resolve()
    const wanted = Math.round(seconds / periodS.value)
    const from = line.samples.length
    const isOver = () =>
      !line.turning && line.samples.length - Math.max(from, line.turnedAt) >= wanted
    const deadline = Date.now() + PATIENCE * seconds * 1000 + PATIENCE_MS
    return new Promise((resolve) => {
      const look = () => {
        if (isOver() || Date.now() > deadline || !link.value) resolve()
        else setTimeout(look, 40)
      }
      look()
    })
  }

  return {
    known,
    sources,
    source,
    view,
    streams,
    places,
    dimension,
    streaming,
    virtual,
    periodS,
    load,
    open,
    close,
    choose,
    moved,
    hoseMoved,
    applied,
    adjusted,
    show,
    heldAt,
    begin,
    trace,
    channels,
    seenAt,
    wait,
  }
})
