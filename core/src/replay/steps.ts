import type { Mark, MarkOf } from '../marks/mark.js';
import type { Change, LoggedOperation } from '../ops/operation.js';
import { durationOf } from './growingInk.js';
import type { Stretch } from './playClock.js';

/** Something that was done to a page; from when to when, server time. */
export interface ReplayStep extends Stretch {
  readonly seq: number;
  readonly author: string;
  readonly page: string;
  /** The stroke that grew meanwhile, if it was one. */
  readonly ink: MarkOf<'stroke'> | undefined;
  readonly did: 'draw' | 'place' | 'change' | 'remove' | 'undo' | 'paper';
}

/** What was done, page by page, oldest first. */
export interface StepsByPage {
  readonly steps: ReplayStep[];
  /** The operations that each page has to do with, also where nothing of it is a step. */
  readonly operations: ReadonlyMap<string, LoggedOperation[]>;
}

/** Sorts a log by pages, as far as the marks that count go. An operation on several pages is a step on each. */
export function stepsByPage(
  logged: readonly LoggedOperation[],
  counts: (mark: Mark) => boolean,
): StepsByPage {
  const steps: ReplayStep[] = [];
  const operations = new Map<string, LoggedOperation[]>();
  const pageOf = new Map<string, string>();
  for (const one of logged) {
    const changes = new Map<string, Change[]>();
    for (const change of one.operation.changes) {
      const page = pageOfChange(change, pageOf, counts);
      if (page !== undefined) changes.set(page, [...(changes.get(page) ?? []), change]);
    }
    for (const [page, own] of changes) {
      operations.set(page, [...(operations.get(page) ?? []), one]);
      const step = stepOf(one, page, own);
      if (step) steps.push(step);
    }
  }
  return { steps, operations };
}

function pageOfChange(
  change: Change,
  pageOf: Map<string, string>,
  counts: (mark: Mark) => boolean,
): string | undefined {
  switch (change.do) {
    case 'add':
      if (!counts(change.mark)) return undefined;
      pageOf.set(change.mark.id, change.mark.page);
      return change.mark.page;
    case 'patch':
    case 'remove':
      return pageOf.get(change.mark);
    case 'addPage':
      return change.page.id;
    default:
      return change.page;
  }
}

/** What is seen of an operation on a page; undefined where nothing is, such as of its name. */
function stepOf(
  { seq, author, at, operation }: LoggedOperation,
  page: string,
  changes: readonly Change[],
): ReplayStep | undefined {
  const did = operation.undoes === undefined ? doneBy(changes) : 'undo';
  if (!did) return undefined;
  const [only] = changes;
  const isOne = changes.length === 1 && did === 'draw' && only?.do === 'add';
  const ink = isOne && only.mark.kind === 'stroke' ? only.mark : undefined;
  return { seq, author, page, from: ink ? at - durationOf(ink) : at, to: at, ink, did };
}

function doneBy(changes: readonly Change[]): ReplayStep['did'] | undefined {
  const added = changes.flatMap((change) => (change.do === 'add' ? [change.mark] : []));
  const does = (what: Change['do']) => changes.some((change) => change.do === what);
  if (added.length > 0)
    return does('remove') ? 'change' : added.every(({ kind }) => kind === 'stroke') ? 'draw' : 'place';
  if (does('patch')) return 'change';
  if (does('remove')) return 'remove';
  return changes.some(isOfPaper) ? 'paper' : undefined;
}

function isOfPaper(change: Change): boolean {
  if (change.do !== 'patchPage') return false;
  const { surface, width, height } = change.set;
  return surface !== undefined || width !== undefined || height !== undefined;
}
