import type { Link, Volume } from '../../fluid'
import { hoseNames } from './kinds'
import { kitValves } from './layout'

/** Test hoses: 6 mm bore, 1.8 m; the rubber gives about a fifth of a millilitre per bar. */
const HOSE_M3 = 5.1e-5
const HOSE_GIVES = 4e-5
export const HOSE_CV = 0.35
const CONTROL_CV = 0.12

/** The three hoses and the manifold they meet in. */
export function kitVolumes(): Volume[] {
  const hose = (id: string): Volume => ({
    id,
    volumeM3: HOSE_M3,
    elasticityPerKpa: HOSE_GIVES,
    startKpa: 0,
  })
  return [
    ...hoseNames.map((h) => hose(`${h}-hose`)),
    { id: 'manifold', volumeM3: 5e-6, elasticityPerKpa: 1e-6, startKpa: 0 },
  ]
}

/** Controls between hoses and manifold, bleeds to the air. */
export function kitLinks(): Link[] {
  const ends: Record<(typeof kitValves)[number]['id'], [string, string]> = {
    'high-control': ['high-hose', 'manifold'],
    'low-control': ['manifold', 'low-hose'],
    'bypass-control': ['manifold', 'bypass-hose'],
    'high-bleed': ['high-hose', 'air'],
    'low-bleed': ['low-hose', 'air'],
  }
  return kitValves.map(({ id }) => ({
    type: 'valve',
    id,
    from: ends[id][0],
    to: ends[id][1],
    cv: CONTROL_CV,
    opening: 0,
  }))
}
