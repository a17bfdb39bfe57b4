/** Sizes of common label rolls, mm [common practice, no source]. */
export interface LabelSize {
  readonly id: string;
  readonly width: number;
  readonly height: number;
}

export const labelSizes: readonly LabelSize[] = [
  [62, 29],
  [57, 32],
  [89, 36],
  [102, 51],
].map(([width, height]) => ({ id: `${width}x${height}`, width: width!, height: height! }));

export const labelSize = (id: string | undefined): LabelSize =>
  labelSizes.find((size) => size.id === id) ?? labelSizes[0]!;
