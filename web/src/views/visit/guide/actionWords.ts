import type { Guide, PlacedStep } from '@uvanta/core/guide'

type Verb = PlacedStep['verb']

/** What a press on a step states, by its verb; `it` is the part or the fasteners. */
const states: Partial<Record<Verb, (it: string, step: PlacedStep) => string>> = {
  remove: (it) => `${it} – off`,
  discard: (it) => `${it} – thrown away`,
  clean: (it) => `${it} – clean`,
  lubricate: (it) => `${it} – lubricated`,
  treat: (it) => `${it} – treated`,
  renew: (it) => `New: ${it.charAt(0).toLowerCase()}${it.slice(1)} – in place`,
  fit: (it, step) => (step.orient ? `${it} – this way round` : `${it} – in place`),
  loosen: (it) => `${it} – loose`,
  tighten: (it) => `${it} – tight`,
  isolate: () => 'It is shut',
  shut: () => 'Shut',
  vent: () => 'Open',
  reopen: () => 'It is open',
  gate: () => 'Confirmed',
  position: () => 'It lies so',
  mark: () => 'Marked',
  match: () => 'The marks meet',
  relieve: () => 'Its load is off',
  set: () => 'It is set',
  restore: () => 'Set as it was',
  liftIn: () => 'It is lifted in',
  liftOut: () => 'It is lifted out',
  air: (_, { air }) => `The air is ${air}`,
  power: (_, { power }) => `The power is ${power}`,
  count: () => 'Counted',
  require: () => 'Yes, it is so',
  trial: () => 'Yes, it does',
  test: () => 'Yes, it does',
  repeat: (_, { until }) => `Done – ${until}`,
}

const sentence = (words: string) => {
  const bare = words.replace(/^the /, '').replace(/:.*/, '')
  return bare.charAt(0).toUpperCase() + bare.slice(1)
}

/** What the thing at hand is called in the guide. */
function nameOf(step: PlacedStep, guide: Pick<Guide, 'parts' | 'fasteners'> | undefined): string {
  const id: unknown = (step as unknown as Record<string, unknown>)[step.verb]
  const titled = [...(guide?.parts ?? []), ...(guide?.fasteners ?? [])]
  return sentence(titled.find((t) => t.id === id)?.title ?? 'It')
}

/** The words of the button that carries a step out: what is true once it is pressed. */
export function actionWords(
  step: PlacedStep,
  guide: Pick<Guide, 'parts' | 'fasteners'> | undefined,
): string {
  if (step.verify) return 'Yes, it sits'
  return states[step.verb]?.(nameOf(step, guide), step) ?? 'Done'
}
