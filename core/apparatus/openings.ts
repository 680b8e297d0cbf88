/** How far a valve or cock is opened. */
export const openings = ['shut', 'crack', 'half', 'open'] as const
export type Opening = (typeof openings)[number]

/** Part of the full flow coefficient at each opening: needle and ball valves alike give most at first. */
export const openingParts: Readonly<Record<Opening, number>> = {
  shut: 0,
  crack: 0.03,
  half: 0.5,
  open: 1,
}
