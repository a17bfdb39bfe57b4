export { type Gaussian, gaussianOf, gaussianProject, gaussianUpdate, type Projection } from './gaussian.ts';
export { normalBetween, normalCdf, normalPdf } from './normal.ts';
