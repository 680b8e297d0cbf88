export { type IsolationPlan, moveRefusal, planIsolation, type PlannedMove } from './plan'
export { connectedWith, type IsolationSite, type Openings, siteOf, type SiteZone } from './site'
export { type SpaceState, spaceStates } from './states'
export { type StoredEnergy, storedEnergy } from './stored'
