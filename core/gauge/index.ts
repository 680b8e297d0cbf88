export * from './protocol'
