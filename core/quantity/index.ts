export * from './bounds'
export * from './quantity'
export * from './units'
