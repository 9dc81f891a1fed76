import type { Desk } from './desk';
import type { Selection } from './selection';

/** Puts copied marks on the page, unless the system's clipboard holds other text. */
export function pasteMarks(desk: Pick<Desk, 'takeTool'> & { selection: Selection }, text: string): boolean {
  const pasted = desk.selection.paste(text);
  if (!pasted) return false;
  const ids = [...desk.selection.ids.get()];
  desk.takeTool('select');
  desk.selection.select(ids);
  return true;
}
