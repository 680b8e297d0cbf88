export * from './check'
export * from './fields'
export * from './jsonSchema'
