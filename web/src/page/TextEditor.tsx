import { faceOf, LINE_HEIGHT } from '@doodla/core';
import type { TextStyle } from '@doodla/core';
import { lazy, Suspense, useEffect, useRef } from 'react';
import type { CSSProperties } from 'react';
import { useStore } from '../live/store';
import type { TextEdit, Workspace } from '../workspace/workspace';
import { cssFont, needFace } from './faces';
import type { Stage } from './stage';

const ScreenKeyboard = lazy(() => import('./ScreenKeyboard'));

/** Room that is left between the text and the keys on the glass, CSS pixels. */
const ABOVE_KEYS = 14;

/** The text box being typed into. It closes, and keeps what was typed, as soon as anything else is done. */
export default function TextEditor({ workspace, stage }: { workspace: Workspace; stage: Stage }) {
  const edit = useStore(workspace.textEdit);
  if (!edit) return null;
  return (
    <OpenEditor
      key={edit.mark?.id ?? `${edit.x} ${edit.y}`}
      edit={edit}
      workspace={workspace}
      stage={stage}
    />
  );
}

function OpenEditor({ edit, workspace, stage }: { edit: TextEdit; workspace: Workspace; stage: Stage }) {
  const { scale, x, y } = useStore(stage.view);
  const penCase = useStore(workspace.penCase);
  const box = useRef<HTMLTextAreaElement>(null);
  const { mark } = edit;
  const style = mark?.kind === 'text' ? mark.style : penCase.text;

  useEffect(() => {
    const area = box.current!;
    workspace.drafts.begin(edit, style);
    area.focus();
    area.setSelectionRange(area.value.length, area.value.length);
    return () => workspace.drafts.finish();
    // The style in hand may change while one types; what is typed keeps up by `restyle`.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [edit, workspace]);
  useEffect(() => workspace.drafts.restyle(style), [workspace, style]);

  const grow = () => {
    const area = box.current!;
    area.style.height = 'auto';
    area.style.height = `${area.scrollHeight}px`;
  };
  useEffect(() => {
    grow();
    void needFace(faceOf(style)).then(grow);
  }, [style]);

  const close = () => workspace.textEdit.set(undefined);
  /** Puts text in the place of what is selected, as if it had been typed. */
  const type = (text: string) => {
    const area = box.current!;
    area.setRangeText(text, area.selectionStart, area.selectionEnd, 'end');
    workspace.drafts.type(area.value);
    grow();
  };
  const erase = () => {
    const area = box.current!;
    if (area.selectionStart === area.selectionEnd && area.selectionStart > 0)
      area.setSelectionRange(area.selectionStart - 1, area.selectionEnd);
    type('');
  };
  /** Moves the page so that what is typed is not under the keys. */
  const keepAbove = (top: number) => {
    const hidden = box.current!.getBoundingClientRect().bottom + ABOVE_KEYS - top;
    if (hidden > 0) stage.pan(0, -hidden);
  };
  return (
    <>
      <textarea
        ref={box}
        aria-label="Text on the page"
        defaultValue={mark?.text}
        maxLength={mark?.kind === 'note' ? 2000 : 10_000}
        rows={1}
        onInput={(event) => {
          workspace.drafts.type(event.currentTarget.value);
          grow();
        }}
        onKeyDown={(event) => {
          if (event.key === 'Escape') close();
        }}
        className="pointer-events-auto absolute top-0 left-0 z-10 origin-top-left resize-none overflow-hidden rounded-sm bg-white/80 outline-2 outline-offset-4 outline-chalk-deep outline-dashed"
        style={{
          transform: `translate(${x + edit.x * scale}px, ${y + edit.y * scale}px) scale(${scale}) rotate(${mark?.rotation ?? 0}deg)`,
          width: edit.width,
          ...(mark?.kind === 'note' ? noteCss(mark.style.colour, mark.height) : textCss(style)),
        }}
      />
      {penCase.screenKeyboard && (
        <Suspense>
          <ScreenKeyboard onType={type} onDelete={erase} onDone={close} onPlaced={keepAbove} />
        </Suspense>
      )}
    </>
  );
}

function textCss(style: TextStyle): CSSProperties {
  return {
    font: cssFont(faceOf(style), style.size),
    lineHeight: LINE_HEIGHT,
    fontKerning: 'none',
    color: style.colour,
    textAlign: style.align,
    textDecoration: style.underline ? 'underline' : 'none',
    ...(style.background !== null && { background: style.background }),
    ...(style.list !== 'none' && { paddingLeft: style.size * 1.5 }),
  };
}

function noteCss(colour: string, height: number): CSSProperties {
  return {
    font: cssFont('andika', 22),
    lineHeight: LINE_HEIGHT,
    background: colour,
    minHeight: height,
    textAlign: 'center',
  };
}
