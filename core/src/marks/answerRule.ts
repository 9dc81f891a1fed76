/** One thing that a tap does. Marks are named by their ids; lengths are page units. */
export type TapStep =
  | { do: 'show' | 'hide' | 'swap'; marks: readonly string[] }
  /** To where they lie so far from where they were at first. */
  | { do: 'move'; marks: readonly string[]; dx: number; dy: number }
  | { do: 'colour'; marks: readonly string[]; colour: string }
  | { do: 'text'; mark: string; text: string }
  | { do: 'count'; mark: string; by: number }
  /** `language` is a BCP 47 tag. */
  | { do: 'speak'; text: string; language: string }
  | { do: 'page'; page: string }
  /** The sound of that page, for whoever taps. */
  | { do: 'play'; page: string }
  /** Notes as `figures` reads them, for whoever taps. */
  | { do: 'tune'; notes: string }
  /** One of several sets by chance, and none of the others; none again before all were, unless `again`. */
  | { do: 'pick'; sets: readonly (readonly string[])[]; again: boolean };

/** How a class may move a mark: freely, within the area or along the line of another, or about a point. */
export type Movement =
  | { how: 'freely' }
  | { how: 'inside'; area: string }
  | { how: 'along'; line: string }
  | { how: 'turning'; x: number; y: number };

/** What is right where something is to be filled in. */
export type Accepted =
  /** Without answers anything may be written, and none of it is right or wrong. */
  | { as: 'words'; answers: readonly string[]; typos: boolean }
  /** `within` is how far off it may be; `unit` may be empty. */
  | { as: 'number'; value: number; within: number; unit: string };

/** A line over a page, page units: whoever draws along it has found it, which shows marks. */
export interface TraceLine {
  from: readonly [number, number];
  to: readonly [number, number];
  marks: readonly string[];
}

/** What a mark does in a class, and what may be done with it. */
export interface AnswerRule {
  /** `is`: what a tap chooses is right or wrong. */
  tap?: { steps: readonly TapStep[]; once: boolean; is?: 'right' | 'wrong' };
  moves?: { movement: Movement; copies: boolean };
  /**
   * Things that belong here; others are sent back, or stay and are wrong. `stack`: they lie one below the other, in the order
   * in which they were put or those with most votes first.
   */
  takes?: { things: readonly string[]; sendsBack: boolean; snaps: boolean; stack?: 'put' | 'most' };
  fill?: Accepted;
  /** It covers one of two that belong together, and stays away once both are seen at a time. */
  pair?: { with: string };
  /** Lines to be found on it; `step` is how far apart their ends can be, page units. */
  trace?: { lines: readonly TraceLine[]; step: number };
  /** What the class may set of a figure, by the names of its fields. */
  sets?: readonly string[];
  /** The marks that say what is asked here. */
  of?: readonly string[];
}
