import type { Mark } from '@doodla/core';
import type { Idea, IdeaEdit } from '@doodla/core/idea-map';
import { ideasOf, isFolded } from '@doodla/core/idea-map';

/** An idea as a row of an outline. */
export interface Row {
  idea: Idea;
  parent: Idea | undefined;
  /** Place among those that hang on the same one. */
  place: number;
  depth: number;
}

/** The ideas of a map in the order of an outline, without what is folded away. */
export function rowsOf(map: Idea): Row[] {
  const rows = (idea: Idea, parent: Idea | undefined, place: number, depth: number): Row[] => [
    { idea, parent, place, depth },
    ...(isFolded(idea) ? [] : idea.children.flatMap((child, i) => rows(child, idea, i, depth + 1))),
  ];
  return rows(map, undefined, 0, 0);
}

/** What is done to a map; gives the idea that is in hand afterwards, where that is another. */
export type IdeaChange = (edit: IdeaEdit) => string | undefined | void;

const NEW = { text: '', children: [] };

/** What can be done to the idea of a row by somebody who may touch some marks; undefined where it cannot be. */
export function doings(
  rows: readonly Row[],
  at: number,
  mayTouch: (mark: Mark) => boolean,
): Record<Doing, IdeaChange | undefined> {
  const { idea, parent: over, place } = rows[at]!;
  const isOwn = ({ mark, line }: Idea) => mayTouch(mark) && (line === undefined || mayTouch(line));
  const parent = isOwn(idea) ? over : undefined;
  const id = idea.mark.id;
  const before = parent?.children[place - 1];
  const above = parent && rows.find((row) => row.idea === parent);
  const last = parent && place === parent.children.length - 1;
  return {
    child: (edit) => edit.add(id, idea.children.length, NEW),
    sibling: over && ((edit) => edit.add(over.mark.id, place + 1, NEW)),
    inwards: before ? (edit) => edit.move(id, before.mark.id, before.children.length) : undefined,
    outwards: above?.parent ? (edit) => edit.move(id, above.parent!.mark.id, above.place + 1) : undefined,
    up: parent && place > 0 ? (edit) => edit.move(id, parent.mark.id, place - 1) : undefined,
    down: parent && !last ? (edit) => edit.move(id, parent.mark.id, place + 1) : undefined,
    remove:
      parent && ideasOf(idea).every(isOwn)
        ? (edit) => {
            edit.remove(id);
            return (before ?? parent).mark.id;
          }
        : undefined,
  };
}

export type Doing = 'child' | 'sibling' | 'inwards' | 'outwards' | 'up' | 'down' | 'remove';

/** Keys of a row, by what they do. */
function doingOf({ key, altKey, ctrlKey, metaKey }: KeyLike, isEmpty: boolean): Doing | undefined {
  if (key === 'Enter') return ctrlKey || metaKey ? 'child' : 'sibling';
  if (key === 'Backspace' && isEmpty) return 'remove';
  if (!altKey) return undefined;
  const alt: Record<string, Doing> = {
    ArrowRight: 'inwards',
    ArrowLeft: 'outwards',
    ArrowUp: 'up',
    ArrowDown: 'down',
  };
  return alt[key];
}

type KeyLike = Pick<KeyboardEvent, 'altKey' | 'ctrlKey' | 'key' | 'metaKey'>;

interface IdeaKey {
  event: KeyLike & { preventDefault(): void };
  rows: readonly Row[];
  /** The row that has the focus, and what is typed in it now. */
  at: number;
  text: string;
  mayTouch(mark: Mark): boolean;
  change(what: IdeaChange): void;
  onCurrent(id: string): void;
}

/** Does what a key means in a row. Returns whether it meant something. */
export function ideaKey({ event, rows, at, text, mayTouch, change, onCurrent }: IdeaKey): boolean {
  const step = !event.altKey && { ArrowUp: -1, ArrowDown: 1 }[event.key];
  const doing = doingOf(event, text === '');
  if (!step && !doing) return false;
  event.preventDefault();
  if (step) {
    const to = rows[at + step];
    if (to) onCurrent(to.idea.mark.id);
    return true;
  }
  // From the middle there is nothing beside, only what hangs on it.
  const done = doings(rows, at, mayTouch)[doing === 'sibling' && at === 0 ? 'child' : doing!];
  if (done) change(done);
  return true;
}
