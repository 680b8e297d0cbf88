import type { Guide } from '../schema/guide'
import { type Say, title } from './rule'
import type { ProofState } from './state'

/** A finding that the way taken does nothing about. */
function findingFaults(guide: Guide, state: ProofState, say: Say): void {
  for (const [part, finding] of state.inspected) {
    if (finding === 'renew' && !state.renewed.has(part))
      say(
        'not-mended',
        `${title(guide, part)} was found worn and is not renewed under that finding`,
      )
    if (finding === 'clean' && !state.cleaned.has(part) && !state.renewed.has(part))
      say(
        'not-cleaned',
        `${title(guide, part)} was found dirty and is not cleaned under that finding`,
      )
    if (finding === 'turn-over' && !state.temporary)
      say(
        'not-temporary',
        `${title(guide, part)} is turned over, and nothing says that this is temporary: add “temporary” with its date`,
      )
    if (finding === 'turn-over' && !state.refitted.has(part))
      say(
        'not-turned',
        `${title(guide, part)} is to be turned over, and neither comes off nor goes back: add both`,
      )
  }
}

/** What must not be when a guide ends. */
export function endFaults(guide: Guide, state: ProofState, say: Say): void {
  findingFaults(guide, state, say)
  for (const p of state.off)
    say('left-on-tray', `${title(guide, p)} is left on the tray: fit it, or discard and renew it`)
  for (const p of state.gone)
    say(
      'not-renewed',
      `${title(guide, p)} was thrown away and never renewed: add “renew” from the kit`,
    )
  for (const f of state.loose) {
    const fastener = guide.fasteners?.find((x) => x.id === f)
    say('left-loose', `${fastener?.title ?? f} is loosened and never tightened`)
  }
  for (const a of state.aids) say('aid-left', `“${a}” is left in: take it out`)
  for (const a of state.disturbed)
    say('not-set', `the setting “${a}” was disturbed and never set again`)
  for (const a of state.snapshots)
    say('not-restored', `the as-found setting “${a}” is never restored`)
  for (const m of state.marks) say('mark-unmatched', `the witness mark “${m}” is never matched`)
  for (const v of state.shut) say('left-shut', `“${v}” is shut and never opened again`)
  for (const v of state.cracked)
    say('left-cracked', `“${v}” is opened in part and never fully: add a step that opens it`)
  for (const v of state.openVents) say('vent-open', `“${v}” is opened and never shut again`)
  if (state.air) say('air-left-on', 'the air is left on')
  if (!state.power && guide.steps.some((s) => s.power !== undefined))
    say('power-left-off', 'the power is never put on again')
  if (state.opened && !state.tested)
    say('untested', 'something was opened and no function test follows: add “test”')
}
