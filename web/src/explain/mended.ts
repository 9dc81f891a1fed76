import type { Part, Take } from '@doodla/core';
import { replaced, wholeOf, withDrawing, withVoice } from '@doodla/core/explain';
import type { Span } from '@doodla/core/replay';

/** Where in an explanation something is recorded anew, and what of it. */
export interface MendPlace {
  /** What plays without it. */
  parts: Part[];
  /** Milliseconds of that playback. */
  span: Span;
  what: 'all' | 'voice' | 'drawing';
}

/** What plays once takes were recorded for a place; of a voice or drawing alone, the first take counts. */
export function mended({ parts, span, what }: MendPlace, takes: readonly Take[]): Part[] {
  const [first] = takes;
  if (!first) return parts;
  if (what === 'all') return replaced(parts, span, takes.map(wholeOf));
  return what === 'voice' ? withVoice(parts, span, first) : withDrawing(parts, span, first);
}
