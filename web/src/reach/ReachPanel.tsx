import {
  ArrowLeftRight,
  Eraser,
  GripHorizontal,
  Hand,
  Highlighter,
  Minimize2,
  PenLine,
  NotebookPen,
  Redo2,
  Type,
  Undo2,
} from 'lucide-react';
import { useRef } from 'react';
import type { CSSProperties, PointerEvent, ReactNode } from 'react';
import { useStore } from '../live/store';
import { IconButton } from '../ui/IconButton';
import type { ToolId } from '../workspace/penCase';
import { FOLD_KEY, MODE_KEY, SWAP_KEY, TOOL_KEYS } from '../workspace/useShortcuts';
import type { Workspace } from '../workspace/workspace';
import type { Reach, ReachState } from './reachState';
import { ToolOptions } from './ToolOptions';

const TOOLS: { id: ToolId; name: string; icon: ReactNode }[] = [
  { id: 'pen', name: 'Pen', icon: <PenLine aria-hidden /> },
  { id: 'highlighter', name: 'Highlighter', icon: <Highlighter aria-hidden /> },
  { id: 'text', name: 'Text', icon: <Type aria-hidden /> },
  { id: 'eraser', name: 'Eraser', icon: <Eraser aria-hidden /> },
];

interface ReachPanelProps {
  workspace: Workspace;
  reach: Reach;
}

/** The holder of the tools: docked at hand height on one side, floating, or folded to one button. */
export function ReachPanel({ workspace, reach }: ReachPanelProps) {
  const state = useStore(reach);
  const { tool } = useStore(workspace.penCase);
  const mode = useStore(workspace.mode);
  const status = useStore(workspace.target.status);
  const panel = useRef<HTMLDivElement>(null);
  const mayWrite = workspace.mayWrite;
  const away = state.side === 'left' ? 'right' : 'left';

  if (state.folded) return <FoldedReach workspace={workspace} reach={reach} state={state} />;
  return (
    <div
      ref={panel}
      role="toolbar"
      aria-label="Tools"
      aria-orientation="vertical"
      style={placeOf(state)}
      className="absolute z-20 flex max-h-[calc(100dvh-1rem)] w-[5.5rem] flex-col gap-1 overflow-y-auto rounded-2xl border-2 border-board-line bg-board p-1.5 shadow-xl"
    >
      <DragHandle panel={panel} reach={reach} />
      <div
        role="group"
        aria-label="Use or write"
        className="flex flex-col gap-1 rounded-xl bg-board-light p-1"
      >
        <ModeButton
          label="Use the page: scroll and zoom"
          caption="Use"
          icon={<Hand aria-hidden />}
          active={mode === 'use' || !mayWrite}
          side={away}
          onClick={() => workspace.setMode('use')}
        />
        <ModeButton
          label="Write on the page"
          caption="Write"
          icon={<NotebookPen aria-hidden />}
          active={mode === 'write' && mayWrite}
          disabled={!mayWrite}
          side={away}
          onClick={() => workspace.setMode('write')}
        />
      </div>
      {TOOLS.map(({ id, name, icon }) => (
        <IconButton
          key={id}
          label={name}
          caption={name}
          icon={icon}
          shortcut={TOOL_KEYS[id]}
          active={mode === 'write' && mayWrite && tool === id}
          disabled={!mayWrite}
          tooltipSide={away}
          className="min-h-13"
          onClick={() => workspace.takeTool(id)}
        />
      ))}
      <ToolOptions workspace={workspace} side={away} />
      <div className="grid grid-cols-2 gap-1 border-t-2 border-board-line pt-1">
        <IconButton
          label="Undo"
          shortcut="Ctrl+Z"
          icon={<Undo2 aria-hidden size={20} />}
          disabled={!status.canUndo || !mayWrite}
          tooltipSide={away}
          onClick={() => workspace.target.undo()}
          className="!min-w-0"
        />
        <IconButton
          label="Redo"
          shortcut="Ctrl+Y"
          icon={<Redo2 aria-hidden size={20} />}
          disabled={!status.canRedo || !mayWrite}
          tooltipSide={away}
          onClick={() => workspace.target.redo()}
          className="!min-w-0"
        />
        <IconButton
          label="Move the tools to the other side"
          shortcut={SWAP_KEY}
          icon={<ArrowLeftRight aria-hidden size={20} />}
          tooltipSide={away}
          onClick={reach.swapSide}
          className="!min-w-0"
        />
        <IconButton
          label="Fold the tools away"
          shortcut={FOLD_KEY}
          icon={<Minimize2 aria-hidden size={20} />}
          tooltipSide={away}
          onClick={reach.toggleFold}
          className="!min-w-0"
        />
      </div>
    </div>
  );
}

interface ModeButtonProps {
  label: string;
  caption: string;
  icon: ReactNode;
  active: boolean;
  disabled?: boolean;
  side: 'left' | 'right';
  onClick(): void;
}

function ModeButton({ side, ...rest }: ModeButtonProps) {
  return <IconButton {...rest} shortcut={MODE_KEY} tooltipSide={side} className="min-h-13" />;
}

/** One round button that shows the pen in hand. */
function FoldedReach({ workspace, reach, state }: ReachPanelProps & { state: ReachState }) {
  const { tool } = useStore(workspace.penCase);
  const mode = useStore(workspace.mode);
  const writing = mode === 'write' && workspace.mayWrite;
  const icon = writing ? TOOLS.find(({ id }) => id === tool)!.icon : <Hand aria-hidden />;
  return (
    <div
      style={placeOf(state)}
      className="absolute z-20 max-sm:!top-auto max-sm:!bottom-2 max-sm:!transform-none"
    >
      <IconButton
        label={`Show the tools (in hand: ${writing ? tool : 'use'})`}
        shortcut={FOLD_KEY}
        icon={icon}
        tooltipSide={state.side === 'left' ? 'right' : 'left'}
        onClick={reach.toggleFold}
        className="size-14 !rounded-full border-4 !bg-board shadow-xl"
        style={{ borderColor: (writing && workspace.penCase.colour) || 'var(--color-board-line)' }}
      />
    </div>
  );
}

function DragHandle({ panel, reach }: { panel: React.RefObject<HTMLDivElement | null>; reach: Reach }) {
  const grip = useRef<{ x: number; y: number } | undefined>(undefined);
  const start = (event: PointerEvent<HTMLElement>) => {
    const box = panel.current!.getBoundingClientRect();
    grip.current = { x: event.clientX - box.left, y: event.clientY - box.top };
    event.currentTarget.setPointerCapture(event.pointerId);
  };
  const placeAt = (event: PointerEvent<HTMLElement>) => {
    const room = panel.current!.parentElement!.getBoundingClientRect();
    return {
      x: event.clientX - room.left - grip.current!.x,
      y: Math.max(0, event.clientY - room.top - grip.current!.y),
      room,
    };
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

function placeOf({ side, floating }: ReachState): CSSProperties {
  if (floating) return { left: floating.x, top: floating.y };
  return { [side]: 8, top: '50%', transform: 'translateY(-50%)' };
}
