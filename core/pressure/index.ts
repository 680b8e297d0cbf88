export {
  apparatusSite,
  connectedWith,
  type IsolationSite,
  type Openings,
  type PressureZone,
  roundZones,
  shutFor,
  siteOf,
  type SiteZone,
  zoneSite,
} from './site'
export { type IsolationPlan, moveRefusal, planIsolation, type PlannedMove } from './plan'
export { isShut, type SpaceState, spaceStates } from './states'
