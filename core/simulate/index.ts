export * from './runTest'
export { siteModelOf } from './siteModel'
