import type { MarkOf } from '@doodla/core';
import type { LineDrawing } from '@doodla/core/drawings';
import type { Reading } from '@doodla/core/neaten';

/** Ink that has become a shape, with what else it may mean. */
export interface NeatPart {
  readonly ink: readonly MarkOf<'stroke'>[];
  readonly readings: readonly Reading[];
  /** Which of the readings it is now. */
  readonly taken: number;
  readonly mark: MarkOf<'path' | 'shape'>;
}

/** A written line that has become typed text, word by word. */
export interface TypedLine {
  readonly mark: string;
  /** What each word may be, the likeliest first. */
  readonly words: readonly (readonly string[])[];
  /** As it stands now. */
  readonly text: readonly string[];
}

/** Handwriting that has just become typed text, in one step, until something else is done. */
export interface WritingOffer {
  readonly page: string;
  readonly lines: readonly TypedLine[];
  readonly ink: readonly string[];
  /** Undone, it gives the ink back. */
  readonly step: string;
}

/** What was just neatened, in one step, until something else is done. */
export interface ShapeOffer {
  readonly page: string;
  readonly parts: readonly NeatPart[];
  /** Undone, it gives the ink back. */
  readonly step: string;
  /** When that was, milliseconds since 1970. */
  readonly at: number;
  /** Whether the shape was selected to be neatened, and not made while drawing. */
  readonly selected: boolean;
}

/** Clean drawings that ink may be meant for, until something else is done. */
export interface DrawingOffer {
  readonly page: string;
  readonly ink: readonly MarkOf<'stroke'>[];
  /** The likeliest first. */
  readonly drawings: readonly LineDrawing[];
  /** The one that is in the place of the ink now, with the marks that it is made of; undone, its step gives the ink back. */
  readonly taken?: { readonly drawing: string; readonly marks: readonly string[]; readonly step: string };
}

/** A written formula that has just become a typeset one, in one step, until something else is done. */
export interface FormulaOffer {
  readonly page: string;
  readonly ink: readonly MarkOf<'stroke'>[];
  /** What it may be, the likeliest first. */
  readonly formulas: readonly MarkOf<'formula'>[];
  /** Which of them it is now. */
  readonly now: number;
  /** Undone, it gives the ink back. */
  readonly step: string;
}

/** What ink that was drawn may be meant for. */
export type InkOffer = ShapeOffer | WritingOffer | DrawingOffer | FormulaOffer;
