import type { TextStyle } from '@doodla/core';
import { faceOf, LINE_HEIGHT } from '@doodla/core';
import type { EditorState } from 'prosemirror-state';
import type { EditorView } from 'prosemirror-view';
import { lazy, Suspense, useEffect, useRef, useState } from 'react';
import type { CSSProperties } from 'react';
import { toast } from 'sonner';
import { t } from '../words';
import { useStore } from '../store/useStore';
import { cssFont } from '../canvas/cssFont';
import { windowRoom } from '../ui/windowRoom';
import type { Stage } from '../stage/stage';
import { partsOf } from '../desk/textDrafts';
import type { TextEdit } from '../desk/desk';
import type { PageDesk } from '../room/pageDesk';
import { LetterBar } from './LetterBar';
import './letters.css';
import { eraseLetter, openTextBox, typeText } from './textBox';

const ScreenKeyboard = lazy(() => import('./ScreenKeyboard'));
const FormulaDialog = lazy(() => import('./FormulaDialog'));

/** Room that is left between the text and the keys on the glass, CSS pixels. */
const ABOVE_KEYS = 14;
/** On a hand-held screen letters that are typed are at least so high, CSS pixels. */
const READABLE = 16;
/** Size of a note's letters while they are typed; then they are fitted into it. Page units. */
const NOTE_SIZE = 22;

/** The text box or the formula being typed into. A text box closes, and keeps what was typed, as soon as anything else is done. */
export default function TextEditor({ desk, stage }: { desk: PageDesk; stage: Stage }) {
  const edit = useStore(desk.textEdit);
  const formula = useStore(desk.formulaEdit);
  if (formula)
    return (
      <Suspense>
        <FormulaDialog edit={formula} desk={desk} onClose={() => desk.formulaEdit.set(undefined)} />
      </Suspense>
    );
  if (!edit) return null;
  return <OpenEditor key={edit.mark?.id ?? `${edit.x} ${edit.y}`} edit={edit} desk={desk} stage={stage} />;
}

function OpenEditor({ edit, desk, stage }: { edit: TextEdit; desk: PageDesk; stage: Stage }) {
  const { scale, x, y } = useStore(stage.view);
  const penCase = useStore(desk.penCase);
  const box = useRef<HTMLDivElement>(null);
  const [view, setView] = useState<EditorView>();
  const [typed, setTyped] = useState<{ letters: EditorState; height: number }>();
  const { mark } = edit;
  const isNote = mark?.kind === 'note';
  const style = mark?.kind === 'text' ? mark.style : penCase.text;
  const drawn: TextStyle = isNote ? noteStyle(penCase.text) : style;
  const now = useRef(drawn);

  useEffect(() => {
    if (!windowRoom.get().compact) return;
    return stage.lookCloser(edit, READABLE / now.current.size);
  }, [edit, stage]);
  useEffect(() => {
    desk.room.drafts.begin(edit, style);
    const place = box.current!;
    const showTyped = (letters: EditorState) => setTyped({ letters, height: place.offsetHeight });
    const opened = openTextBox(place, {
      text: mark?.text ?? '',
      parts: partsOf(edit),
      isNote,
      style: () => now.current,
      onTyped: (text, parts) => desk.room.drafts.type(text, parts),
      onChange: showTyped,
      onFull: tellFull,
      onClose: () => desk.textEdit.set(undefined),
    });
    opened.focus();
    setView(opened);
    showTyped(opened.state);
    return () => {
      opened.destroy();
      desk.room.drafts.finish();
    };
    // The style in hand may change while one types; what is typed keeps up by `restyle`.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [edit, desk]);
  useEffect(() => {
    desk.room.drafts.restyle(style);
    if (now.current === drawn) return;
    now.current = drawn;
    view?.updateState(view.state);
    // What is drawn follows from the style.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [desk, style, view]);

  /** Moves the page so that what is typed is not under the keys. */
  const keepAbove = (top: number) => {
    const hidden = box.current!.getBoundingClientRect().bottom + ABOVE_KEYS - top;
    if (hidden > 0) stage.pan(0, -hidden);
  };
  const [left, top] = [x + edit.x * scale, y + edit.y * scale];
  return (
    <>
      <div
        ref={box}
        className="letters pointer-events-auto absolute top-0 left-0 z-10 origin-top-left rounded-sm bg-white/80 outline-2 outline-offset-4 outline-chalk-deep outline-dashed"
        style={{
          transform: `translate(${left}px, ${top}px) scale(${scale}) rotate(${mark?.rotation ?? 0}deg)`,
          width: edit.width,
          ...boxCss(drawn),
          ...(isNote && { background: mark.style.colour, minHeight: mark.height }),
        }}
      />
      {view && typed && !isNote && (
        <LetterBar
          view={view}
          letters={typed.letters}
          style={style}
          desk={desk}
          place={{ left, top, bottom: top + typed.height * scale }}
          room={stage.sides}
        />
      )}
      {view && penCase.screenKeyboard && (
        <Suspense>
          <ScreenKeyboard
            onType={(text) => typeText(view, text)}
            onDelete={() => eraseLetter(view)}
            onDone={() => desk.textEdit.set(undefined)}
            onPlaced={keepAbove}
          />
        </Suspense>
      )}
    </>
  );
}

function tellFull(most: number): void {
  toast.error(t('typing.aTextHolds', { most }));
}

/** Notes are typed in black, centred; `style` gives what they have no choice of. */
function noteStyle(style: TextStyle): TextStyle {
  const plain = { bold: false, italic: false, underline: false, background: null } as const;
  return {
    ...style,
    ...plain,
    font: 'andika',
    size: NOTE_SIZE,
    colour: '#000000',
    align: 'center',
    list: 'none',
  };
}

/** Lines are as high as their letters, so the box itself adds nothing to them. */
function boxCss(style: TextStyle): CSSProperties {
  return {
    font: cssFont(faceOf(style), style.size),
    lineHeight: 0,
    fontKerning: 'none',
    textAlign: style.align,
    minHeight: style.size * LINE_HEIGHT,
    ...(style.background !== null && { background: style.background }),
    ...(style.list !== 'none' && { paddingLeft: style.size * 1.5 }),
    listStyleType: { none: 'none', bullets: 'disc', numbers: 'decimal' }[style.list],
  };
}
