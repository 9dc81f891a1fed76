import { finishDraft } from '@web/tools/line/cornerGesture';
import { toolOf } from '@web/tools/tools';
import type { Tab } from './tab';
import { TAB_TOOL_IDS } from './toolIds';
import type { HolderPlace } from './ui/holderState';

const TOOL_KEYS = new Map(TAB_TOOL_IDS.map((id) => [toolOf(id).key.toLowerCase(), id]));
const STEP = 1;
const LONG_STEP = 10;
const ARROWS: Readonly<Record<string, [number, number]>> = {
  ArrowLeft: [-1, 0],
  ArrowRight: [1, 0],
  ArrowUp: [0, -1],
  ArrowDown: [0, 1],
};

/**
 * Keys while one writes; while the page is used, all keys are the page's own. `place`: where the tools lie. Returns what ends it.
 */
export function hearKeys(tab: Tab, place: HolderPlace): () => void {
  const hear = (event: KeyboardEvent) => {
    if (tab.desk.mode.get() !== 'write' || isTyping(event, tab)) return;
    if (!act(tab, place, event)) return;
    // Who writes on a page does not work it: it is not to hear of this.
    event.preventDefault();
    event.stopImmediatePropagation();
  };
  window.addEventListener('keydown', hear, { capture: true });
  return () => window.removeEventListener('keydown', hear, { capture: true });
}

/**
 * Whether a key is meant for what is typed on the page, or for something of ours that has keys of its own, such as a slider. What
 * is in a closed root is in no path that is heard outside of it.
 */
function isTyping(event: KeyboardEvent, { host }: Tab): boolean {
  const own = host.focused;
  const [target] = own ? [own] : event.composedPath();
  if (!(target instanceof HTMLElement)) return false;
  const isField =
    target.isContentEditable || ['INPUT', 'TEXTAREA', 'SELECT', 'IFRAME'].includes(target.tagName);
  const { arrows } = target.dataset;
  const isOwn = arrows === 'all' || (arrows !== undefined && ARROWS[event.key] !== undefined);
  return isField || isOwn;
}

/** Does what a key is for. Returns whether it is for anything. */
function act(tab: Tab, place: HolderPlace, event: KeyboardEvent): boolean {
  const key = event.key.toLowerCase();
  if (event.ctrlKey || event.metaKey) return withControl(tab, key, event.shiftKey);
  if (event.altKey) return false;
  const tool = TOOL_KEYS.get(key);
  if (tool) tab.desk.takeTool(tool);
  else return plain(tab, place, event);
  return true;
}

function withControl({ log, desk }: Tab, key: string, shift: boolean): boolean {
  if (key === 'z' && !shift) log.undo();
  else if (key === 'y' || (key === 'z' && shift)) log.redo();
  else if (key === 'a') {
    desk.takeTool('select');
    desk.selection.selectAll();
  } else if (key === 'd' && desk.selection.marks().length > 0) desk.selection.duplicate();
  else return false;
  return true;
}

function plain({ desk }: Tab, place: HolderPlace, { key, shiftKey }: KeyboardEvent): boolean {
  const { selection, draft, mode } = desk;
  const arrow = ARROWS[key];
  const hasSelection = selection.ids.get().size > 0;
  if (arrow && hasSelection) {
    const step = shiftKey ? LONG_STEP : STEP;
    selection.nudge(arrow[0] * step, arrow[1] * step);
  } else if ((key === 'Delete' || key === 'Backspace') && hasSelection) selection.remove();
  else if (key === 'Enter' && draft.get()) finishDraft(desk);
  else if (key === 'Escape') giveUp(desk);
  else if (key.toLowerCase() === 'w') mode.set('use');
  else if (key.toLowerCase() === 'x') place.swap();
  else if (key.toLowerCase() === 'f') place.toggleFold();
  else return false;
  return true;
}

/** Gives up what is half done; with nothing half done, the page is used again. */
function giveUp({ draft, picking, selection, mode }: Tab['desk']): void {
  if (picking.get()) picking.set(undefined);
  else if (draft.get()) draft.set(undefined);
  else if (selection.ids.get().size > 0) selection.clear();
  else mode.set('use');
}
