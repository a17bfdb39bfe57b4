export { mostOrder, type Orders, ordersOf } from './orders.ts';
export { type ReadTrace, readTrace, tellingOrders } from './trace.ts';
