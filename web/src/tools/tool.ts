import type { Freedom } from '@doodla/core';

/** Where a tool is found in the holder. */
export type ToolGroup = 'Write' | 'Place' | 'Arrange' | 'Point' | 'Focus' | 'Measure';

/** The colour of a tool among what it keeps. */
interface Colour<Kept> {
  of(kept: Kept): string | undefined;
  with(kept: Kept, colour: string): Partial<Kept>;
}

/** What is known of a tool before it is used; `tools.ts` has the table of them. What it does is in its `work.tsx`. */
export interface Tool<Kept extends object = object> {
  readonly name: string;
  /** What its key does, where the name does not say it. */
  readonly does?: string;
  /** The key it has until somebody changes it. */
  readonly key: string;
  readonly group: ToolGroup;
  /** What one has to be allowed to have it: to write, to point, or to write in a class. */
  readonly needs: 'writing' | 'pointing' | 'class';
  /** The least that a student has to be allowed to have it; ink where it is left out. */
  readonly least?: Freedom;
  readonly cursor?: string;
  /** What it keeps in the pen case, as it is at first; two tools that keep the same field share it. */
  readonly kept: Kept;
  readonly colour?: Colour<Kept>;
  /** What it keeps for somebody whose marks are all of one colour; by default that colour. */
  inOneColour?(kept: Kept, colour: string): Partial<Kept>;
}
