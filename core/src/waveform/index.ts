export { mostOrder, type Orders, ordersOf } from './orders.ts';
