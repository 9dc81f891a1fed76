import { useEffect } from 'react';
import type { Stage } from '../stage/stage';
import type { ToolId } from '../tools/tools';
import type { ActionId } from '../desk/shortcuts';
import { writtenKey } from '../desk/shortcuts';
import type { PageDesk } from '../room/pageDesk';
import { isFocusByKey } from '../ui/focus';
import { isTextField } from '../room/useClipboard';

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
export function useShortcuts(desk: PageDesk, stage: Stage | undefined, screen: ScreenActions): void {
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      if (event.defaultPrevented || event.altKey || isTyping(event.target) || isForControl(event)) return;
      if (stage?.keyPointer.take(event)) return event.preventDefault();
      const action = fixedAction(event, desk) ?? namedAction(event, desk, stage, screen);
      if (!action) return;
      event.preventDefault();
      action();
    };
    window.addEventListener('keydown', onKey);
    return () => window.removeEventListener('keydown', onKey);
  }, [desk, stage, screen]);
}

function isTyping(target: EventTarget | null): boolean {
  if (!(target instanceof HTMLElement)) return false;
  return isTextField(target) || target.closest('[role=dialog], [role=menu]') !== null;
}

const PRESSES = new Set(['Enter', ' ', 'ArrowLeft', 'ArrowRight', 'ArrowUp', 'ArrowDown']);

/** Whether a key is for the control that somebody has gone to by the keyboard, and so not for the page. */
function isForControl({ key, target }: KeyboardEvent): boolean {
  if (!(target instanceof HTMLElement) || !PRESSES.has(key)) return false;
  if (target.closest('select, [role=slider], [role=radio], [role=switch]')) return true;
  return target.closest('button, a[href]') !== null && isFocusByKey();
}

/** Keys with one meaning for ever; some depend on what is selected. */
function fixedAction(event: KeyboardEvent, desk: PageDesk): (() => void) | undefined {
  const { selection } = desk;
  if (desk.draft.get() && event.key === 'Enter') return () => finishCorners(desk);
  if (event.key === 'Escape') return () => escape(desk);
  if (desk.penCase.get().tool === 'select' && desk.room.mode.get() === 'write') {
    if (selection.ids.get().size > 0) return selectionAction(event, desk) ?? turnAction(event, desk);
  }
  return turnAction(event, desk);
}

/** Ends a line of which some corners have been clicked. */
function finishCorners(desk: PageDesk): void {
  import('../tools/line/cornerGesture').then(
    ({ finishDraft }) => finishDraft(desk),
    // Cannot be: the corners were clicked by what is in the same file.
    () => undefined,
  );
}

/** Finishes what is half done; where nothing is, takes the focus away. */
function escape(desk: PageDesk): void {
  const { selection, draft, picking, classroom, isTeacher } = desk;
  const busy = selection.ids.get().size > 0 || draft.get() !== undefined || picking.get() !== undefined;
  desk.settle();
  if (!busy && isTeacher && classroom?.scene.get().focus) classroom.setScene({ focus: null });
}

/** What leads the class's eye; fetched when it is first used. */
function focusDoers(desk: PageDesk) {
  const doing = (kind: 'spotlight' | 'cover' | 'magnifier' | 'countdown' | 'twoPages') => () => {
    if (desk.classroom && desk.isTeacher)
      void import('../focus/focusActions').then((actions) => actions[kind](desk));
  };
  return {
    spotlight: doing('spotlight'),
    cover: doing('cover'),
    magnifier: doing('magnifier'),
    countdown: doing('countdown'),
    twoPages: doing('twoPages'),
  };
}

function selectionAction(event: KeyboardEvent, { selection }: PageDesk): (() => void) | undefined {
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

function turnAction(event: KeyboardEvent, desk: PageDesk): (() => void) | undefined {
  if (event.ctrlKey || event.metaKey) return undefined;
  if (event.key === 'ArrowRight' || event.key === 'ArrowDown') return () => desk.turnBy(1);
  if (event.key === 'ArrowLeft' || event.key === 'ArrowUp') return () => desk.turnBy(-1);
  return undefined;
}

/** Selects the next or previous thing on the page. */
function stepTo(desk: PageDesk, by: 1 | -1): void {
  if (desk.penCase.get().tool !== 'select' || desk.room.mode.get() !== 'write') desk.takeTool('select');
  desk.selection.step(by);
}

function namedAction(
  event: KeyboardEvent,
  desk: PageDesk,
  stage: Stage | undefined,
  screen: ScreenActions,
): (() => void) | undefined {
  const key = writtenKey(event);
  const action = desk.room.shortcuts.actionOf(key) ?? (key === 'Ctrl+Shift+Z' ? 'redo' : undefined);
  return action && doerOf(action, desk, stage, screen);
}

function doerOf(
  action: ActionId,
  desk: PageDesk,
  stage: Stage | undefined,
  screen: ScreenActions,
): () => void {
  const { selection, target, penCase } = desk;
  const ready = (n: number) => () => {
    penCase.takeReady(penCase.get().ready[n]!);
    desk.setMode('write');
  };
  const doers: Record<Exclude<ActionId, ToolId>, () => void> = {
    toggleMode: () => desk.toggleMode(),
    ready1: ready(0),
    ready2: ready(1),
    ready3: ready(2),
    ready4: ready(3),
    undo: () => target.undo(),
    redo: () => target.redo(),
    nextMark: () => stepTo(desk, 1),
    previousMark: () => stepTo(desk, -1),
    selectAll: () => {
      desk.takeTool('select');
      selection.selectAll();
    },
    copy: () => selection.copy(),
    cut: () => selection.cut(),
    duplicate: () => selection.duplicate(),
    group: () => selection.group(),
    ungroup: () => selection.ungroup(),
    toFront: () => selection.reorder('front'),
    toBack: () => selection.reorder('back'),
    nextPage: () => desk.turnBy(1),
    previousPage: () => desk.turnBy(-1),
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
    ...focusDoers(desk),
    keyPointer: () => stage?.keyPointer.toggle(),
    help: screen.showHelp,
  };
  return action in doers ? doers[action as keyof typeof doers] : () => desk.takeTool(action as ToolId);
}
