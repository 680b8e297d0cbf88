export {
  assemblySite,
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
export { isShut, type SpaceState, spaceStates } from './states'
