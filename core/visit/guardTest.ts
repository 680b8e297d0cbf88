import { testPlanOf } from '../library'
import { validOn } from '../programme'
import { isKind, type RunName, type VisitEvent } from './events'
import type { Station } from './stations'
import { localDateOf } from './fold'
import { missingItems } from './judgement'
import { atStation, type GuardContext, type Refusal, refuse } from './refusal'
import type { VisitState } from './state'

const runStation = (run: RunName): Station => run

export function guardStart(
  state: VisitState,
  event: VisitEvent<'test-started'>,
  context: GuardContext,
): Refusal | null {
  const { run, gauge, licence } = event.payload
  const place = atStation(state, runStation(run))
  if (place) return place
  const today = localDateOf(event)
  if (!validOn(today, gauge.calibratedOn, gauge.calibrationUntil)) {
    return refuse(
      `Gauge ${gauge.tag} is not in calibration on ${today} (${gauge.calibratedOn} to ${gauge.calibrationUntil}).`,
      'Choose a gauge whose calibration covers today.',
    )
  }
  const plan = planOf(state, context)
  if ('why' in plan) return plan
  const held = context.person.licences.find(
    (l) => l.kind === plan.pack.licence && l.number === licence.number,
  )
  if (!held || licence.kind !== plan.pack.licence) {
    return refuse(
      `This test needs the licence “${plan.pack.licence}”, and ${licence.number} is not one of yours.`,
      'Ask the administrator to enter your licence, or hand the visit to a licensed tester.',
    )
  }
  if (held.expiresOn < today) {
    return refuse(
      `Licence ${held.number} expired on ${held.expiresOn}.`,
      'Hand the visit to a licensed tester, or have the renewal entered.',
    )
  }
  if (event.payload.procedureId !== plan.procedure.id) {
    return refuse(
      `The rule pack in force asks for ${plan.procedure.title}.`,
      'Start the test again with that procedure.',
    )
  }
  return null
}

function planOf(state: VisitState, context: GuardContext) {
  if (!state.plan?.packId)
    return refuse(
      'No rule pack has a field test for this kind of equipment.',
      'Record its function check instead.',
    )
  try {
    return testPlanOf(context.library, state.plan.packId, state.plan.equipment.kind)
  } catch (error) {
    return refuse(
      (error as Error).message,
      'Ask the administrator for a rule pack that covers this kind.',
    )
  }
}

export function guardRecord(
  state: VisitState,
  event: VisitEvent<'step-done'> | VisitEvent<'reading'> | VisitEvent<'answer'>,
  context: GuardContext,
): Refusal | null {
  const { run: name } = event.payload
  const place = atStation(state, runStation(name))
  if (place) return place
  const run = state.runs[name]
  if (!run)
    return refuse(
      'The test has not been started.',
      'Choose the gauge and start the test.',
      runStation(name),
    )
  if (run.finished)
    return refuse('This test is finished.', 'Correct the reading instead.', runStation(name))
  const plan = planOf(state, context)
  if ('why' in plan) return plan
  if ('step' in event.payload) {
    const { step } = event.payload
    return plan.procedure.steps.some((s) => s.id === step)
      ? null
      : refuse(
          `${plan.procedure.title} has no step “${step}”.`,
          'Reload the page to get the procedure in force.',
        )
  }
  const { item } = event.payload
  const record = plan.procedure.steps.find((s) => s.record?.item === item)?.record
  if (!record) {
    return refuse(
      `${plan.procedure.title} does not record “${item}”.`,
      'Record what the step asks for.',
    )
  }
  if (isKind(event, 'reading') && record.dimension !== event.payload.dimension) {
    return refuse(
      `${record.title} is a ${record.dimension ?? 'yes or no'}, not a ${event.payload.dimension}.`,
      'Choose a unit that fits.',
    )
  }
  if (isKind(event, 'answer') && !record.answers?.some((a) => a.id === event.payload.answer)) {
    return refuse(
      `“${event.payload.answer}” is not an answer to ${record.title}.`,
      'Choose one of the answers.',
    )
  }
  return null
}

export function guardFinish(
  state: VisitState,
  name: RunName,
  context: GuardContext,
): Refusal | null {
  const place = atStation(state, runStation(name))
  if (place) return place
  if (!state.runs[name])
    return refuse('The test has not been started.', 'Choose the gauge and start the test.', name)
  const missing = missingItems(state, name, context.library)
  if (missing.length > 0) {
    return refuse(
      `Not recorded yet: ${missing.join(', ')}.`,
      'Record them, or stop the visit with a reason.',
      name,
    )
  }
  return null
}
