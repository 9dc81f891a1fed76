import type { TextPart, TextStyle } from '@doodla/core';
import { MAX_TEXT_LENGTH } from '@doodla/core';
import { baseKeymap } from 'prosemirror-commands';
import { closeHistory, history, redo, undo } from 'prosemirror-history';
import { keymap } from 'prosemirror-keymap';
import type { Command } from 'prosemirror-state';
import { EditorState, Plugin, TextSelection } from 'prosemirror-state';
import { EditorView } from 'prosemirror-view';
import { toggleLook } from './letterLook';
import { letterDoc, pastedLines, typedIn } from './letters';
import { lettersDrawn } from './lettersDrawn';
import { t } from '../words';

/** Most letters in a note, UTF-16 units. */
const NOTE_LENGTH = 2000;

export interface TextBoxOptions {
  text: string;
  parts: readonly TextPart[];
  /** Notes look the same everywhere. */
  isNote: boolean;
  /** How the text as a whole looks now. */
  style(): TextStyle;
  onTyped(text: string, parts: readonly TextPart[]): void;
  /** Told whenever something was typed or chosen. */
  onChange(letters: EditorState): void;
  /** What is typed or put in is more than `most` letters. */
  onFull(most: number): void;
  onClose(): void;
}

/** The box that text is typed into. */
export function openTextBox(place: HTMLElement, options: TextBoxOptions): EditorView {
  const doc = letterDoc(options.text, options.parts);
  const most = options.isNote ? NOTE_LENGTH : MAX_TEXT_LENGTH;
  const { style } = options;
  const view: EditorView = new EditorView(place, {
    state: EditorState.create({
      doc,
      selection: TextSelection.atEnd(doc),
      plugins: [
        keymap({ Escape: () => (options.onClose(), true) }),
        ...(options.isNote ? [] : [lookKeys(style)]),
        keymap({ 'Mod-z': undo, 'Mod-y': redo, 'Shift-Mod-z': redo }),
        keymap({ ...baseKeymap, 'Shift-Enter': baseKeymap.Enter! }),
        history(),
        lettersDrawn(style),
        lengthLimit(most, () => options.onFull(most)),
      ],
    }),
    attributes: { role: 'textbox', 'aria-multiline': 'true', 'aria-label': t('typing.textOnThePage') },
    clipboardTextParser: (text, $place) => pastedLines(text, $place.marks()),
    clipboardTextSerializer: (slice) => slice.content.textBetween(0, slice.content.size, '\n'),
    dispatchTransaction(transaction) {
      // What is put in is a step of its own when it is undone.
      if (transaction.getMeta('uiEvent') === 'paste') closeHistory(transaction);
      view.updateState(view.state.apply(transaction));
      if (transaction.docChanged) {
        const { text, parts } = typedIn(view.state.doc);
        options.onTyped(text, options.isNote ? [] : parts);
      }
      options.onChange(view.state);
    },
  });
  return view;
}

function lookKeys(style: () => TextStyle): Plugin {
  return keymap({
    'Mod-b': toggleLook('bold', style),
    'Mod-i': toggleLook('italic', style),
    'Mod-u': toggleLook('underline', style),
  });
}

/** Takes nothing that would make a text longer than it may be; what is there already stays. */
function lengthLimit(most: number, onFull: () => void): Plugin {
  return new Plugin({
    filterTransaction({ docChanged, doc }, state) {
      if (!docChanged) return true;
      // Each line counts for two places more than its letters, and one letter for its end.
      const lengthOf = (text: typeof doc) => text.content.size - text.childCount - 1;
      const fits = lengthOf(doc) <= most || lengthOf(doc) <= lengthOf(state.doc);
      if (!fits) onFull();
      return fits;
    },
  });
}

/** Puts text in the place of what is selected, as if it had been typed. */
export function typeText(view: EditorView, text: string): void {
  if (text === '\n') run(view, baseKeymap.Enter!);
  else view.dispatch(view.state.tr.insertText(text).scrollIntoView());
}

/** Takes away what is selected, or the letter before the cursor. */
export function eraseLetter(view: EditorView): void {
  if (run(view, baseKeymap.Backspace!)) return;
  const { $from } = view.state.selection;
  const letter = [...$from.parent.textBetween(0, $from.parentOffset)].at(-1);
  if (letter) view.dispatch(view.state.tr.delete($from.pos - letter.length, $from.pos));
}

export function run(view: EditorView, command: Command): boolean {
  return command(view.state, (transaction) => view.dispatch(transaction), view);
}
