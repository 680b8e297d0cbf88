export * from './quantity'
export * from './units'
