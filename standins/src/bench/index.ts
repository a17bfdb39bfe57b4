export { type Contact, type Hands, type LoadSetting, SimulatedBench } from './bench.ts';
export { readScenario, type Scenario, scenarioSchema } from './scenario.ts';
