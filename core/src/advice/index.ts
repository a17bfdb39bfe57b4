export { type Advice, type Advised, advise, setupMinutes } from './advice.ts';
export { type Hidden, hiddenFaults } from './hidden.ts';
