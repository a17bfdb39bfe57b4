export { type FactGroup, factGroups, factsOf, fitsFact, readFact, type ShelfFact, writeFact } from './facts.ts';
export {
  buildsOf,
  type Facts,
  type Known,
  type Limit,
  limitOf,
  machineOf,
  pricesOf,
  type ShelfModel,
  type Trap,
  type TrapAbout,
  trapAbouts,
  type Variant,
  type Warning,
  warningsOf,
} from './model.ts';
