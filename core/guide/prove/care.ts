import { barsLeft, liesOver, type Machine, type MachinePart, placeOf } from '../../machine'
import { type GuidePart, standsFor } from '../schema/equipment'
import type { Guide } from '../schema/guide'
import type { PlacedStep } from '../schema/step'
import type { Say } from './rule'

/** How the machine stands at a step, by its own parts. */
export interface Assembled {
  readonly parts: readonly MachinePart[]
  /** What is off at this moment. */
  readonly off: ReadonlySet<string>
}

/** Kinds of which a sound look is no proof: what is wrong with them fails the test, or leaks a year later. */
const JUDGED: readonly string[] = [
  'spring',
  'seat',
  'piston',
  'stem',
  'disc',
  'diaphragm',
  'screen',
  'bush',
  'ring',
]

const staysDry = ({ lubricant }: MachinePart) =>
  lubricant?.use === 'never' || lubricant?.use === 'dry'

/**
 * Watches over what is done for the parts of a machine besides taking them off and putting them in: each is cleaned
 * and looked at while it can be reached, lubricated where the machine says so and nowhere else, judged before it goes
 * back, and tried by hand where it has to move.
 */
export class Care {
  /** Put in on this way, and not taken off again since. */
  private readonly cleaned = new Set<string>()
  private readonly put = new Set<string>()
  private readonly taken = new Set<string>()
  private readonly refitted = new Set<string>()
  private readonly lubricated = new Set<string>()
  private readonly judged = new Set<string>()
  private warned = false
  private readonly rested = new Set<string>()
  private readonly tried = new Set<string>()

  constructor(
    private readonly guide: Guide,
    private readonly machine: Machine,
    private readonly parts: readonly MachinePart[],
  ) {}

  /** Looks at a step before it changes anything. */
  before(step: PlacedStep, now: Assembled, say: Say): void {
    this.strangers(step, say)
    this.warned ||= step.gate === 'hazard'
    if (this.machine.hazard && !this.warned && (step.loosen ?? step.remove))
      say(
        'unwarned',
        `nobody has confirmed: ${this.machine.hazard} Put the gate “hazard” before it`,
      )
    for (const part of this.own(step.clean)) this.cleaned.add(part.id)
    for (const part of this.own(step.clean)) this.reached(part, now, say)
    for (const part of this.own(step.inspect)) {
      this.judged.add(part.id)
      if (part.kind === 'body' && now.off.size === 0)
        say('unseen', `${part.title} is looked at from inside while nothing is off: open it first`)
    }
    const greased = this.own(step.lubricate ?? step.treat)
    if (step.lubricate && greased.length > 0 && greased.every(staysDry))
      say('never-there', `${greased[0]?.title} stays dry on this machine: take the lubricant off`)
    for (const { id } of greased) this.lubricated.add(id)
    const hidden = greased.map((part) => (now.off.has(part.id) ? [] : this.over(part, now)))
    // Of several one may cover the others: the film is on the outermost.
    if (greased.length > 0 && hidden.every((over) => over.length > 0))
      say(
        'out-of-reach',
        `${greased[0]?.title} is lubricated behind ${hidden.flat()[0]?.title}: do it before that goes on`,
      )
    for (const { id } of (step.hold ? (step.of ?? []) : []).flatMap((part) => this.own(part)))
      this.rested.add(id)
    for (const { id } of (step.trial ? (step.of ?? []) : []).flatMap((part) => this.own(part)))
      if (this.put.has(id)) this.tried.add(id)
    for (const { id } of this.own(step.remove)) {
      this.put.delete(id)
      this.taken.add(id)
      this.tried.delete(id)
    }
  }

  /** Looks at what a step has put in, with the machine as it stands now. */
  after(step: PlacedStep, now: Assembled, say: Say): void {
    const put = this.own(step.fit ?? step.renew)
    for (const part of put) {
      // What goes in as one bars none of its own.
      const bars = this.barsIn(part, now).filter((p) => !put.includes(p))
      if (bars.length > 0)
        say(
          'barred-in',
          `${part.title} cannot go in behind ${bars.map((p) => p.title).join(', ')}: fit it before`,
        )
      this.put.add(part.id)
      if (step.fit) this.refitted.add(part.id)
    }
  }

  /** Looks back once a way is walked. */
  atEnd(say: Say): void {
    for (const part of this.parts) {
      const { id, lubricant, defects, title } = part
      const wanted = lubricant?.use === 'film' || lubricant?.use === 'pack'
      if (wanted && this.put.has(id) && this.taken.has(id) && !this.isLubricated(part))
        say(
          'left-dry',
          `${title} goes in dry, and the machine wants it lubricated: ${lubricant.say ?? 'add “lubricate”'}`,
        )
      if (defects && JUDGED.includes(part.kind) && this.refitted.has(id) && !this.judged.has(id))
        say(
          'unjudged',
          `${title} came off and goes back unjudged: inspect it, it may be ${defects.map((d) => d.what).join(', ')}`,
        )
      if (part.kind === 'body' && this.carriesRubber(part) && !this.cleaned.has(id))
        say('dirty', `rubber goes into ${title}, and nobody has cleaned it: add “clean”`)
      const opened = this.parts.some((p) => p.of === id && this.taken.has(p.id))
      if (defects && part.kind === 'body' && opened && !this.judged.has(id))
        say(
          'unjudged',
          `${title} is opened and nobody looks into it: inspect it, it may be ${defects.map((d) => d.what).join(', ')}`,
        )
      if (part.rests && this.put.has(id) && this.taken.has(id) && !this.rested.has(id))
        say('unrested', `${title} is stretched as it goes on, and is given no time: add “hold”`)
      if (part.tried && this.put.has(id) && this.taken.has(id) && !this.tried.has(id))
        say('untried', `${title} goes in and is tried by nobody: ${part.tried}`)
    }
  }

  /** Whether rubber was put into, onto or around it. */
  private carriesRubber({ id }: MachinePart): boolean {
    return this.parts.some((p) => p.of === id && p.material === 'rubber' && this.put.has(p.id))
  }

  /** Metal by what runs in it or on it; rubber by itself, or by what lies over it in its groove. */
  private isLubricated({ id, of, material, behind = [] }: MachinePart): boolean {
    if (this.lubricated.has(id)) return true
    if (material === 'rubber')
      return this.parts.some(
        (p) => behind.includes(p.id) && p.of === of && this.lubricated.has(p.id),
      )
    return this.parts.some((p) => this.lubricated.has(p.id) && (p.of === id || p.id === of))
  }

  private own(id: string | undefined): MachinePart[] {
    const part = this.guidePart(id)
    // What is no part of the guide may be fasteners, which carry the machine’s name.
    return this.parts.filter((p) => (part ? standsFor(part).includes(p.id) : p.id === id))
  }

  private guidePart(id: string | undefined): GuidePart | undefined {
    return this.guide.parts.find((p) => p.id === id)
  }

  /** A step that handles what this build has not got. */
  private strangers(step: PlacedStep, say: Say): void {
    const name = step.remove ?? step.fit ?? step.renew ?? step.inspect ?? step.lubricate
    const part = this.guidePart(name)
    if (part && this.own(name).length === 0)
      say(
        'not-built',
        `${part.title} is no part of this build: give the step “only” with the variants that have it`,
      )
  }

  /** What has been put in, on or around a part bars the rag from it. */
  private reached(part: MachinePart, now: Assembled, say: Say): void {
    // In its place again, what was put on it lies on its other side.
    if (this.put.has(part.id)) return
    const on = this.parts.filter(
      (p) =>
        p.of === part.id &&
        this.put.has(p.id) &&
        placeOf(this.parts, p.id, now.off) === placeOf(this.parts, part.id, now.off),
    )
    if (on.length > 0)
      say(
        'late',
        `${part.title} is cleaned when ${on.map((p) => p.title).join(', ')} is on it again: do it before`,
      )
  }

  private over(part: MachinePart, { off }: Assembled): MachinePart[] {
    const names = part.hidden ?? part.behind ?? []
    return this.parts.filter((p) => names.includes(p.id) && !off.has(p.id))
  }

  /** What stands before the place of a part that has just gone in. */
  private barsIn(part: MachinePart, { off }: Assembled): MachinePart[] {
    // On the bench it goes on from whichever side is free, but under nothing that lies round it already.
    if (placeOf(this.parts, part.id, off) !== undefined)
      return this.parts.filter(
        (p) =>
          p.of === part.of &&
          !off.has(p.id) &&
          (part.behind?.includes(p.id) ?? false) &&
          liesOver(this.machine, p, part),
      )
    const bars = barsLeft(this.parts, part.id, off)
    return this.parts.filter(
      (p) =>
        bars.has(p.id) &&
        p.kind !== 'fastener' &&
        (part.behind?.includes(p.id) ?? false) &&
        placeOf(this.parts, p.id, off) === undefined,
    )
  }
}
