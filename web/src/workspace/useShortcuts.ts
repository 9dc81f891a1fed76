import { useEffect } from 'react';
import type { Stage } from '../page/stage';
import { finishDraft } from '../tools/cornerGesture';
import type { ToolId } from './penCase';
import type { Workspace } from './workspace';

/** Key of each tool. */
export const TOOL_KEYS: Record<ToolId, string> = {
  select: 'V',
  pen: 'P',
  highlighter: 'H',
  text: 'T',
  eraser: 'E',
  shape: 'S',
  line: 'L',
  stamp: 'M',
  note: 'N',
};
export const MODE_KEY = 'W';
export const SWAP_KEY = 'X';
export const FOLD_KEY = 'F';

export interface ReachActions {
  swapSide(): void;
  toggleFold(): void;
}

/** Keys that work wherever nothing is being typed; page keys too while any tool is in hand. */
export function useShortcuts(workspace: Workspace, stage: Stage | undefined, reach: ReachActions): void {
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      if (isTyping(event.target)) return;
      const action =
        event.ctrlKey || event.metaKey
          ? commandFor(event, workspace)
          : actionFor(event, workspace, stage, reach);
      if (!action) return;
      event.preventDefault();
      action();
    };
    window.addEventListener('keydown', onKey);
    return () => window.removeEventListener('keydown', onKey);
  }, [workspace, stage, reach]);
}

function isTyping(target: EventTarget | null): boolean {
  return (
    target instanceof HTMLElement && (target.matches('input, textarea, select') || target.isContentEditable)
  );
}

function commandFor(event: KeyboardEvent, workspace: Workspace): (() => void) | undefined {
  const key = event.key.toLowerCase();
  const { selection } = workspace;
  if (key === 'a') return () => (workspace.takeTool('select'), selection.selectAll());
  if (key === 'c') return () => selection.copy();
  if (key === 'x') return () => selection.cut();
  if (key === 'd') return () => selection.duplicate();
  if (key === 'g') return () => (event.shiftKey ? selection.ungroup() : selection.group());
  if (key === 'z') return () => (event.shiftKey ? workspace.target.redo() : workspace.target.undo());
  return key === 'y' ? () => workspace.target.redo() : undefined;
}

/** Keys that mean something else while marks are selected or a polygon is being clicked. */
function selectionAction(event: KeyboardEvent, workspace: Workspace): (() => void) | undefined {
  const { selection } = workspace;
  if (workspace.draft.get() && event.key === 'Enter') return () => finishDraft(workspace);
  if (event.key === 'Escape') return () => workspace.settle();
  if (workspace.penCase.get().tool !== 'select' || workspace.mode.get() !== 'write') return undefined;
  if (event.key === 'Tab' && event.target === document.body)
    return () => selection.step(event.shiftKey ? -1 : 1);
  if (selection.ids.get().size === 0) return undefined;
  const step = event.shiftKey ? 10 : 1;
  switch (event.key) {
    case 'Delete':
    case 'Backspace':
      return () => selection.remove();
    case 'ArrowLeft':
      return () => selection.nudge(-step, 0);
    case 'ArrowRight':
      return () => selection.nudge(step, 0);
    case 'ArrowUp':
      return () => selection.nudge(0, -step);
    case 'ArrowDown':
      return () => selection.nudge(0, step);
    case ']':
      return () => selection.reorder('front');
    case '[':
      return () => selection.reorder('back');
  }
  return undefined;
}

function actionFor(
  event: KeyboardEvent,
  workspace: Workspace,
  stage: Stage | undefined,
  reach: ReachActions,
): (() => void) | undefined {
  if (event.altKey) return undefined;
  const onSelection = selectionAction(event, workspace);
  if (onSelection) return onSelection;
  const tool = (Object.keys(TOOL_KEYS) as ToolId[]).find((id) => TOOL_KEYS[id] === event.key.toUpperCase());
  if (tool) return () => workspace.takeTool(tool);
  switch (event.key) {
    case 'ArrowRight':
    case 'ArrowDown':
    case 'PageDown':
      return () => workspace.turnBy(1);
    case 'ArrowLeft':
    case 'ArrowUp':
    case 'PageUp':
      return () => workspace.turnBy(-1);
    case '+':
    case '=':
      return () => stage?.zoomIn();
    case '-':
      return () => stage?.zoomOut();
    case '0':
      return () => stage?.setFit('page');
    case '1':
      return () => stage?.setFit('width');
  }
  switch (event.key.toUpperCase()) {
    case MODE_KEY:
      return () => workspace.toggleMode();
    case SWAP_KEY:
      return reach.swapSide;
    case FOLD_KEY:
      return reach.toggleFold;
  }
  return undefined;
}
