export { type Advice, type Advised, type ToldApart, advise, isOpen, isRun } from './advice.ts';
export { type Hidden, hiddenFaults } from './hidden.ts';
export { type Preparation, preparationOf, wayMinutes, whereAfter, type Whereabouts } from './preparation.ts';
