import type { Change, Mark, WireChange, WireMark } from '@doodla/core';
import {
  concernsPages,
  FORGOTTEN,
  packChanges,
  packMark,
  unpackChanges,
  unpackMark,
  withoutMarks,
} from '@doodla/core';
import type { Append, AppendedOperation } from './storedLog.js';
import { packJson, unpackJson } from './packedJson.js';

/** An operation as it is stored. */
export interface OperationRow {
  seq: number;
  id: string;
  author: string;
  at: number;
  undoes: string | null;
  /** Ids of the pages that it concerns, with spaces between. */
  pages: string;
  of_pages: number;
  changes: Buffer;
  /** Null where it only takes away what was added. */
  inverse: Buffer | null;
}

/** A mark as it is stored, with the operation that made it so. */
export interface MarkRow {
  id: string;
  seq: number;
  /** Null where it is as it was added: then it stands in its operation. */
  body: Buffer | null;
  changes: Buffer;
}

/** Marks of an operation with more changes have a body of their own, so that it is not unpacked for each. */
const MOST_POINTED_TO = 20;

/** An operation as it is to be stored. */
export function operationRow({ logged, inverse, pages }: Append): OperationRow {
  const { seq, author, at, operation } = logged;
  const { changes } = operation;
  const onlyAdds = changes.every((change) => change.do === 'add');
  return {
    seq,
    id: operation.id,
    author,
    at,
    undoes: operation.undoes ?? null,
    pages: pages.join(' '),
    of_pages: concernsPages(changes) ? 1 : 0,
    changes: packJson(packChanges(changes)),
    inverse: onlyAdds ? null : packJson(packChanges(inverse)),
  };
}

/** What is stored of a mark beside the operation that made it what it is. */
export function bodyOf(mark: Mark, changes: readonly Change[]): Buffer | null {
  const isInOperation =
    changes.length <= MOST_POINTED_TO &&
    changes.some((change) => change.do === 'add' && change.mark === mark);
  return isInOperation ? null : packJson(packMark(mark));
}

/** A stored operation with what takes it back. */
export function operationOf(row: Omit<OperationRow, 'pages' | 'of_pages'>): AppendedOperation {
  const { seq, author, at, id, undoes } = row;
  const changes = unpackChanges(unpackJson<WireChange[]>(row.changes));
  const logged = { seq, author, at, operation: { id, changes, ...(undoes !== null && { undoes }) } };
  return { logged, inverse: inverseOf(row) };
}

/** What takes a stored operation back. */
export function inverseOf({ changes, inverse }: Pick<OperationRow, 'changes' | 'inverse'>): Change[] {
  if (inverse) return unpackChanges(unpackJson<WireChange[]>(inverse));
  const adds = unpackJson<Extract<WireChange, { do: 'add' }>[]>(changes);
  return adds.map(({ mark }): Change => ({ do: 'remove', mark: mark.id })).reverse();
}

/** A stored mark. */
export function markOf({ id, body, changes }: MarkRow): Mark {
  if (body) return unpackMark(unpackJson<WireMark>(body));
  const added = unpackJson<WireChange[]>(changes).findLast(
    (change) => change.do === 'add' && change.mark.id === id,
  );
  return unpackMark((added as Extract<WireChange, { do: 'add' }>).mark);
}

/** What an operation becomes without a student and their marks; undefined where nothing of it is theirs. */
export function without(
  { logged, inverse }: AppendedOperation,
  student: string,
  marks: ReadonlySet<string>,
): Pick<OperationRow, 'author' | 'changes' | 'inverse'> | undefined {
  const { author, operation } = logged;
  const changes = withoutMarks(operation.changes, marks);
  const back = withoutMarks(inverse, marks);
  const isSame = changes.length === operation.changes.length && back.length === inverse.length;
  if (isSame && author !== student) return undefined;
  return {
    author: author === student ? FORGOTTEN : author,
    changes: packJson(packChanges(changes)),
    inverse: packJson(packChanges(back)),
  };
}
