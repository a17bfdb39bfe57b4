export { type Hidden, HiddenUnit, type Measured, type Strewing } from './hidden-unit.ts';
