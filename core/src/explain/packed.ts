import type { Mark } from '../marks/mark.js';
import type { Rect } from '../geometry/rect.js';
import { applyChanges } from '../ops/apply.js';
import { emptyState } from '../ops/logState.js';
import type { LoggedOperation } from '../ops/operation.js';
import type { Page } from '../pages/page.js';
import type { Recorded, Turn } from '../replay/replay.js';
import type { Cue } from './captionFiles.js';
import { condensed } from './condensed.js';
import type { FilmChapter } from './filmChapters.js';
import type { Noted } from './noted.js';
import type { PlayedPart } from './playedParts.js';
import { playedParts, stretchesOf, wholeOf } from './playedParts.js';
import type { SettledTake } from './settled.js';
import { settledNotes, settledTakes } from './settled.js';

/** A page as it is now, the parts of the plane that its layers take, and what was prepared on it. */
export interface PackedPage {
  readonly page: Page;
  readonly bounds: readonly (Rect | null)[];
  readonly prepared: readonly Mark[];
}

/** A stop, at a time of the playback; milliseconds. */
export interface PackedStop {
  readonly id: string;
  readonly time: number;
  readonly text: string;
  readonly seconds: number | null;
}

/** An explanation with all that it plays by, and nothing else: it needs no server, and tells nobody's name. */
export interface PackedExplanation {
  readonly version: 1;
  readonly title: string;
  /** BCP 47, of its title and of the words round it. */
  readonly language: string;
  readonly recorded: Recorded;
  readonly played: readonly PlayedPart[];
  /** What was noted, by the take. */
  readonly noted: Readonly<Record<string, readonly Noted[]>>;
  readonly stops: readonly PackedStop[];
  readonly chapters: readonly FilmChapter[];
  readonly cues: readonly Cue[];
  readonly pages: readonly PackedPage[];
  /** Colours of those who wrote, where they have one. */
  readonly colours: Readonly<Record<string, string>>;
}

/** What an explanation is packed from. Times are milliseconds of the playback. */
export interface PackSources extends Pick<
  PackedExplanation,
  'title' | 'language' | 'stops' | 'chapters' | 'cues' | 'pages'
> {
  readonly recorded: Recorded;
  /** Marks that are not shown. */
  readonly hidden: ReadonlySet<string>;
  readonly played: readonly PlayedPart[];
  readonly noted: ReadonlyMap<string, readonly Noted[]>;
  /** The colour of somebody who wrote. */
  colourOf(author: string): string | undefined;
}

/** An explanation packed up, and the stretches of sound and video that belong to it, each by the take that it is of from now on. */
export interface Packed {
  readonly explanation: PackedExplanation;
  readonly takes: readonly SettledTake[];
}

/** Packs what plays of an explanation, with nothing of what was cut out. Those who wrote are told apart by numbers alone. */
export function packed(sources: PackSources): Packed {
  const { title, language, stops, chapters, cues, pages } = sources;
  const settled = settledTakes(sources.played, numbered('take '));
  const stretches = stretchesOf(sources.played);
  const shown = new Set(pages.map(({ page }) => page.id));
  const operations = condensed(sources.recorded.operations, {
    stretches,
    pages: shown,
    counts: ({ id }) => !sources.hidden.has(id),
  });
  const writers = new Writers(sources.colourOf);
  const takes = settled.map(({ take }) => take);
  const explanation: PackedExplanation = {
    version: 1,
    ...{ title, language, stops, chapters, cues },
    recorded: {
      operations: operations.map((one) => writers.without(one)),
      turns: turnsWhile(stretches, sources.recorded.turns),
    },
    played: playedParts({ takes, parts: takes.map(wholeOf) }),
    noted: Object.fromEntries(settled.map((one) => [one.take.id, notesOf(one, sources.noted, shown)])),
    pages: pages.map((one) => ({ ...one, prepared: one.prepared.map((mark) => writers.withoutName(mark)) })),
    colours: writers.colours,
  };
  return { explanation, takes: settled };
}

/** Every mark of an explanation, in every form that it has while it plays. */
export function marksIn({ recorded, pages }: PackedExplanation): Map<string, Mark[]> {
  const found = new Map(pages.map(({ page, prepared }) => [page.id, [...prepared]]));
  const state = emptyState();
  for (const { operation } of recorded.operations)
    for (const change of operation.changes) {
      applyChanges(state, [change]);
      const id = change.do === 'add' ? change.mark.id : change.do === 'patch' ? change.mark : undefined;
      const mark = id === undefined ? undefined : state.marks.get(id);
      if (mark) found.get(mark.page)?.push(mark);
    }
  return found;
}

function notesOf(
  { part }: SettledTake,
  noted: PackSources['noted'],
  shown: ReadonlySet<string>,
): readonly Noted[] {
  const isKept = (one: Noted) => {
    if (one.do === 'op' || one.do === 'page') return false;
    if (one.do === 'live') return !one.live || shown.has(one.live.page);
    return !('page' in one) || shown.has(one.page);
  };
  return settledNotes(noted, part).filter(isKept);
}

/** The turns while stretches play, and the last one before each of them. */
function turnsWhile(
  stretches: readonly { from: number; to: number }[],
  turns: readonly Turn[],
): readonly Turn[] {
  return turns
    .filter(({ at }, i) => {
      const next = turns[i + 1]?.at ?? Infinity;
      return stretches.some(({ from, to }) => at < to && next > from);
    })
    .map(({ at, page }) => ({ at, page }));
}

/** Names that say nothing: the word and 1, 2, 3 … */
function numbered(word: string): () => string {
  let count = 0;
  return () => `${word}${++count}`;
}

/** Those who wrote, by numbers in the order in which they first did. */
class Writers {
  readonly colours: Record<string, string> = {};
  private readonly names = new Map<string, string>();
  private readonly next = numbered('writer ');

  constructor(private readonly colourOf: (author: string) => string | undefined) {}

  without(one: LoggedOperation): LoggedOperation {
    const { author, operation } = one;
    const changes = operation.changes.map((change) =>
      change.do === 'add' ? { ...change, mark: this.withoutName(change.mark) } : change,
    );
    return { ...one, author: this.nameOf(author), operation: { ...operation, changes } };
  }

  withoutName(mark: Mark): Mark {
    return { ...mark, author: this.nameOf(mark.author), space: 'class' };
  }

  private nameOf(author: string): string {
    let name = this.names.get(author);
    if (name === undefined) {
      name = this.next();
      this.names.set(author, name);
      const colour = this.colourOf(author);
      if (colour !== undefined) this.colours[name] = colour;
    }
    return name;
  }
}
