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
