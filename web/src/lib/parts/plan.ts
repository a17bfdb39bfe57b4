export interface Point {
  readonly x: number;
  readonly y: number;
}

/** Where a part's symbol, its mark and its touch field lie. */
export interface Placed extends Point {
  readonly part: string;
  readonly kind:
    | 'diode'
    | 'exciter'
    | 'winding'
    | 'rotor'
    | 'brush'
    | 'rings'
    | 'regulator'
    | 'output'
    | 'gear'
    | 'contacts'
    | 'armature'
    | 'magnets';
  readonly label: string;
  /** Degrees clockwise from pointing up. */
  readonly turn: number;
}

/** Where a probe touches; from above where there is something below. */
export interface Terminal extends Point {
  readonly fromAbove?: true;
}

/** A word beside the circuit. */
export interface Caption extends Point {
  readonly text: string;
  readonly anchor: 'start' | 'middle' | 'end';
}

/** A unit's circuit laid out for drawing: its parts, its wires and where each terminal is touched. */
export interface Plan {
  /** From the top, which may lie above 0, to the bottom. */
  readonly size: { readonly width: number; readonly top: number; readonly bottom: number };
  readonly parts: readonly Placed[];
  readonly wires: readonly string[];
  readonly nodes: Readonly<Record<string, Terminal>>;
  readonly dots: readonly Point[];
  readonly captions: readonly Caption[];
}
