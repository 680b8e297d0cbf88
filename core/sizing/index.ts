export { type DecayAsked, type DecayLeak, decayLeak } from './decayLeak'
export { type GasFlow, gasFlow, type GasFlowAsked } from './gasFlow'
export { type ReliefAsked, type ReliefCapacity, reliefCapacity } from './reliefCapacity'
export { leakageClasses, type SeatAllowance, seatAllowance, type SeatAsked } from './seatLeakage'
