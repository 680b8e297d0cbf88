import type { FaultKind } from '../apparatus'

/** What a fault is known by once the part is seen, and what is done first about it. */
export interface Sign {
  readonly look: string
  readonly first: string
}

/** By kind of fault; what is done follows the sheet of the maker and the house’s policy. */
export const signs: Readonly<Record<FaultKind, Sign>> = {
  fouled: {
    look: 'Dirt or scale between disc and seat.',
    first: 'Flush and clean it; renew the disc only where it is damaged.',
  },
  'disc-cut': {
    look: 'A cut or a deep groove in the face of the disc.',
    first: 'Renew the disc; look at the seat that cut it.',
  },
  'seat-nicked': {
    look: 'A nick or a pit across the seat: a fingernail catches in it.',
    first: 'Renew the seat, and the disc with it.',
  },
  'spring-weak': {
    look: 'A spring that is shorter than a new one, rusted, or of another number.',
    first: 'Renew the spring.',
  },
  'spring-broken': {
    look: 'A broken coil, or a spring beside its seat.',
    first: 'Renew the spring, and find the piece.',
  },
  'spring-stiff': {
    look: 'Scale between the coils, a guide that binds, or a spring that does not belong here.',
    first: 'Clean the guide; renew the spring where it is another.',
  },
  'diaphragm-torn': {
    look: 'A tear or a pinhole in the diaphragm; water on its dry side.',
    first: 'Renew the diaphragm.',
  },
  'passage-blocked': {
    look: 'Sludge or scale in the sensing line or passage.',
    first: 'Clear it and rinse it, then test again.',
  },
  'stem-bent': {
    look: 'A stem that does not slide by its own weight; marks on one side of it.',
    first: 'Renew the stem with its guide.',
  },
  undamped: {
    look: 'A vent, restriction or sense line that is missing, wide open or of the wrong size.',
    first: 'Put vent and sense line in order before anything is opened.',
  },
  leaking: {
    look: 'Water that passes the shutoff when it is shut.',
    first: 'Work it open and shut; while it leaks the readings do not count.',
  },
  stuck: {
    look: 'A part that does not move freely by hand.',
    first: 'Free and clean it; renew it where it is worn.',
  },
  'seal-worn': {
    look: 'A seal that is flat, hard or cut.',
    first: 'Renew it, and feel the groove it lay in.',
  },
  dry: {
    look: 'No grease left; it moves in jerks.',
    first: 'Lubricate it and try it; reseal it where that does not help.',
  },
  'zero-off': {
    look: 'The same error at every point of the travel.',
    first: 'Set the zero, then look at the span.',
  },
  'span-off': {
    look: 'An error that grows with the travel.',
    first: 'Set the span once the zero is right.',
  },
  'linkage-worn': {
    look: 'Play in pins, levers or clamps of the feedback.',
    first: 'Take out the play before anything is set.',
  },
}
