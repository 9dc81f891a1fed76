import {
  ArrowLeftRight,
  Crosshair,
  Focus,
  GripHorizontal,
  Hand,
  Minimize2,
  NotebookPen,
  Redo2,
  Undo2,
} from 'lucide-react';
import { lazy, useEffect, useRef } from 'react';
import type { PointerEvent, ReactNode, RefObject } from 'react';
import { useStore } from '../store/store';
import { classes } from '../ui/classes';
import { IconButton } from '../ui/IconButton';
import type { Workspace } from '../workspace/workspace';
import { PictureButton } from './PictureButton';
import { GroupSheet } from './GroupSheet';
import { isNarrow } from './reachState';
import type { Reach, ReachState } from './reachState';
import { ReadyPens } from './ReadyPens';
import { ToolOptions } from './ToolOptions';
import type { ToolEntry } from './tools';
import { ALL_TOOLS, SELECT_TOOL, TOOL_GROUPS } from './tools';
import { WipeMenu } from './WipeMenu';

const PointSheet = lazy(() => import('./PointSheet'));
const FocusSheet = lazy(() => import('./FocusSheet'));

interface ReachPanelProps {
  workspace: Workspace;
  reach: Reach;
}

type Side = 'left' | 'right';

/** The holder of the tools: docked at hand height on one side, floating, or folded to one button. */
export function ReachPanel({ workspace, reach }: ReachPanelProps) {
  const state = useStore(reach);
  useStore(workspace.shortcuts);
  const panel = useRef<HTMLDivElement>(null);
  const away = state.side === 'left' ? 'right' : 'left';
  useFoldOnPhone(workspace, reach);
  if (state.folded) return <FoldedReach workspace={workspace} reach={reach} state={state} />;
  return (
    <Holder state={state}>
      <div
        ref={panel}
        role="toolbar"
        data-bar="tools"
        aria-label="Tools"
        aria-orientation="vertical"
        className="pointer-events-auto flex max-h-[calc(100dvh-8.5rem)] w-38 shrink-0 flex-col gap-1 overflow-y-auto rounded-2xl border-2 border-board-line bg-board p-1.5 shadow-xl"
      >
        <DragHandle panel={panel} reach={reach} />
        <ModeSwitch workspace={workspace} side={away} />
        {TOOL_GROUPS.map(({ name, tools }) => (
          <div key={name} role="group" aria-label={name} className="grid grid-cols-2 gap-1">
            <span aria-hidden className="col-span-2 px-1 pt-0.5 text-xs text-paper-dim">
              {name}
            </span>
            {tools.map((tool) => (
              <ToolButton key={tool.id} tool={tool} workspace={workspace} side={away} />
            ))}
            {name === 'Place' && <PictureButton workspace={workspace} side={away} />}
          </div>
        ))}
        <div
          role="group"
          aria-label="Arrange"
          className="grid grid-cols-2 gap-1 border-t-2 border-board-line pt-1"
        >
          <ToolButton tool={SELECT_TOOL} workspace={workspace} side={away} />
          <WipeMenu workspace={workspace} side={away} />
        </div>
        <div className="grid grid-cols-2 gap-1 border-t-2 border-board-line pt-1">
          <GroupSheet name="Point" icon={<Crosshair aria-hidden />} workspace={workspace} side={away}>
            <PointSheet workspace={workspace} />
          </GroupSheet>
          <GroupSheet name="Focus" icon={<Focus aria-hidden />} workspace={workspace} side={away}>
            <FocusSheet workspace={workspace} />
          </GroupSheet>
        </div>
        <ReadyPens workspace={workspace} />
        <ToolOptions workspace={workspace} side={away} />
        <History workspace={workspace} reach={reach} side={away} />
      </div>
    </Holder>
  );
}

/** On a phone the tools lie over the page, so they fold as soon as one is taken. */
function useFoldOnPhone({ penCase }: Workspace, reach: Reach): void {
  useEffect(() => {
    let { tool, ready, pen } = penCase.get();
    return penCase.subscribe(() => {
      const now = penCase.get();
      const taken = now.tool !== tool || (now.pen !== pen && ready.includes(now.pen));
      ({ tool, ready, pen } = now);
      if (taken && isNarrow()) reach.patch({ folded: true });
    });
  }, [penCase, reach]);
}

function ModeSwitch({ workspace, side }: { workspace: Workspace; side: Side }) {
  const mode = useStore(workspace.mode);
  const mayWrite = workspace.mayWrite || workspace.mayPoint;
  const entries: { mode: 'use' | 'write'; label: string; caption: string; icon: ReactNode }[] = [
    { mode: 'use', label: 'Use the page: scroll and zoom', caption: 'Use', icon: <Hand aria-hidden /> },
    { mode: 'write', label: 'Write on the page', caption: 'Write', icon: <NotebookPen aria-hidden /> },
  ];
  return (
    <div
      role="group"
      aria-label="Use or write"
      className="grid grid-cols-2 gap-1 rounded-xl bg-board-light p-1"
    >
      {entries.map((entry) => (
        <IconButton
          key={entry.mode}
          label={entry.label}
          caption={entry.caption}
          icon={entry.icon}
          shortcut={workspace.shortcuts.keyOf('toggleMode')}
          active={(mode === 'write' && mayWrite) === (entry.mode === 'write')}
          disabled={entry.mode === 'write' && !mayWrite}
          tooltipSide={side}
          className="min-h-12"
          onClick={() => workspace.setMode(entry.mode)}
        />
      ))}
    </div>
  );
}

function ToolButton({
  tool: { id, name, icon },
  workspace,
  side,
}: {
  tool: ToolEntry;
  workspace: Workspace;
  side: Side;
}) {
  const { tool } = useStore(workspace.penCase);
  const mode = useStore(workspace.mode);
  const may = workspace.mayTake(id);
  return (
    <IconButton
      label={name}
      caption={name}
      icon={icon}
      shortcut={workspace.shortcuts.keyOf(id)}
      active={mode === 'write' && may && tool === id}
      disabled={!may}
      tooltipSide={side}
      className="min-h-11"
      onClick={() => workspace.takeTool(id)}
    />
  );
}

function History({ workspace, reach, side }: ReachPanelProps & { side: Side }) {
  const { canUndo, canRedo } = useStore(workspace.target.status);
  useStore(workspace.mode);
  const { mayWrite } = workspace;
  const common = { tooltipSide: side, className: '!min-w-0' };
  return (
    <div className="grid grid-cols-4 gap-0.5 border-t-2 border-board-line pt-1">
      <IconButton
        {...common}
        label="Undo"
        shortcut={workspace.shortcuts.keyOf('undo')}
        icon={<Undo2 aria-hidden size={20} />}
        disabled={!canUndo || !mayWrite}
        onClick={() => workspace.target.undo()}
      />
      <IconButton
        {...common}
        label="Redo"
        shortcut={workspace.shortcuts.keyOf('redo')}
        icon={<Redo2 aria-hidden size={20} />}
        disabled={!canRedo || !mayWrite}
        onClick={() => workspace.target.redo()}
      />
      <IconButton
        {...common}
        label="Move the tools to the other side"
        shortcut={workspace.shortcuts.keyOf('swapSide')}
        icon={<ArrowLeftRight aria-hidden size={20} />}
        onClick={reach.swapSide}
      />
      <IconButton
        {...common}
        label="Fold the tools away"
        shortcut={workspace.shortcuts.keyOf('fold')}
        icon={<Minimize2 aria-hidden size={20} />}
        onClick={reach.toggleFold}
      />
    </div>
  );
}

/** One round button that shows the pen in hand. */
function FoldedReach({ workspace, reach, state }: ReachPanelProps & { state: ReachState }) {
  const { tool } = useStore(workspace.penCase);
  const mode = useStore(workspace.mode);
  const writing = mode === 'write' && workspace.mayTake(tool);
  const icon = writing ? ALL_TOOLS.find(({ id }) => id === tool)!.icon : <Hand aria-hidden />;
  return (
    <Holder state={state} low>
      <div data-bar="tools" className="pointer-events-auto shrink-0">
        <IconButton
          label={`Show the tools (in hand: ${writing ? tool : 'use'})`}
          shortcut={workspace.shortcuts.keyOf('fold')}
          icon={icon}
          tooltipSide={state.side === 'left' ? 'right' : 'left'}
          onClick={reach.toggleFold}
          className="size-14 !rounded-full border-4 !bg-board shadow-xl"
          style={{ borderColor: (writing && workspace.penCase.colour) || 'var(--color-board-line)' }}
        />
      </div>
    </Holder>
  );
}

function DragHandle({ panel, reach }: { panel: RefObject<HTMLDivElement | null>; reach: Reach }) {
  const grip = useRef<{ x: number; y: number } | undefined>(undefined);
  const start = (event: PointerEvent<HTMLElement>) => {
    const box = panel.current!.getBoundingClientRect();
    grip.current = { x: event.clientX - box.left, y: event.clientY - box.top };
    event.currentTarget.setPointerCapture(event.pointerId);
  };
  const placeAt = (event: PointerEvent<HTMLElement>) => {
    const room = panel.current!.closest('[data-view]')!.getBoundingClientRect();
    const y = Math.max(0, event.clientY - room.top - grip.current!.y);
    return { x: event.clientX - room.left - grip.current!.x, y, room };
  };
  const move = (event: PointerEvent<HTMLElement>) => {
    if (!grip.current) return;
    const { x, y } = placeAt(event);
    reach.patch({ floating: { x, y } });
  };
  const end = (event: PointerEvent<HTMLElement>) => {
    if (!grip.current) return;
    const { x, y, room } = placeAt(event);
    grip.current = undefined;
    reach.drop(x, y, panel.current!.offsetWidth, room.width);
  };
  return (
    <div
      aria-hidden
      title="Drag to move the tools"
      onPointerDown={start}
      onPointerMove={move}
      onPointerUp={end}
      onPointerCancel={end}
      className="grid h-6 shrink-0 cursor-grab touch-none place-items-center text-board-line"
    >
      <GripHorizontal size={22} />
    </div>
  );
}

/**
 * Where the tools are held: in the middle of a side, or where they were dropped, as far as the window has room there;
 * the space above them gives way before they leave it. `low`: on a phone, near the thumb.
 */
function Holder({
  state: { side, floating },
  low,
  children,
}: {
  state: ReachState;
  low?: boolean;
  children: ReactNode;
}) {
  const left = floating && `clamp(0.5rem, ${floating.x}px, calc(100% - 10rem))`;
  return (
    <div
      className={classes(
        'pointer-events-none absolute inset-y-2 z-20 flex flex-col',
        low && 'max-sm:bottom-18 max-sm:z-40 max-[389px]:bottom-30',
      )}
      style={left === undefined ? { [side]: 8 } : { left }}
    >
      <span
        style={floating ? { flex: `0 1 ${floating.y}px` } : { flex: 1 }}
        className={low ? 'max-sm:!flex-1' : ''}
      />
      {children}
      {!floating && <span className={classes('flex-1', low && 'max-sm:hidden')} />}
    </div>
  );
}
