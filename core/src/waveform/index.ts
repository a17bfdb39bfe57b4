export { mostOrder, type Orders, ordersOf } from './orders.ts';
export { periodAt, type ReadTrace, readTrace, tellingOrders } from './trace.ts';
export { commutatorSpeed, type ReadSpeed } from './commutator.ts';
export { type ReadTurns, type Turns, turnsOf } from './each-turn.ts';
