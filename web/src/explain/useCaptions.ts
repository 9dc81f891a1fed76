import type { Caption, Explanation } from '@doodla/core';
import type { Cue, PlayedPart } from '@doodla/core/explain';
import { captionOf, cuesOf } from '@doodla/core/explain';
import { nanoid } from 'nanoid';
import { useMemo, useState } from 'react';

/** A line of what is said, with its time where it has one; milliseconds of the playback. */
export interface CaptionRow {
  readonly key: string;
  readonly text: string;
  readonly times: Pick<Cue, 'from' | 'to'> | undefined;
}

export interface CaptionRows {
  readonly rows: readonly CaptionRow[];
  /** Those that have a time, in the order of their times. */
  readonly cues: readonly Cue[];
  set(rows: readonly CaptionRow[]): void;
  /** Sets when a line begins to be said; the one before it ends then. */
  time(index: number, at: number): void;
}

/** A line is shown for so long at least, and for each of its letters; common practice, no source. */
const LEAST_MS = 1500;
const LETTER_MS = 70;

export const newRow = (text = '', times?: CaptionRow['times']): CaptionRow => ({
  key: nanoid(),
  text,
  times,
});

/** What is said in an explanation, to be read; each change is kept. What was cut out stays with what was cut out. */
export function useCaptions(
  { captions: first }: Pick<Explanation, 'captions'>,
  played: readonly PlayedPart[],
  length: number,
  keep: (captions: Caption[]) => Promise<void>,
): CaptionRows {
  const [captions, setCaptions] = useState<readonly Caption[]>(first);
  const shown = useMemo(() => cuesOf(captions, played), [captions, played]);
  const [rows, setRows] = useState<readonly CaptionRow[]>(() => rowsOf(first, shown));
  const set = (next: readonly CaptionRow[]) => {
    setRows(next);
    const seen = new Set(shown.map(({ index }) => index));
    const hidden = captions.filter((one, i) => one.length > 0 && !seen.has(i));
    const told = next.filter(({ text }) => text.trim() !== '');
    const kept = [...hidden, ...told.flatMap((row) => captionOfRow(row, played))];
    setCaptions(kept);
    void keep(kept);
  };
  return {
    rows,
    cues: shown,
    set,
    time(index, at) {
      const { text } = rows[index]!;
      const after = rows.slice(index + 1).find(({ times }) => times && times.from > at)?.times;
      const to = Math.min(at + Math.max(LEAST_MS, text.length * LETTER_MS), after?.from ?? length);
      set(
        rows.map((row, i) => {
          if (i === index) return { ...row, times: { from: at, to: Math.max(at + 1, to) } };
          if (i === index - 1 && row.times && row.times.from < at)
            return { ...row, times: { ...row.times, to: at } };
          return row;
        }),
      );
    },
  };
}

function rowsOf(captions: readonly Caption[], cues: readonly Cue[]): CaptionRow[] {
  return [
    ...cues.map(({ from, to, text }) => newRow(text, { from, to })),
    ...captions.filter(({ length }) => length === 0).map(({ text }) => newRow(text)),
  ];
}

function captionOfRow({ text, times }: CaptionRow, played: readonly PlayedPart[]): Caption[] {
  const [first] = played;
  if (!first) return [];
  const timed = times && captionOf({ ...times, text: text.trim() }, played);
  return [timed ?? { take: first.take.id, from: 0, length: 0, text: text.trim() }];
}
