/** Every way to choose some of several, none among them. */
export const combinationsOf = (all: readonly string[]): string[][] =>
  all.reduce<string[][]>((ways, one) => [...ways, ...ways.map((w) => [...w, one])], [[]])
