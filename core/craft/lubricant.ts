/** Rubbers and plastics that seals are made of. */
export const elastomers = {
  nbr: 'Nitrile (NBR)',
  epdm: 'EPDM',
  fkm: 'Fluoroelastomer (FKM)',
  silicone: 'Silicone (VMQ)',
  natural: 'Natural rubber',
  neoprene: 'Chloroprene (CR)',
  polyurethane: 'Polyurethane',
  ptfe: 'PTFE',
} as const
export type Elastomer = keyof typeof elastomers

export const lubricants = {
  petrolatum: 'Petroleum jelly',
  mineral: 'Mineral oil or grease',
  silicone: 'Silicone grease',
  'silicone-potable': 'Silicone grease listed for drinking water',
  'food-grade': 'Food-grade synthetic grease',
  pag: 'Polyglycol grease',
  pfpe: 'Perfluorinated grease, oxygen listed',
  refrigeration: 'Refrigeration oil of the system',
  'makers-sachet': 'The maker’s sachet from the kit',
  'sheet-grease': 'The grease that the maker’s sheet names',
} as const
export type Lubricant = keyof typeof lubricants

/** What goes on a thread or an edge and is no lubricant of a seal. */
export const compounds = {
  'thread-lock': 'Thread-lock',
  'anti-seize': 'Anti-seize',
  assembly: 'Assembly compound',
} as const
export type Compound = keyof typeof compounds

export const lubricantServices = {
  'drinking-water': 'drinking water',
  gas: 'gas',
  air: 'compressed air',
  oxygen: 'oxygen',
  food: 'food contact',
  refrigerant: 'refrigerant',
  fuel: 'fuel',
} as const
export type LubricantService = keyof typeof lubricantServices

/** What a lubricant is made of decides what it attacks. */
const BASE: Readonly<
  Record<Lubricant, 'petroleum' | 'silicone' | 'synthetic' | 'inert' | 'unknown'>
> = {
  petrolatum: 'petroleum',
  mineral: 'petroleum',
  silicone: 'silicone',
  'silicone-potable': 'silicone',
  'food-grade': 'synthetic',
  pag: 'synthetic',
  pfpe: 'inert',
  refrigeration: 'petroleum',
  'makers-sachet': 'unknown',
  'sheet-grease': 'unknown',
}

/** Lubricants that a service admits; where it is absent, any may be used as far as the service goes. */
const ADMITTED: Readonly<Partial<Record<LubricantService, readonly Lubricant[]>>> = {
  'drinking-water': ['silicone-potable', 'makers-sachet', 'sheet-grease'],
  fuel: ['mineral', 'petrolatum', 'pfpe', 'makers-sachet', 'sheet-grease'],
  food: ['food-grade', 'makers-sachet', 'sheet-grease'],
  oxygen: ['pfpe'],
  refrigerant: ['refrigeration', 'makers-sachet', 'sheet-grease'],
}

const WHY_SERVICE: Readonly<Partial<Record<LubricantService, string>>> = {
  'drinking-water': 'Parts in drinking water need a lubricant that is listed for it.',
  food: 'What touches food needs a food grade.',
  fuel: 'Silicone and polyglycol wash out into the fuel and foul injectors and sensors.',
  oxygen: 'In oxygen, grease burns: only one listed for oxygen, on clean parts.',
  refrigerant: 'Anything but the system’s own oil ends up in the refrigerant.',
}

export interface LubricantAdvice {
  readonly verdict: 'fits' | 'questionable' | 'clash'
  /** Why, in sentences. */
  readonly reasons: readonly string[]
  /** What fits instead, when this one does not. */
  readonly instead: readonly Lubricant[]
}

/** Swelling and attack, by base and rubber (general compatibility tables of seal makers’ guides). */
function rubberReason(
  elastomer: Elastomer,
  lubricant: Lubricant,
): { grave: boolean; says: string } | null {
  const base = BASE[lubricant]
  if (base === 'petroleum' && (elastomer === 'epdm' || elastomer === 'natural')) {
    return {
      grave: true,
      says: `Petroleum attacks ${elastomers[elastomer]}: it swells, goes soft and leaves its groove.`,
    }
  }
  if (base === 'petroleum' && elastomer === 'silicone') {
    return { grave: true, says: 'Petroleum swells silicone rubber.' }
  }
  if (base === 'petroleum' && elastomer === 'neoprene') {
    return {
      grave: false,
      says: 'Petroleum swells chloroprene somewhat: thinly, and not for long.',
    }
  }
  if (base === 'silicone' && elastomer === 'silicone') {
    return { grave: true, says: 'Silicone grease on silicone rubber soaks in and swells it.' }
  }
  if (lubricant === 'pag' && elastomer === 'polyurethane') {
    return { grave: false, says: 'Polyglycols soften some polyurethanes: look at the sheet.' }
  }
  return null
}

/** Rubbers that a service attacks by itself, whatever the grease (seal makers’ compatibility tables). */
const ATTACKED: Readonly<Partial<Record<LubricantService, readonly Elastomer[]>>> = {
  fuel: ['epdm', 'natural', 'silicone', 'neoprene'],
  gas: ['epdm', 'natural'],
  refrigerant: ['natural'],
}

/** What is said of a service beside a clash: the lubricant may be right and still want care. */
function serviceCare(lubricant: Lubricant, service: LubricantService): string | null {
  if (service === 'air' && lubricant === 'petrolatum')
    return 'In compressed air petroleum jelly goes thin when warm and gums up when cold: a spool sticks.'
  if (service === 'gas' && BASE[lubricant] === 'petroleum')
    return 'In fuel gas petroleum greases dry out and take up condensate: thinly, and renewed at each service.'
  return null
}

/** Whether a lubricant suits a rubber in a service, and why; the maker’s sheet governs. */
export function lubricantAdvice(
  elastomer: Elastomer,
  lubricant: Lubricant,
  service: LubricantService,
): LubricantAdvice {
  const rubber = rubberReason(elastomer, lubricant)
  const admitted = ADMITTED[service]
  const refused = admitted !== undefined && !admitted.includes(lubricant)
  const attacked = ATTACKED[service]?.includes(elastomer)
  const care = serviceCare(lubricant, service)
  const reasons = [
    ...(attacked
      ? [
          `${elastomers[elastomer]} swells in ${lubricantServices[service]}, whatever the grease: is it the right ring?`,
        ]
      : []),
    ...(care ? [care] : []),
    ...(refused ? [WHY_SERVICE[service] as string] : []),
    ...(rubber ? [rubber.says] : []),
    ...(lubricant === 'makers-sachet'
      ? ['The sachet was chosen by the maker for the parts of this kit: keep to it.']
      : []),
    ...(lubricant === 'sheet-grease'
      ? ['The maker named it for these parts and this service: no other in its place.']
      : []),
  ]
  const clash = refused || attacked === true || rubber?.grave === true
  const verdict = clash ? 'clash' : rubber || care ? 'questionable' : 'fits'
  if (!clash) {
    const fine = `${lubricants[lubricant]} does no harm to ${elastomers[elastomer]} in ${lubricantServices[service]}.`
    return { verdict, reasons: reasons.length > 0 ? reasons : [fine], instead: [] }
  }
  const instead = (Object.keys(lubricants) as Lubricant[]).filter(
    (other) =>
      other !== lubricant &&
      attacked !== true &&
      !rubberReason(elastomer, other) &&
      !serviceCare(other, service) &&
      (admitted === undefined || admitted.includes(other)),
  )
  return { verdict, reasons, instead }
}
