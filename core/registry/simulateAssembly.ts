import * as yup from 'yup'
import { type FaultKind, faultKinds } from '../apparatus'
import { assemblyKinds, layoutOf, SiteModel } from '../apparatus/backflow'
import { testPlanOf } from '../library'
import { number, slug, strictObject } from '../schema'
import { runTest } from '../simulate'
import { judgeTest } from '../rules'
import { CannotCompute } from '../errors'
import { computation } from './computation'
import { asChannel, gaugeAccuracy } from './gaugeAccuracy'

/** A gauge as testers carry it. */
const FINE = { percent: 0.25, of: 'span', span: 15, unit: 'psi' } as const

const fault = strictObject({
  element: slug().required(),
  fault: yup
    .string()
    .strict(true)
    .oneOf(Object.keys(faultKinds) as FaultKind[])
    .required(),
  severity: number(0, 1).required(),
})

const input = strictObject({
  rulePack: slug().required(),
  kind: yup.string().strict(true).oneOf(assemblyKinds).required(),
  sizeIn: number(0.5, 10).required(),
  supplyKpa: number(100, 1500).required(),
  demandLMin: number(0, 5000),
  downstreamKpa: number(0, 2000),
  /** With which it is read; a pack that guards its limits cannot do without. */
  gauge: gaugeAccuracy().default(undefined).optional(),
  faults: yup.array(fault.required()).strict(true).max(10).required(),
})

const output = yup.object({
  pressuresKpa: yup.object().required(),
  readings: yup.array().required(),
  answers: yup.array().required(),
  verdict: yup.object({ outcome: yup.string().required() }).required(),
})

export const simulateAssembly = computation({
  name: 'simulate-assembly',
  title: 'Simulate an assembly',
  summary:
    'What the field test of a rule pack would read on a modelled assembly with the faults given, and its verdict.',
  source:
    'Mass balance with flow coefficients after IEC 60534; springs typical of the kind. A model, not the assembly at hand.',
  input,
  output: output as yup.Schema<unknown>,
  heavy: true,
  example: {
    rulePack: 'larkhaven-relief-first',
    kind: 'RP',
    sizeIn: 2,
    supplyKpa: 450,
    faults: [{ element: 'check-1', fault: 'fouled', severity: 0.4 }],
  },
  run(
    { rulePack, kind, sizeIn, supplyKpa, demandLMin, downstreamKpa, faults, gauge = FINE },
    library,
  ) {
    for (const f of faults) refuseMisplaced(kind, f)
    const plan = testPlanOf(library, rulePack, kind)
    const condition = {
      supplyKpa,
      faults,
      ...(demandLMin === undefined ? {} : { demandLMin }),
      ...(downstreamKpa === undefined ? {} : { downstreamKpa }),
    }
    const site = new SiteModel({ kind, sizeIn, condition })
    const pressuresKpa = Object.fromEntries(
      site.layout.places.map((p) => [p.id, Math.round(site.pressure(p.id) * 10) / 10]),
    )
    const found = runTest(plan.procedure, site)
    return {
      pressuresKpa,
      ...found,
      verdict: judgeTest(plan, { ...found, channels: [asChannel(gauge)] }),
    }
  },
})

function refuseMisplaced(
  kind: (typeof assemblyKinds)[number],
  { element, fault }: { element: string; fault: FaultKind },
): void {
  const { elements } = layoutOf(kind)
  const found = elements.find((e) => e.id === element)
  if (!found) {
    throw new CannotCompute(
      'element-unknown',
      `A ${kind} has no “${element}”.`,
      `Choose one of ${elements.map((e) => e.id).join(', ')}.`,
    )
  }
  const roles: readonly string[] = faultKinds[fault].roles
  if (!roles.includes(found.role)) {
    throw new CannotCompute(
      'fault-misplaced',
      `“${fault}” happens to a ${roles.join(' or ')}, not to ${element}.`,
      'Name another element.',
    )
  }
}
