import { tidyParts } from '@doodla/core';
import type { TextPart, TextStyle } from '@doodla/core';
import fc from 'fast-check';
import type { Command } from 'prosemirror-state';
import { EditorState, TextSelection } from 'prosemirror-state';
import { describe, expect, it } from 'vitest';
import { anyParts, anyTextStyle } from '../../core/test/helpers/anyMark';
import { looksOf } from '../../core/test/helpers/letters';
import { TEXT_STYLE } from '../../core/test/helpers/marks';
import { colourAt, hasLook, resizeLetters, setLook, toggleLook } from '../src/typing/letterLook';
import { letterDoc, pastedLines, typedIn } from '../src/typing/letters';

const TEXT = 'one two\nthree';

/** Some letters chosen, by their places in the text. */
function chosen(from: number, to: number, parts: TextPart[] = []): EditorState {
  const doc = letterDoc(TEXT, parts);
  // A place in the document is one further for the line it is in, and two for each line before.
  const place = (at: number) => at + 1 + (at > 7 ? 1 : 0);
  return EditorState.create({ doc, selection: TextSelection.create(doc, place(from), place(to)) });
}

function after(state: EditorState, ...commands: Command[]): EditorState {
  return commands.reduce((now, command) => {
    let next = now;
    command(now, (transaction) => (next = now.apply(transaction)));
    return next;
  }, state);
}

const partsOf = (state: EditorState, style = TEXT_STYLE) =>
  tidyParts(typedIn(state.doc).parts, style, TEXT.length);
const plain = () => TEXT_STYLE;

describe('letters of a text', () => {
  it('come out of the box as they went in', () => {
    const text = fc.string({ maxLength: 40, unit: fc.constantFrom('a', 'B', ' ', '\n', '桥', '😀') });
    fc.assert(
      fc.property(text, anyParts(90), anyTextStyle, (words, parts, style) => {
        const typed = typedIn(letterDoc(words, parts));
        expect(typed.text).toBe(words);
        const looks = (list: TextPart[]) =>
          looksOf(style, list, words.length).filter((_, i) => words[i] !== '\n');
        expect(looks(typed.parts)).toEqual(looks(parts));
      }),
    );
  });

  it('become bold where not all of them are, and no longer bold where all are', () => {
    const some = chosen(0, 7, [{ from: 0, to: 3, bold: true }]);
    expect(hasLook(some, 'bold', TEXT_STYLE)).toBe(false);
    const all = after(some, toggleLook('bold', plain));
    expect(partsOf(all)).toEqual([{ from: 0, to: 7, bold: true }]);
    expect(hasLook(all, 'bold', TEXT_STYLE)).toBe(true);
    expect(partsOf(after(all, toggleLook('bold', plain)))).toEqual([]);
  });

  it('of a text that is bold become thin', () => {
    const bold: TextStyle = { ...TEXT_STYLE, bold: true };
    const thin = after(
      chosen(4, 7),
      toggleLook('bold', () => bold),
    );
    expect(partsOf(thin, bold)).toEqual([{ from: 4, to: 7, bold: false }]);
  });

  it('grow each from its own size, over lines, and come back to it', () => {
    const state = chosen(4, 13, [{ from: 8, to: 13, scale: 2 }]);
    const grown = after(state, resizeLetters(1, plain));
    const [small, large] = partsOf(grown).map(({ scale }) => scale!);
    expect(small).toBe(1.25);
    expect(large).toBeGreaterThan(2);
    const back = after(grown, resizeLetters(-1, plain));
    expect(partsOf(back)[0]).toMatchObject({ from: 8, to: 13 });
  });

  it.each([
    [200, 1, 2],
    [8, -1, 0.5],
  ])('of size %s stay within what sizes may be', (size, step, bound) => {
    const style = { ...TEXT_STYLE, size };
    const far = Array.from({ length: 12 }, () => resizeLetters(step, () => style));
    expect(partsOf(after(chosen(0, 3), ...far), style)).toEqual([{ from: 0, to: 3, scale: bound }]);
  });

  it('that are typed next have what was chosen for them', () => {
    const state = after(chosen(3, 3), setLook('colour', '#d55e00'), toggleLook('italic', plain));
    expect(colourAt(state, TEXT_STYLE)).toBe('#d55e00');
    const typed = typedIn(state.apply(state.tr.insertText('!')).doc);
    expect(tidyParts(typed.parts, TEXT_STYLE, 99)).toEqual([
      { from: 3, to: 4, italic: true, colour: '#d55e00' },
    ]);
  });

  it('from elsewhere keep their lines, empty ones too, and look like those beside them', () => {
    const state = chosen(3, 3, [{ from: 0, to: 3, bold: true }]);
    const marks = state.selection.$from.marks();
    const { doc } = state.apply(state.tr.replaceSelection(pastedLines('1\r\n\r\n2', marks)));
    expect(typedIn(doc).text).toBe('one1\n\n2 two\nthree');
    expect(tidyParts(typedIn(doc).parts, TEXT_STYLE, 99)).toEqual([
      { from: 0, to: 4, bold: true },
      { from: 6, to: 7, bold: true },
    ]);
  });
});
