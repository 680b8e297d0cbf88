export * from './day'
export * from './moment'
