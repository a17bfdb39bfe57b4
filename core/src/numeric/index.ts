export { type Gaussian, gaussianOf, gaussianProject, gaussianUpdate } from './gaussian.ts';
export { normalBetween, normalCdf, normalPdf } from './normal.ts';
