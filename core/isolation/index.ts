export { type IsolationPlan, moveRefusal, planIsolation, type PlannedMove } from './plan'
export { type StoredEnergy, storedEnergy } from './stored'
