export { type Advice, type Advised, type ToldApart, advise, isOpen, isRun, setupMinutes } from './advice.ts';
export { type Hidden, hiddenFaults } from './hidden.ts';
