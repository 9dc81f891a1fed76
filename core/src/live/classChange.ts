import isSame from 'fast-deep-equal';
import type { ClassState } from './messages.js';

/** Parts of a class's state that are lists of things with ids, of which single ones change. */
const LISTS = ['people', 'devices'] as const;
type ListName = (typeof LISTS)[number];
type Single = Omit<ClassState, ListName | 'version' | 'now' | 'sitting'>;

interface ListChange<T> {
  /** New things at the end, and known ones that are different now. */
  put: T[];
  gone: string[];
}

/** What has changed in a class since the version before this one. */
export interface ClassChange {
  sitting: string;
  version: number;
  now: number;
  set: Partial<Single>;
  people?: ListChange<ClassState['people'][number]>;
  devices?: ListChange<ClassState['devices'][number]>;
}

/** What is to be told to those who know one state, so that they know the next; undefined where nothing is. */
export function classChange(before: ClassState, after: ClassState): ClassChange | undefined {
  const set: Record<string, unknown> = {};
  for (const [key, value] of Object.entries(after)) {
    if (key === 'version' || key === 'now' || key === 'sitting' || isList(key)) continue;
    if (!isSame(before[key as keyof Single], value)) set[key] = value;
  }
  const people = listChange(before.people, after.people);
  const devices = listChange(before.devices, after.devices);
  if (Object.keys(set).length === 0 && !people && !devices) return undefined;
  const { sitting, version, now } = after;
  return { sitting, version, now, set, ...(people && { people }), ...(devices && { devices }) };
}

/** The state after a change of the one before. */
export function withClassChange(state: ClassState, change: ClassChange): ClassState {
  const { version, now, set, people, devices } = change;
  return {
    ...state,
    ...set,
    version,
    now,
    people: withListChange(state.people, people),
    devices: withListChange(state.devices, devices),
  };
}

const isList = (key: string) => (LISTS as readonly string[]).includes(key);

/** Things keep their order; where they do not, all are put anew. */
function listChange<T extends { id: string }>(
  before: readonly T[],
  after: readonly T[],
): ListChange<T> | undefined {
  const known = new Map(before.map((one) => [one.id, one]));
  const left = new Set(after.map(({ id }) => id));
  const gone = before.filter(({ id }) => !left.has(id)).map(({ id }) => id);
  const put = after.filter((one) => !isSame(known.get(one.id), one));
  const change = { put, gone };
  if (put.length === 0 && gone.length === 0 && isInOrder(before, after)) return undefined;
  if (isSame(withListChange(before, change), after)) return change;
  return { put: [...after], gone: before.map(({ id }) => id) };
}

const isInOrder = (a: readonly { id: string }[], b: readonly { id: string }[]) =>
  a.length === b.length && a.every(({ id }, i) => id === b[i]!.id);

function withListChange<T extends { id: string }>(
  list: readonly T[],
  change: ListChange<T> | undefined,
): T[] {
  if (!change) return [...list];
  const gone = new Set(change.gone);
  const all = new Map(list.filter(({ id }) => !gone.has(id)).map((one) => [one.id, one]));
  for (const one of change.put) all.set(one.id, one);
  return [...all.values()];
}
