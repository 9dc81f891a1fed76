import type { Mark } from '../marks/mark.js';
import { applyChanges } from '../ops/apply.js';
import type { LogState } from '../ops/logState.js';
import { emptyState } from '../ops/logState.js';
import type { Change, LoggedOperation } from '../ops/operation.js';
import type { Page } from '../pages/page.js';
import { durationOf } from '../replay/growingInk.js';
import type { Stretch } from '../replay/playClock.js';
import { risingTimes } from '../replay/replay.js';

interface Choice {
  /** What of real time plays. */
  readonly stretches: readonly Stretch[];
  /** The pages that are shown. */
  readonly pages: ReadonlySet<string>;
  /** Which marks are shown. */
  counts(mark: Mark): boolean;
}

/**
 * A log with nothing in it but what is seen of it while stretches of it play: what was done otherwise is there only by what came
 * of it, so that nothing that was cut out or hidden can be read from it. It plays as the whole log does.
 */
export function condensed(operations: readonly LoggedOperation[], choice: Choice): LoggedOperation[] {
  const state = emptyState();
  const unseen = new Unseen(state);
  const known = new Set<string>();
  const kept: LoggedOperation[] = [];
  for (const one of risingTimes(operations)) {
    const changes = one.operation.changes.filter((change) => isAbout(change, known, choice));
    if (changes.length === 0) continue;
    const isNow = isSeen({ ...one, operation: { ...one.operation, changes } }, choice.stretches);
    // What has come by then is there when a stretch begins to play.
    if (isNow || choice.stretches.some(({ from }) => from >= unseen.until && from < one.at))
      kept.push(...unseen.take());
    if (!isNow) {
      unseen.apply(one, changes);
      continue;
    }
    applyChanges(state, changes);
    const { id, undoes } = one.operation;
    kept.push({ ...one, operation: { id, changes, ...(undoes !== undefined && { undoes }) } });
  }
  if (choice.stretches.some(({ from }) => from >= unseen.until)) kept.push(...unseen.take());
  return kept.map((one, i) => ({ ...one, seq: i + 1 }));
}

/** Whether a change is of the pages and marks that are shown; these are noted as `known`. */
function isAbout(change: Change, known: Set<string>, { pages, counts }: Choice): boolean {
  switch (change.do) {
    case 'add': {
      const isShown = pages.has(change.mark.page) && counts(change.mark);
      if (isShown) known.add(change.mark.id);
      return isShown;
    }
    case 'patch':
    case 'remove':
      return known.has(change.mark);
    case 'addPage':
      return pages.has(change.page.id);
    default:
      return pages.has(change.page);
  }
}

/** Whether something is done, or ink grows, while a stretch plays. */
function isSeen({ at, operation }: LoggedOperation, stretches: readonly Stretch[]): boolean {
  const longest = Math.max(
    0,
    ...operation.changes.map((change) =>
      change.do === 'add' && change.mark.kind === 'stroke' ? durationOf(change.mark) : 0,
    ),
  );
  return stretches.some(({ from, to }) => at >= from && at - longest <= to);
}

/** What nobody sees being done, as one operation that does what came of it. */
class Unseen {
  private marks = new Map<string, Mark | undefined>();
  private pages = new Map<string, Page | undefined>();
  private last: LoggedOperation | undefined;

  constructor(private readonly state: LogState) {}

  /** When the last of it was done; never, where there is none. */
  get until(): number {
    return this.last?.at ?? Infinity;
  }

  apply(one: LoggedOperation, changes: readonly Change[]): void {
    for (const change of changes) this.remember(change);
    applyChanges(this.state, changes);
    this.last = one;
  }

  /** What has come of it since it was last taken. */
  take(): LoggedOperation[] {
    const { last } = this;
    const changes = last ? [...this.ofPages(), ...this.ofMarks()] : [];
    this.marks = new Map();
    this.pages = new Map();
    this.last = undefined;
    return last && changes.length > 0 ? [{ ...last, operation: { id: last.operation.id, changes } }] : [];
  }

  private remember(change: Change): void {
    const { marks, pages } = this.state;
    const keep = <T>(kept: Map<string, T | undefined>, id: string, now: T | undefined) => {
      if (!kept.has(id)) kept.set(id, now);
    };
    if (change.do === 'add') keep(this.marks, change.mark.id, marks.get(change.mark.id));
    else if (change.do === 'addPage') keep(this.pages, change.page.id, pages.get(change.page.id));
    else if ('mark' in change) keep(this.marks, change.mark, marks.get(change.mark));
    else keep(this.pages, change.page, pages.get(change.page));
  }

  private ofPages(): Change[] {
    return [...this.pages].flatMap(([id, before]): Change[] => {
      const now = this.state.pages.get(id);
      if (now === before) return [];
      return now ? [{ do: 'addPage', page: now }] : [{ do: 'removePage', page: id }];
    });
  }

  /** A stroke is put there and left as it is: put there alone it would be drawn again, point by point. */
  private ofMarks(): Change[] {
    return [...this.marks].flatMap(([id, before]): Change[] => {
      const now = this.state.marks.get(id);
      if (now === before) return [];
      if (!now) return [{ do: 'remove', mark: id }];
      return [
        { do: 'add', mark: now },
        { do: 'patch', mark: id, set: { locked: now.locked } },
      ];
    });
  }
}
