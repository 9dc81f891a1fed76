import { nanoid } from 'nanoid';
import { useEffect } from 'react';
import { pasteMarks } from '../desk/pasteMarks';
import type { PageDesk } from './pageDesk';

/** Width of pasted text, page units. */
const TEXT_WIDTH = 420;

/** Pictures and text pasted from other programs, or dropped on the page, become marks. */
export function useClipboard(desk: PageDesk): void {
  useEffect(() => {
    const paste = (event: ClipboardEvent) => {
      if (event.target instanceof HTMLElement && isTextField(event.target)) return;
      const data = event.clipboardData;
      if (!data || !desk.mayWrite) return;
      const files = picturesIn(data.files);
      const text = data.getData('text/plain').trim();
      event.preventDefault();
      if (files.length > 0) void desk.pictureActions.place(files);
      else if (pasteMarks(desk, text)) return;
      else if (text !== '') pasteText(desk, text);
    };
    window.addEventListener('paste', paste);
    return () => window.removeEventListener('paste', paste);
  }, [desk]);
}

/** Whether what is typed or pasted there is text of its own. */
export function isTextField(target: HTMLElement): boolean {
  return target.matches('input, textarea, select') || target.isContentEditable;
}

export function picturesIn(files: FileList): File[] {
  return [...files].filter((file) => file.type.startsWith('image/') || /\.hei[cf]$/i.test(file.name));
}

function pasteText(desk: PageDesk, text: string): void {
  const common = desk.newMark(nanoid());
  const { page } = desk;
  if (!common || !page) return;
  const width = Math.min(TEXT_WIDTH, page.width * 0.8);
  const { x, y } = desk.middle();
  const place = { x: x - width / 2, y, width, rotation: 0 };
  const { text: style } = desk.penCase.get();
  const mark = { ...common, kind: 'text' as const, style, text: text.slice(0, 10_000), ...place };
  if (desk.target.perform([{ do: 'add', mark }]) === undefined) return;
  desk.takeTool('select');
  desk.selection.select([mark.id]);
}
