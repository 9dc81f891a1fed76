import { nanoid } from 'nanoid';
import { useEffect } from 'react';
import type { Workspace } from './workspace';

/** Width of pasted text, page units. */
const TEXT_WIDTH = 420;

/** Pictures and text pasted from other programs, or dropped on the page, become marks. */
export function useClipboard(workspace: Workspace): void {
  useEffect(() => {
    const paste = (event: ClipboardEvent) => {
      if (event.target instanceof HTMLElement && isTextField(event.target)) return;
      const data = event.clipboardData;
      if (!data || !workspace.mayWrite) return;
      const files = picturesIn(data.files);
      const text = data.getData('text/plain').trim();
      event.preventDefault();
      if (files.length > 0) void workspace.pictureActions.place(files);
      else if (pasteMarks(workspace, text)) return;
      else if (text !== '') pasteText(workspace, text);
    };
    window.addEventListener('paste', paste);
    return () => window.removeEventListener('paste', paste);
  }, [workspace]);
}

/** Whether what is typed or pasted there is text of its own. */
export function isTextField(target: HTMLElement): boolean {
  return target.matches('input, textarea, select') || target.isContentEditable;
}

export function picturesIn(files: FileList): File[] {
  return [...files].filter((file) => file.type.startsWith('image/') || /\.hei[cf]$/i.test(file.name));
}

/** Puts copied marks on the page, unless the system's clipboard holds other text. */
export function pasteMarks(workspace: Workspace, text: string): boolean {
  const pasted = workspace.selection.paste(text);
  if (!pasted) return false;
  const ids = [...workspace.selection.ids.get()];
  workspace.takeTool('select');
  workspace.selection.select(ids);
  return true;
}

function pasteText(workspace: Workspace, text: string): void {
  const common = workspace.newMark(nanoid());
  const { page } = workspace;
  if (!common || !page) return;
  const width = Math.min(TEXT_WIDTH, page.width * 0.8);
  const { x, y } = workspace.middle();
  const place = { x: x - width / 2, y, width, rotation: 0 };
  const { text: style } = workspace.penCase.get();
  const mark = { ...common, kind: 'text' as const, style, text: text.slice(0, 10_000), ...place };
  if (workspace.target.perform([{ do: 'add', mark }]) === undefined) return;
  workspace.takeTool('select');
  workspace.selection.select([mark.id]);
}
