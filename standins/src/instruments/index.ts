export { SimulatedMultimeter } from './multimeter.ts';
export { simulatedOscilloscope } from './oscilloscope.ts';
export { simulatedClamp, simulatedLoad, simulatedStand } from './others.ts';
export { Supply } from './supply.ts';
