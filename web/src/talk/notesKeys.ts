import { notesSchema } from '@doodla/core/notes';
import { baseKeymap, chainCommands, setBlockType, toggleMark } from 'prosemirror-commands';
import { history, redo, undo } from 'prosemirror-history';
import { keymap } from 'prosemirror-keymap';
import { liftListItem, sinkListItem, splitListItem, wrapInList } from 'prosemirror-schema-list';
import type { Command, EditorState, Plugin } from 'prosemirror-state';

const { heading, paragraph, bullet_list, ordered_list, list_item } = notesSchema.nodes;
const { strong, em, underline } = notesSchema.marks;

export type NoteCommand =
  'heading' | 'bold' | 'italic' | 'underline' | 'bullets' | 'numbers' | 'undo' | 'redo';

/** What can be done with chosen words of the notes. */
export const NOTE_COMMANDS: Readonly<Record<NoteCommand, Command>> = {
  heading: (state, dispatch) =>
    (isIn(state, 'heading') ? setBlockType(paragraph) : setBlockType(heading, { level: 1 }))(state, dispatch),
  bold: toggleMark(strong),
  italic: toggleMark(em),
  underline: toggleMark(underline),
  bullets: (state, dispatch) => listed(bullet_list)(state, dispatch),
  numbers: (state, dispatch) => listed(ordered_list)(state, dispatch),
  undo,
  redo,
};

/** Whether what is chosen is in a block of a kind. */
export function isIn({ selection: { $from } }: EditorState, kind: string): boolean {
  for (let depth = $from.depth; depth > 0; depth -= 1) if ($from.node(depth).type.name === kind) return true;
  return false;
}

/** Whether what is chosen, or would be typed, has a look. */
export function hasLook(
  { selection, storedMarks, doc }: EditorState,
  look: 'bold' | 'italic' | 'underline',
): boolean {
  const mark = { bold: strong, italic: em, underline }[look];
  const { from, to, empty, $from } = selection;
  if (empty) return mark.isInSet(storedMarks ?? $from.marks()) !== undefined;
  return doc.rangeHasMark(from, to, mark);
}

function listed(kind: typeof bullet_list): Command {
  return (state, dispatch) =>
    isIn(state, kind.name) ? liftListItem(list_item)(state, dispatch) : wrapInList(kind)(state, dispatch);
}

/** Keys of the notes, and taking back what one has written oneself. */
export const NOTE_PLUGINS: readonly Plugin[] = [
  keymap({
    'Mod-b': NOTE_COMMANDS.bold,
    'Mod-i': NOTE_COMMANDS.italic,
    'Mod-u': NOTE_COMMANDS.underline,
    'Mod-z': undo,
    'Mod-y': redo,
    'Shift-Mod-z': redo,
    Enter: splitListItem(list_item),
    'Mod-]': sinkListItem(list_item),
    'Mod-[': liftListItem(list_item),
    Backspace: chainCommands(atStartOfItem, baseKeymap.Backspace!),
  }),
  keymap(baseKeymap),
  history(),
];

/** At the beginning of an item, the item is taken out of its list. */
function atStartOfItem(...[state, dispatch, view]: Parameters<Command>): boolean {
  const { empty, $from } = state.selection;
  if (!empty || $from.parentOffset > 0 || !isIn(state, 'list_item')) return false;
  return liftListItem(list_item)(state, dispatch, view);
}
