/** Stations, purposes and their titles alone: what a list of visits says, without the schemas of their entries. */
export * from '../log/stations'
export * from '../log/words'
