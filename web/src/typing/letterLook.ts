import type { PartLook, TextStyle } from '@doodla/core';
import { TEXT_SCALE, TEXT_SIZE } from '@doodla/core';
import type { Command, EditorState } from 'prosemirror-state';
import type { LookKey } from './letters';
import { lookOf, schema } from './letters';

/** By how much letters grow or shrink in one step. */
const STEP = 1.25;

type Flag = 'bold' | 'italic' | 'underline';

/** What each of the chosen letters has of its own; where none is chosen, what the next one will have. */
function chosenLooks(state: EditorState): PartLook[] {
  const { from, to, empty, $from } = state.selection;
  if (empty) return [lookOf(state.storedMarks ?? $from.marks())];
  const looks: PartLook[] = [];
  state.doc.nodesBetween(from, to, (node) => {
    if (node.isText) looks.push(lookOf(node.marks));
  });
  return looks;
}

/** Whether all of the chosen letters are bold, italic or underlined. */
export function hasLook(state: EditorState, key: Flag, style: TextStyle): boolean {
  const looks = chosenLooks(state);
  return looks.length > 0 && looks.every((look) => look[key] ?? style[key]);
}

/** The colour of the first of the chosen letters. */
export function colourAt(state: EditorState, style: TextStyle): string {
  return chosenLooks(state)[0]?.colour ?? style.colour;
}

/** Gives the chosen letters, or the next ones, something of their own. */
export function setLook(key: LookKey, value: unknown): Command {
  return (state, dispatch) => {
    const { from, to, empty } = state.selection;
    const mark = schema.marks[key].create({ value });
    dispatch?.(empty ? state.tr.addStoredMark(mark) : state.tr.addMark(from, to, mark));
    return true;
  };
}

/** Makes the chosen letters bold, italic or underlined; or no longer so if all of them are. */
export function toggleLook(key: Flag, style: () => TextStyle): Command {
  return (state, dispatch) => setLook(key, !hasLook(state, key, style()))(state, dispatch);
}

/** Makes the chosen letters, or the next ones, larger or smaller by some steps, each by its own size. */
export function resizeLetters(steps: number, style: () => TextStyle): Command {
  return (state, dispatch) => {
    const { from, to, empty } = state.selection;
    const scaled = (look: PartLook) =>
      schema.marks.scale.create({ value: nextScale(look.scale ?? 1, steps, style().size) });
    if (empty) dispatch?.(state.tr.addStoredMark(scaled(chosenLooks(state)[0]!)));
    else {
      const { tr } = state;
      state.doc.nodesBetween(from, to, (node, place) => {
        if (!node.isText) return;
        const [start, end] = [Math.max(from, place), Math.min(to, place + node.nodeSize)];
        tr.addMark(start, end, scaled(lookOf(node.marks)));
      });
      dispatch?.(tr);
    }
    return true;
  };
}

/** The next step of a ladder through 1, within what sizes may be. */
function nextScale(scale: number, steps: number, size: number): number {
  const rung = Math.round(Math.log(scale) / Math.log(STEP)) + steps;
  const most = Math.min(TEXT_SCALE.max, TEXT_SIZE.max / size);
  const least = Math.max(TEXT_SCALE.min, TEXT_SIZE.min / size);
  return Number(Math.min(most, Math.max(least, STEP ** rung)).toFixed(4));
}
