import { LINE_HEIGHT } from '@doodla/core';
import type { Change, TextStyle } from '@doodla/core';
import { useEffect, useRef } from 'react';
import { useStore } from '../live/store';
import type { TextEdit, Workspace } from '../workspace/workspace';
import type { Stage } from './stage';

/** The text box being typed into. It closes, and keeps what was typed, as soon as anything else is done. */
export function TextEditor({ workspace, stage }: { workspace: Workspace; stage: Stage }) {
  const edit = useStore(workspace.textEdit);
  return edit ? (
    <OpenEditor
      key={edit.mark?.id ?? `${edit.x} ${edit.y}`}
      edit={edit}
      workspace={workspace}
      stage={stage}
    />
  ) : null;
}

function OpenEditor({ edit, workspace, stage }: { edit: TextEdit; workspace: Workspace; stage: Stage }) {
  const { scale, x, y } = useStore(stage.view);
  const penCase = useStore(workspace.penCase);
  const style = edit.mark?.style ?? penCase.text;
  const box = useRef<HTMLTextAreaElement>(null);
  const page = useRef(workspace.newMark());

  useEffect(() => {
    const area = box.current!;
    const common = page.current;
    area.focus();
    area.setSelectionRange(area.value.length, area.value.length);
    return () => {
      const changes =
        common &&
        changesFor(edit, area.value, { ...common, style: edit.mark?.style ?? workspace.penCase.get().text });
      if (changes && changes.length > 0) workspace.target.perform(changes);
    };
  }, [edit, workspace]);

  const grow = () => {
    const area = box.current!;
    area.style.height = 'auto';
    area.style.height = `${area.scrollHeight}px`;
  };
  useEffect(grow, [style.size]);

  return (
    <textarea
      ref={box}
      aria-label="Text on the page"
      defaultValue={edit.mark?.text}
      maxLength={10_000}
      rows={1}
      onInput={grow}
      onKeyDown={(event) => {
        if (event.key === 'Escape') workspace.textEdit.set(undefined);
      }}
      className="absolute top-0 left-0 z-10 origin-top-left resize-none overflow-hidden rounded-sm bg-white/80 font-page outline-2 outline-offset-4 outline-chalk-deep outline-dashed"
      style={{
        transform: `translate(${x + edit.x * scale}px, ${y + edit.y * scale}px) scale(${scale})`,
        width: edit.width,
        fontSize: style.size,
        lineHeight: LINE_HEIGHT,
        fontKerning: 'none',
        color: style.colour,
      }}
    />
  );
}

function changesFor(
  { mark, x, y, width }: TextEdit,
  text: string,
  common: NonNullable<ReturnType<Workspace['newMark']>> & { style: TextStyle },
): Change[] {
  const typed = text.trimEnd();
  if (mark) {
    if (typed === mark.text) return [];
    return typed === ''
      ? [{ do: 'remove', mark: mark.id }]
      : [{ do: 'patch', mark: mark.id, set: { text: typed } }];
  }
  return typed === '' ? [] : [{ do: 'add', mark: { ...common, kind: 'text', x, y, width, text: typed } }];
}
