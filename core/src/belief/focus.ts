import { type Gaussian, gaussianAlong } from '../numeric/index.ts';

/**
 * Where within its cell a severity lies by what was read, in the cell's standard deviations of ln(severity). A reading
 * is straightened about that point and over that width: a chord across the whole cell fits no point in it well once
 * one is known.
 */
export interface Focus {
  readonly at: number;
  /** Standard deviation; 1 for the whole cell. */
  readonly width: number;
  /** One number for both. */
  readonly code: number;
}

export const wholeCell: Focus = { at: 0, width: 1, code: 0 };

/** Widths are halvings of the cell; so many, and the curve within is straight for any meter. */
const mostHalvings = 5;
const places = 256;
/** A severity beyond its cell belongs to the neighbour. */
const farthest = 3;

/** How many codes there are. */
export const focusCodes = (mostHalvings + 1) * places;

/** The focus of one dimension of a state: the narrowest that still covers it, on a lattice so that neighbours share it. */
export function focusOf(state: Gaussian, dimension: number): Focus {
  const { mean, variance } = gaussianAlong(state, dimension);
  const halvings = Math.min(mostHalvings, Math.floor(-Math.log2(Math.sqrt(variance))));
  if (halvings < 1) return wholeCell;
  const width = 2 ** -halvings;
  const place = Math.round(Math.max(-farthest, Math.min(farthest, mean)) / width);
  return { at: place * width, width, code: halvings * places + place + places / 2 };
}
