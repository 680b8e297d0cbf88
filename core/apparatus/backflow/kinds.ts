/** Kinds of backflow assembly that have a field test. */
export const assemblyKinds = ['RP', 'DC', 'RPDA', 'DCDA', 'PVB', 'SVB'] as const
export type AssemblyKind = (typeof assemblyKinds)[number]

export const kindTitles: Readonly<Record<AssemblyKind, string>> = {
  RP: 'reduced-pressure assembly',
  DC: 'double check assembly',
  RPDA: 'reduced-pressure detector assembly',
  DCDA: 'double check detector assembly',
  PVB: 'pressure vacuum breaker',
  SVB: 'spill-resistant vacuum breaker',
}

export const isAssemblyKind = (kind: string): kind is AssemblyKind =>
  (assemblyKinds as readonly string[]).includes(kind)

export const hoseNames = ['high', 'low', 'bypass'] as const
export type HoseName = (typeof hoseNames)[number]

/** What sets the kinds apart. */
export const kindTraits: Readonly<
  Record<
    AssemblyKind,
    {
      /** A relief valve opens the space between the checks to air. */
      readonly relief: boolean
      /** A metered bypass stands beside the main line. */
      readonly detector: boolean
      /** One check, with an air inlet behind it. */
      readonly breaker: boolean
    }
  >
> = {
  RP: { relief: true, detector: false, breaker: false },
  DC: { relief: false, detector: false, breaker: false },
  RPDA: { relief: true, detector: true, breaker: false },
  DCDA: { relief: false, detector: true, breaker: false },
  PVB: { relief: false, detector: false, breaker: true },
  SVB: { relief: false, detector: false, breaker: true },
}
