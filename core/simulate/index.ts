export * from './runTest'
