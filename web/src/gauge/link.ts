import { ask, type GaugeHello, type GaugeSight, parseMessage } from '@uvanta/core/instrument'
import type { GaugeDriver } from './driver'
import { Channel } from './channel'
import { Samples } from './samples'

/** How the link to a gauge stands. */
export type LinkState = 'off' | 'connecting' | 'live' | 'silent' | 'rubbish' | 'lost'

export interface LinkView {
  readonly state: LinkState
  readonly hello: GaugeHello | null
  readonly value: number | null
  /** Percent; null until the gauge says it. */
  readonly battery: number | null
  /** What can be seen at a virtual site. */
  readonly sight: GaugeSight | null
  readonly samples: number
  /** How many samples there were each time something was seen to lift or to trip. */
  readonly seenAt: readonly number[]
  /** What the gauge complains of, or why it cannot be reached. */
  readonly says: string
}

const SILENT_MS = 2_500
const RETRY_MS = 1_500
/** So many damaged lines in a row are no accident. */
const RUBBISH_LINES = 5
const MOST_LOST = 600

const nothing: LinkView = {
  state: 'off',
  hello: null,
  value: null,
  battery: null,
  sight: null,
  samples: 0,
  seenAt: [],
  says: '',
}

/**
 * Keeps a gauge on the line: says hello, starts it, reads what it sends, and connects again when it
 * drops out. Samples that were taken stay; lost ones are marked as lost.
 */
export class GaugeLink {
  readonly samples = new Samples()
  /** What a recorder shows beside, by place. */
  readonly channels = new Map<string, Channel>()
  private view: LinkView = nothing
  private wanted = false
  private damaged = 0
  /** Lines since the line was opened. */
  private sent = 0
  /** With this line the last turn at a virtual site will have been carried out; null when it was. */
  private awaited: number | null = null
  /** How many samples there were when it was. */
  turnedAt = 0
  private retry: ReturnType<typeof setTimeout> | undefined
  private watch: ReturnType<typeof setTimeout> | undefined

  constructor(
    readonly driver: GaugeDriver,
    private readonly changed: (view: LinkView) => void,
    /** What a virtual site has to be told whenever the line is opened. */
    private readonly introduce: () => readonly string[],
  ) {}

  start(): void {
    if (this.wanted) return
    this.wanted = true
    void this.connect()
  }

  stop(): void {
    this.wanted = false
    clearTimeout(this.retry)
    clearTimeout(this.watch)
    this.driver.send(ask.stop())
    this.driver.close()
    this.set(nothing)
  }

  send(line: string): void {
    this.sent++
    this.driver.send(line)
  }

  /** Changes something at a virtual site: what is on its way meanwhile was taken before. */
  turn(line: string): void {
    this.send(line)
    this.awaited = this.sent
  }

  /** Whether a turn has not been carried out yet. */
  get turning(): boolean {
    return this.awaited !== null
  }

  private async connect(): Promise<void> {
    this.set({ state: this.view.hello ? 'lost' : 'connecting' })
    try {
      await this.driver.open(
        (line) => this.hear(line),
        () => this.closed(),
      )
      this.damaged = 0
      this.sent = 0
      this.send(ask.hello())
      for (const line of this.introduce()) this.send(line)
      // What was being turned when the line went is among what it was told now.
      if (this.turning) this.awaited = this.sent
      this.send(ask.start())
      this.expectSomething()
    } catch (error) {
      this.set({ says: error instanceof Error ? error.message : 'The gauge does not answer.' })
      this.closed()
    }
  }

  private closed(): void {
    clearTimeout(this.watch)
    if (!this.wanted) return
    this.set({ state: 'lost', value: null, sight: null })
    clearTimeout(this.retry)
    this.retry = setTimeout(() => {
      this.samples.restart(1)
      void this.connect()
    }, RETRY_MS)
  }

  private expectSomething(): void {
    clearTimeout(this.watch)
    this.watch = setTimeout(() => this.set({ state: 'silent', value: null }), SILENT_MS)
  }

  private hear(line: string): void {
    if (!this.wanted) return
    this.expectSomething()
    const message = parseMessage(line)
    if (!message) {
      this.damaged++
      if (this.damaged >= RUBBISH_LINES) this.set({ state: 'rubbish', value: null })
      return
    }
    this.damaged = 0
    switch (message.type) {
      case 'hello':
        return this.set({ hello: message, says: '' })
      case 'sample':
        this.samples.add(message.seq, message.value, MOST_LOST)
        return this.set({ state: 'live', value: message.value, samples: this.samples.length })
      case 'channel':
        return this.beside(message.place, message.unit).add(this.samples.length, message.value)
      case 'battery':
        return this.set({ battery: message.percent })
      case 'sight':
        return this.see(message)
      case 'done':
        return this.carriedOut(message.lines)
      case 'trouble':
        return this.set({ says: message.says })
    }
  }

  private carriedOut(lines: number): void {
    if (this.awaited === null || lines < this.awaited) return
    this.awaited = null
    this.turnedAt = this.samples.length
  }

  private beside(place: string, unit: string): Channel {
    const known = this.channels.get(place)
    if (known?.unit === unit) return known
    const fresh = new Channel(unit)
    this.channels.set(place, fresh)
    return fresh
  }

  private see(sight: GaugeSight): void {
    const before = this.view.sight?.lifted ?? []
    const opened = sight.lifted.some((id) => !before.includes(id))
    const { seenAt } = this.view
    this.set({ sight, ...(opened ? { seenAt: [...seenAt, this.samples.length] } : {}) })
  }

  private set(change: Partial<LinkView>): void {
    this.view = { ...this.view, ...change }
    this.changed(this.view)
  }
}
