/** One line of a drawing. */
export interface DrawnLine {
  readonly closed: boolean;
  /** x, y of each corner, one after the other. */
  readonly points: readonly number[];
}

/** A picture of lines alone, in units of its own. */
export interface LineDrawing {
  readonly id: string;
  readonly lines: readonly DrawnLine[];
}
