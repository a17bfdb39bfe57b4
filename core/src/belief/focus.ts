import { type Gaussian, gaussianAlong } from '../numeric/index.ts';

/**
 * Where within its cell a severity lies by what was read, in the cell's standard deviations of ln(severity). A reading
 * is straightened about that point and over that width: a chord across the whole cell fits no point in it well once
 * one is known, and no edge of it however little is known.
 */
export interface Focus {
  readonly at: number;
  /** Standard deviation; 1 for the whole cell. */
  readonly width: number;
  /** One number for both. */
  readonly code: number;
}

export const wholeCell: Focus = { at: 0, width: 1, code: 0 };

/** Widths are the cell's and its halvings; so many, and the curve within is straight for any meter. */
const mostHalvings = 5;
const places = 256;
/** A severity beyond its cell belongs to the neighbour; a batch farther off is rare. */
const farthest = 2;

/** How many codes there are. */
export const focusCodes = (mostHalvings + 1) * places;

/** The focus of a severity: the narrowest that still covers it, on a lattice so that neighbours share it. */
export const focusOf = (state: Gaussian, dimension: number): Focus =>
  focused(gaussianAlong(state, dimension), mostHalvings, places);

/**
 * The focus of what a batch shares, in its standard deviations: less sharp than that of a severity, since every
 * reading after it is foreseen anew.
 */
export function batchFocusOf(state: Gaussian, dimension: number, sigma: number): Focus {
  const { mean, variance } = gaussianAlong(state, dimension);
  const scaled = { mean: mean / sigma, variance: variance / (sigma * sigma) };
  return focused(scaled, mostBatchHalvings, batchPlaces);
}
const mostBatchHalvings = 2;
const batchPlaces = 32;
export const batchFocusCodes = (mostBatchHalvings + 1) * batchPlaces;

function focused({ mean, variance }: { mean: number; variance: number }, most: number, lattice: number): Focus {
  const halvings = Math.max(0, Math.min(most, Math.floor(-Math.log2(Math.sqrt(variance)))));
  const width = 2 ** -halvings;
  const place = Math.round(Math.max(-farthest, Math.min(farthest, mean)) / width);
  if (halvings === 0 && place === 0) return wholeCell;
  return { at: place * width, width, code: halvings * lattice + place + lattice / 2 };
}
