import { CannotCompute } from '../errors'
import { convertValue, dimensions, isUnitOf, unitsOf } from '../quantity'
import { type Thread, threadNamed } from './threads'

/** Nut factor K of preload F = T/(K·d): about these for steel, as torque tables use them. */
export const NUT_FACTORS = { dry: 0.2, lubricated: 0.15 } as const
export type Surface = keyof typeof NUT_FACTORS

/** Stress in the thread over which a torque is questioned, and under which it hardly holds, MPa. */
const QUESTIONED_ABOVE_MPA = 560
const QUESTIONED_BELOW_MPA = 50

export interface TorqueAsked {
  readonly value: number
  /** As it stands on the sheet. */
  readonly unit: string
  /** Absent where it is not known: the wrench is set all the same, and nothing looks at the size of it. */
  readonly thread?: string
  /** How the thread was when the torque was stated. */
  readonly statedFor: Surface
  /** How it is now. */
  readonly surface: Surface
  /** In-line extension of the wrench: length of the wrench and of the extension, m; angle between them, degrees. */
  readonly wrenchM?: number
  readonly extensionM?: number
  readonly angleDeg?: number
}

export interface TorqueSetting {
  /** What the bolt is to get, N·m. */
  readonly targetNm: number
  /** What the wrench is set to, N·m and in the unit asked. */
  readonly settingNm: number
  readonly setting: number
  readonly unit: string
  /** Preload, kN, and stress in the thread, MPa; absent without a thread. */
  readonly preloadKn?: number
  readonly stressMpa?: number
  /** What to look at twice before the wrench is put on. */
  readonly questions: readonly string[]
}

/** Pressures that are taken for torques: the commonest slip of the trade. */
const LOOKALIKES: Readonly<Record<string, string>> = {
  psi: 'lbf·in',
  'lb/in': 'lbf·in',
  'lb/in²': 'lbf·in',
  'lbf/in²': 'lbf·in',
  kPa: 'N·m',
  bar: 'N·m',
}

/** @throws CannotCompute when the unit is no torque, with what was probably meant */
export function torqueUnit(unit: string): string {
  if (isUnitOf('torque', unit)) return unit
  const meant = LOOKALIKES[unit]
  const known = Object.keys(dimensions.torque).join(', ')
  throw meant
    ? new CannotCompute(
        'torque-unit',
        `${unit} is a pressure, or a force along a length, not a torque. A torque is a force times an arm.`,
        `Look at the sheet again: ${meant} is probably meant.`,
      )
    : new CannotCompute('torque-unit', `${unit.slice(0, 12)} is not a torque.`, `Choose ${known}.`)
}

/** No wrench of this trade is set higher, in any unit. */
const MOST_TORQUE = 100_000

/**
 * What the wrench is set to. A thread that is lubricated needs less than one stated dry:
 * T₂ = T₁·K₂/K₁ at the same preload. An extension turns the wrench’s arm L into L + E·cos θ.
 * @throws CannotCompute for what cannot be set
 */
export function torqueSetting(asked: TorqueAsked): TorqueSetting {
  const unit = torqueUnit(asked.unit)
  const thread = asked.thread === undefined ? undefined : threadNamed(asked.thread)
  if (!(asked.value > 0 && asked.value < MOST_TORQUE))
    throw new CannotCompute(
      'torque-value',
      asked.value > 0
        ? `The torque must be below ${MOST_TORQUE.toLocaleString('en-US')} ${unit}.`
        : 'The torque must be above zero.',
      'Read it again.',
    )
  const statedNm = convertValue('torque', asked.value, unit, 'N·m')
  const targetNm = (statedNm * NUT_FACTORS[asked.surface]) / NUT_FACTORS[asked.statedFor]
  const settingNm = targetNm * armRatio(asked)
  return {
    targetNm,
    settingNm,
    setting: convertValue('torque', settingNm, 'N·m', unit),
    unit,
    ...(thread ? loadOf(thread, asked, targetNm) : { questions: [NO_THREAD] }),
  }
}

const NO_THREAD =
  'Without the thread nobody looks whether the torque is plausible: look at the unit twice.'

/** Preload and stress of a thread, and what they make one ask. */
function loadOf(thread: Thread, asked: TorqueAsked, targetNm: number) {
  const preloadN = targetNm / (NUT_FACTORS[asked.surface] * thread.diameterM)
  const stressMpa = preloadN / thread.areaM2 / 1e6
  return { preloadKn: preloadN / 1000, stressMpa, questions: questionsOf(thread, asked, stressMpa) }
}

function armRatio({ wrenchM, extensionM, angleDeg = 0 }: TorqueAsked): number {
  if (extensionM === undefined || extensionM === 0) return 1
  if (wrenchM === undefined || !(wrenchM > 0)) {
    throw new CannotCompute(
      'torque-wrench',
      'An extension changes the reading.',
      'Give the length of the wrench too.',
    )
  }
  const along = extensionM * Math.cos((angleDeg * Math.PI) / 180)
  if (!(wrenchM + along > 0))
    throw new CannotCompute(
      'torque-arm',
      'At this angle the extension takes the arm away.',
      'Set it square to the wrench.',
    )
  return wrenchM / (wrenchM + along)
}

function questionsOf(thread: Thread, asked: TorqueAsked, stressMpa: number): string[] {
  const said = `${asked.value} ${asked.unit} on ${thread.name}`
  if (stressMpa > QUESTIONED_ABOVE_MPA) {
    return [
      `${said} would stress the thread to ${Math.round(stressMpa)} MPa: is the unit right?${meantInstead(asked, stressMpa)}`,
    ]
  }
  if (stressMpa < QUESTIONED_BELOW_MPA) {
    return [
      `${said} hardly loads the thread (${stressMpa.toFixed(1)} MPa): is the unit right?${meantInstead(asked, stressMpa)}`,
    ]
  }
  return []
}

/** The same number in another unit, where that would be an ordinary torque for the thread. */
function meantInstead({ unit }: TorqueAsked, stressMpa: number): string {
  const perUnit = convertValue('torque', 1, torqueUnit(unit), 'N·m')
  const others = unitsOf('torque').filter((u) => {
    const stress = (stressMpa * convertValue('torque', 1, u, 'N·m')) / perUnit
    return u !== unit && stress >= 100 && stress <= QUESTIONED_ABOVE_MPA
  })
  return others.length > 0 ? ` In ${others.join(' or ')} it would be ordinary.` : ''
}
