import type { TakePlace } from '../api/explanations.js';
import type { Mark, MarkOf } from '../marks/mark.js';
import { countWhile } from '../ops/countWhile.js';
import type { PageState } from '../ops/history.js';
import { PageHistory } from '../ops/history.js';
import type { LoggedOperation } from '../ops/operation.js';
import { durationOf, inkUntil } from './growingInk.js';
import { PartsClock } from './partsClock.js';
import type { PlayedThing, Stretch } from './playClock.js';
import { PlayClock } from './playClock.js';
import type { ReplayStep } from './steps.js';
import { stepsByPage } from './steps.js';

/** The class came to a page; server time. */
export interface Turn {
  readonly at: number;
  readonly page: string;
  /** Of one that was noted. */
  readonly id?: number;
  /** Of one that was noted while it was recorded. */
  readonly place?: TakePlace;
  /** What the chapter that begins with it is called, if not as its page is. */
  readonly name?: string | null;
}

/** What was done in a lesson or class, oldest first, and where the class was meanwhile. */
export interface Recorded {
  readonly operations: readonly LoggedOperation[];
  readonly turns: readonly Turn[];
}

export interface ReplayChoice {
  /** The page that is played; the whole class with its turns where it is left out. */
  readonly page?: string | undefined;
  /** Which marks are shown. */
  readonly counts: (mark: Mark) => boolean;
  /** Who leads the class from page to page, of older classes whose turns nobody noted. */
  readonly leads: (author: string) => boolean;
  /** No pause is longer, milliseconds; Infinity leaves all as they were. */
  readonly longestPause: number;
  /** What of real time plays, in which order; all of it where it is left out. */
  readonly parts?: readonly Stretch[] | undefined;
}

/** Where a playback is: the page, how many of its steps are done, and what is just being drawn. */
export interface ReplayMoment {
  readonly page: string;
  readonly count: number;
  readonly growing: readonly MarkOf<'stroke'>[];
}

/** A page or class that plays again from its log. Times are milliseconds of the playback, from 0 to `length`. */
export class Replay {
  /** What is seen to be done, in the order in which it plays. */
  readonly steps: readonly ReplayStep[];
  /** Where the class turns to another page; one of time 0 at least, where anything is there to play. */
  readonly turns: readonly Turn[];
  private readonly clock: PlayClock | PartsClock;
  private readonly played: readonly PlayedThing<ReplayStep>[];
  private readonly turned: readonly number[];
  private readonly operations: ReadonlyMap<string, LoggedOperation[]>;
  private readonly histories = new Map<string, PageHistory>();
  /** All that was drawn on the pages that play, and the longest that any of it took, so that growing ink is found near its end. */
  private readonly drawn: readonly ReplayStep[];
  private readonly longest: number;

  constructor(
    { operations, turns }: Recorded,
    private readonly choice: ReplayChoice,
  ) {
    const { page, counts, leads, longestPause, parts } = choice;
    const all = stepsByPage(risingTimes(operations), counts);
    this.operations = all.operations;
    const way = page === undefined ? wayOf(turns, all.steps, leads) : [];
    this.drawn = all.steps.filter((step) => step.page === (page ?? pageAt(way, step.to)));
    const led = way.map((turn) => ({ ...turn, from: turn.at, to: turn.at }));
    this.clock = parts ? new PartsClock(parts) : new PlayClock([...this.drawn, ...led], longestPause);
    const start = this.clock.toReal(0);
    this.played = this.clock.playing(this.drawn);
    this.steps = this.played.map(({ one }) => one);
    const onPage = page === undefined ? undefined : { one: { at: start, page }, from: 0, to: 0 };
    const turned = onPage ? [onPage] : parts ? turnsIn(parts, way) : this.clock.playing(led);
    this.turns = turned.map(({ one }) => one);
    this.turned = turned.map(({ from }) => from);
    this.longest = Math.max(0, ...this.drawn.flatMap(({ ink }) => (ink ? [durationOf(ink)] : [])));
  }

  /** How long it is. */
  get length(): number {
    return this.clock.length;
  }

  /** What is to be seen at a time; undefined where there is nothing to play. */
  at(time: number): ReplayMoment | undefined {
    const real = this.realTime(time);
    const page = this.turns[this.turnAt(time)]?.page;
    if (page === undefined) return undefined;
    return { page, count: this.history(page).countBy(real), growing: this.growingAt(real, page) };
  }

  /** A page after so many of its steps. */
  stateAfter({ page, count }: Pick<ReplayMoment, 'page' | 'count'>): PageState {
    return this.history(page).after(count);
  }

  /** The number of the last operation that is seen at a moment; 0 where there is none. */
  seqOf({ page, count }: Pick<ReplayMoment, 'page' | 'count'>): number {
    return this.history(page).steps[count - 1]?.seq ?? 0;
  }

  /** The operations that make one count of a page's steps of another, which is not above it. */
  between(page: string, from: number, to: number): readonly LoggedOperation[] {
    return this.history(page).steps.slice(from, to);
  }

  /** The step that was done last at a time. */
  lastStep(time: number): ReplayStep | undefined {
    return this.steps[this.doneBy(time) - 1];
  }

  /** Where the next step begins and ends; undefined after the last one. */
  nextStep(time: number): Span | undefined {
    const next = this.doneBy(time);
    return next < this.played.length ? this.spanOf(next) : undefined;
  }

  /** When the step before the last one that is done was done; 0 where there is none. */
  previousStep(time: number): number {
    const last = this.doneBy(time) - 1;
    for (let i = last - 1; i >= 0; i--)
      if (this.played[i]!.to < this.played[last]!.to) return this.played[i]!.to;
    return 0;
  }

  /** The turn that the class is at, counted from 0; -1 where there is none. */
  turnAt(time: number): number {
    if (this.turns.length === 0) return -1;
    return Math.max(0, countWhile(this.turned.length, (i) => this.turned[i]! <= time) - 1);
  }

  /** When each turn is. */
  turnTimes(): readonly number[] {
    return this.turned;
  }

  /** When a step begins and ends. */
  spanOf(index: number): Span {
    const { from, to } = this.played[index]!;
    return { from, to };
  }

  /** The server's time at a time of the playback, whole milliseconds as those of operations are. */
  realTime(time: number): number {
    return Math.round(this.clock.toReal(time));
  }

  /** When in the playback something is that was at a time of the server's. */
  timeOf(real: number): number {
    return this.clock.toPlay(real);
  }

  private history(page: string): PageHistory {
    let history = this.histories.get(page);
    if (!history) {
      history = new PageHistory(page, this.choice.counts, this.operations.get(page) ?? []);
      this.histories.set(page, history);
    }
    return history;
  }

  /** How many steps have ended at a time. */
  private doneBy(time: number): number {
    return countWhile(this.played.length, (i) => this.played[i]!.to <= time);
  }

  private growingAt(real: number, page: string): MarkOf<'stroke'>[] {
    const growing: MarkOf<'stroke'>[] = [];
    const done = countWhile(this.drawn.length, (i) => this.drawn[i]!.to <= real);
    for (let i = done; i < this.drawn.length; i++) {
      const { ink, from, to, page: on } = this.drawn[i]!;
      if (to > real + this.longest) break;
      const drawn = ink && on === page ? inkUntil(ink, real - from) : undefined;
      if (drawn) growing.push(drawn);
    }
    return growing;
  }
}

/** A stretch of a playback. */
export interface Span {
  readonly from: number;
  readonly to: number;
}

/** The page that the class was on at a time; undefined before the first. */
function pageAt(turns: readonly Turn[], real: number): string | undefined {
  return turns[countWhile(turns.length, (i) => turns[i]!.at <= real) - 1]?.page;
}

/** The way of the class through its pages: as it was noted, else as those who lead it have written. */
function wayOf(
  noted: readonly Turn[],
  steps: readonly ReplayStep[],
  leads: ReplayChoice['leads'],
): readonly Turn[] {
  if (noted.length > 0) return noted;
  const led = steps.filter(({ author }) => leads(author));
  const first = steps[0];
  const way: Turn[] = first ? [{ at: first.from, page: (led[0] ?? first).page }] : [];
  for (const { page, from } of led)
    if (page !== way.at(-1)?.page) way.push({ at: Math.max(from, way.at(-1)!.at), page });
  return way;
}

/** Where the pages turn while stretches of time play one after the other: also where the next one begins on another page. */
function turnsIn(parts: readonly Stretch[], way: readonly Turn[]): PlayedThing<Turn>[] {
  let start = 0;
  const turned: PlayedThing<Turn>[] = [];
  for (const part of parts) {
    const first = way[Math.max(0, countWhile(way.length, (i) => way[i]!.at <= part.from) - 1)];
    const later = way.filter(({ at }) => at > part.from && at < part.to);
    for (const one of first ? [first, ...later] : later) {
      const time = start + Math.max(0, one.at - part.from);
      if (turned.at(-1)?.one.page !== one.page) turned.push({ one, from: time, to: time });
    }
    start += part.to - part.from;
  }
  return turned;
}

/** A server's clock may be set back; what comes later in a log came later. */
export function risingTimes(operations: readonly LoggedOperation[]): LoggedOperation[] {
  let latest = -Infinity;
  return operations.map((one) => {
    latest = Math.max(latest, one.at);
    return one.at === latest ? one : { ...one, at: latest };
  });
}
