export { type Advice, type Advised, type ToldApart, advise, isOpen, isRun } from './advice.ts';
export { type Hidden, hiddenFaults } from './hidden.ts';
export { type SetUp, setUpOf, wayMinutes, whereAfter, type Whereabouts } from './set-up.ts';
