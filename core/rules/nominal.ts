/** Nominal values that equipment has, and that items of a pack may be judged by. */
export const nominalNames = {
  'set-point': 'Set point',
} as const
export type NominalName = keyof typeof nominalNames

export const isNominal = (name: string): name is NominalName => Object.hasOwn(nominalNames, name)
