import { packPoints, unpackPoints } from '../ink/packedPoints.js';
import { isRecord } from '../checks/fields.js';
import type { Mark } from '../marks/mark.js';
import type { StrokeMark } from '../marks/stroke/strokeMark.js';
import type { Change, LoggedOperation } from '../ops/operation.js';

/** A mark as it is sent and stored: the points of ink packed. */
export type WireMark = Mark | (Omit<StrokeMark, 'points'> & { points: string });
export type WireChange = Exclude<Change, { do: 'add' }> | { do: 'add'; mark: WireMark };

/** Marks never change in place, so what was packed once is good as long as the mark is there. */
const packed = new WeakMap<Mark, WireMark>();

export function packMark(mark: Mark): WireMark {
  if (mark.kind !== 'stroke') return mark;
  let wire = packed.get(mark);
  if (!wire) {
    const points = packPoints(mark.points);
    wire = points === undefined ? mark : { ...mark, points };
    packed.set(mark, wire);
  }
  return wire;
}

/** A mark that `packMark` has packed. */
export function unpackMark(wire: WireMark): Mark {
  if (wire.kind !== 'stroke' || typeof wire.points !== 'string') return wire as Mark;
  const mark: Mark = { ...wire, points: unpackPoints(wire.points) ?? [] };
  packed.set(mark, wire);
  return mark;
}

export function packChanges(changes: readonly Change[]): WireChange[] {
  return changes.map((change) => (change.do === 'add' ? { ...change, mark: packMark(change.mark) } : change));
}

export function unpackChanges(changes: readonly WireChange[]): Change[] {
  return changes.map((change) =>
    change.do === 'add' ? { ...change, mark: unpackMark(change.mark) } : change,
  );
}

/** An operation as it is sent. */
export function packLogged(logged: LoggedOperation): LoggedOperation<WireChange> {
  const { operation } = logged;
  return { ...logged, operation: { ...operation, changes: packChanges(operation.changes) } };
}

/** An operation that `packLogged` has packed. */
export function unpackLogged(logged: LoggedOperation<WireChange>): LoggedOperation {
  const { operation } = logged;
  return { ...logged, operation: { ...operation, changes: unpackChanges(operation.changes) } };
}

/** Changes from outside with their ink unpacked as far as it can be; whether they are good is judged afterwards. */
export function unpackedInput(changes: unknown): unknown {
  if (!Array.isArray(changes)) return changes;
  return changes.map((change: unknown): unknown => {
    if (!isRecord(change) || !isRecord(change.mark) || typeof change.mark.points !== 'string') return change;
    return { ...change, mark: { ...change.mark, points: unpackPoints(change.mark.points) } };
  });
}
