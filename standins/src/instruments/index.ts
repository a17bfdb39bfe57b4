export { SimulatedMultimeter } from './multimeter.ts';
export { simulatedOscilloscope } from './oscilloscope.ts';
export { simulatedCommander } from './commander.ts';
export { simulatedClamp, simulatedLoad, simulatedStand } from './others.ts';
export { Supply } from './supply.ts';
