import { useEffect } from 'react';
import type { Stage } from '../page/stage';
import type { ToolId } from './penCase';
import type { Workspace } from './workspace';

/** Key of each tool. */
export const TOOL_KEYS: Record<ToolId, string> = { pen: 'P', highlighter: 'H', text: 'T', eraser: 'E' };
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
  if (key === 'z') return () => (event.shiftKey ? workspace.target.redo() : workspace.target.undo());
  return key === 'y' ? () => workspace.target.redo() : undefined;
}

function actionFor(
  event: KeyboardEvent,
  workspace: Workspace,
  stage: Stage | undefined,
  reach: ReachActions,
): (() => void) | undefined {
  if (event.altKey) return undefined;
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
