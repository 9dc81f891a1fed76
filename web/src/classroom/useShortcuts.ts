import { useEffect } from 'react';
import type { Stage } from '../stage/stage';
import type { ToolId } from '../desk/penCase';
import type { ActionId } from '../desk/shortcuts';
import { writtenKey } from '../desk/shortcuts';
import type { Workspace } from '../workspace/workspace';
import { isTextField } from '../workspace/useClipboard';

/** What keys do to the screen round the page. */
export interface ScreenActions {
  swapSide(): void;
  toggleFold(): void;
  showHelp(): void;
  toggleList(): void;
  grab(): void;
  present(): void;
  hideTools(): void;
}

/** Keys that work wherever nothing is being typed; page keys too while any tool is in hand. */
export function useShortcuts(workspace: Workspace, stage: Stage | undefined, screen: ScreenActions): void {
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      if (isTyping(event.target) || event.altKey) return;
      if (stage?.keyPointer.take(event)) return event.preventDefault();
      const action = fixedAction(event, workspace) ?? namedAction(event, workspace, stage, screen);
      if (!action) return;
      event.preventDefault();
      action();
    };
    window.addEventListener('keydown', onKey);
    return () => window.removeEventListener('keydown', onKey);
  }, [workspace, stage, screen]);
}

function isTyping(target: EventTarget | null): boolean {
  if (!(target instanceof HTMLElement)) return false;
  return isTextField(target) || target.closest('[role=dialog], [role=menu]') !== null;
}

/** Keys with one meaning for ever; some depend on what is selected. */
function fixedAction(event: KeyboardEvent, workspace: Workspace): (() => void) | undefined {
  const { selection } = workspace;
  if (workspace.draft.get() && event.key === 'Enter') return () => finishCorners(workspace);
  if (event.key === 'Escape') return () => escape(workspace);
  if (workspace.penCase.get().tool === 'select' && workspace.mode.get() === 'write') {
    if (event.key === 'Tab' && event.target === document.body)
      return () => selection.step(event.shiftKey ? -1 : 1);
    if (selection.ids.get().size > 0)
      return selectionAction(event, workspace) ?? turnAction(event, workspace);
  }
  return turnAction(event, workspace);
}

/** Ends a line of which some corners have been clicked. */
function finishCorners(workspace: Workspace): void {
  import('../tools/cornerGesture').then(
    ({ finishDraft }) => finishDraft(workspace),
    // Cannot be: the corners were clicked by what is in the same file.
    () => undefined,
  );
}

/** Finishes what is half done; where nothing is, takes the focus away. */
function escape(workspace: Workspace): void {
  const { selection, draft, picking, classroom, isTeacher } = workspace;
  const busy = selection.ids.get().size > 0 || draft.get() !== undefined || picking.get() !== undefined;
  workspace.settle();
  if (!busy && isTeacher && classroom?.scene.get().focus) classroom.setScene({ focus: null });
}

/** What leads the class's eye; fetched when it is first used. */
function focusDoers(workspace: Workspace) {
  const doing = (kind: 'spotlight' | 'cover' | 'magnifier' | 'countdown' | 'twoPages') => () => {
    if (workspace.classroom && workspace.isTeacher)
      void import('../focus/focusActions').then((actions) => actions[kind](workspace));
  };
  return {
    spotlight: doing('spotlight'),
    cover: doing('cover'),
    magnifier: doing('magnifier'),
    countdown: doing('countdown'),
    twoPages: doing('twoPages'),
  };
}

function selectionAction(event: KeyboardEvent, { selection }: Workspace): (() => void) | undefined {
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
  }
  return undefined;
}

function turnAction(event: KeyboardEvent, workspace: Workspace): (() => void) | undefined {
  if (event.ctrlKey || event.metaKey) return undefined;
  if (event.key === 'ArrowRight' || event.key === 'ArrowDown') return () => workspace.turnBy(1);
  if (event.key === 'ArrowLeft' || event.key === 'ArrowUp') return () => workspace.turnBy(-1);
  return undefined;
}

function namedAction(
  event: KeyboardEvent,
  workspace: Workspace,
  stage: Stage | undefined,
  screen: ScreenActions,
): (() => void) | undefined {
  const key = writtenKey(event);
  const action = workspace.shortcuts.actionOf(key) ?? (key === 'Ctrl+Shift+Z' ? 'redo' : undefined);
  return action && doerOf(action, workspace, stage, screen);
}

function doerOf(
  action: ActionId,
  workspace: Workspace,
  stage: Stage | undefined,
  screen: ScreenActions,
): () => void {
  const { selection, target, penCase } = workspace;
  const ready = (n: number) => () => {
    penCase.takeReady(penCase.get().ready[n]!);
    workspace.setMode('write');
  };
  const doers: Record<Exclude<ActionId, ToolId>, () => void> = {
    toggleMode: () => workspace.toggleMode(),
    ready1: ready(0),
    ready2: ready(1),
    ready3: ready(2),
    ready4: ready(3),
    undo: () => target.undo(),
    redo: () => target.redo(),
    selectAll: () => {
      workspace.takeTool('select');
      selection.selectAll();
    },
    copy: () => selection.copy(),
    cut: () => selection.cut(),
    duplicate: () => selection.duplicate(),
    group: () => selection.group(),
    ungroup: () => selection.ungroup(),
    toFront: () => selection.reorder('front'),
    toBack: () => selection.reorder('back'),
    nextPage: () => workspace.turnBy(1),
    previousPage: () => workspace.turnBy(-1),
    larger: () => stage?.zoomIn(),
    smaller: () => stage?.zoomOut(),
    fitPage: () => stage?.setFit('page'),
    fitWidth: () => stage?.setFit('width'),
    swapSide: screen.swapSide,
    fold: screen.toggleFold,
    listMarks: screen.toggleList,
    grab: screen.grab,
    present: screen.present,
    hideTools: screen.hideTools,
    ...focusDoers(workspace),
    keyPointer: () => stage?.keyPointer.toggle(),
    help: screen.showHelp,
  };
  return action in doers ? doers[action as keyof typeof doers] : () => workspace.takeTool(action as ToolId);
}
