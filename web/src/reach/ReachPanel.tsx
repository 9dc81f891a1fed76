import {
  ArrowLeftRight,
  Crosshair,
  Focus,
  GripHorizontal,
  Hand,
  Minimize2,
  Redo2,
  Ruler,
  Undo2,
} from 'lucide-react';
import { lazy, useEffect, useRef } from 'react';
import type { PointerEvent, ReactNode, RefObject } from 'react';
import { useStore } from '../store/useStore';
import { classes } from '../ui/classes';
import { IconButton } from '../ui/IconButton';
import type { PageDesk } from '../room/pageDesk';
import { PictureButton } from './PictureButton';
import { GroupSheet } from './GroupSheet';
import { ModeSwitch } from './ModeSwitch';
import type { OpensTo, Reach, ReachState } from './reachState';
import { ReadyPens } from './ReadyPens';
import { ToolOptions } from './ToolOptions';
import { TOOLS, toolsIn } from '../tools/tools';
import { WORK } from '../tools/work';
import { ToolButton } from './ToolButton';
import { ToolStrip } from './ToolStrip';
import { WipeMenu } from './WipeMenu';
import { toolsHere } from '../ui/moments';
import { windowRoom } from '../ui/windowRoom';
import { useDrag } from '../ui/useDrag';
import { GROUP_NAMES } from './groupNames';
import { t } from '../words';

const PointSheet = lazy(() => import('./PointSheet'));
const FocusSheet = lazy(() => import('./FocusSheet'));
const MeasureSheet = lazy(() => import('./MeasureSheet'));

interface ReachPanelProps {
  desk: PageDesk;
  reach: Reach;
}

/** The holder of the tools: docked at hand height on one side, floating, or folded to one button. */
export function ReachPanel({ desk, reach }: ReachPanelProps) {
  const state = useStore(reach);
  useStore(desk.room.shortcuts);
  // Not before they are seen: what lay where they are now would be pressed through them.
  useEffect(() => toolsHere.come(), []);
  const panel = useRef<HTMLDivElement>(null);
  const { compact } = useStore(windowRoom);
  useFocusKept(state.folded);
  const away = state.side === 'left' ? 'right' : 'left';
  if (state.folded) return <FoldedReach desk={desk} reach={reach} state={state} />;
  if (compact) return <ToolStrip desk={desk} reach={reach} />;
  return (
    <Holder state={state}>
      <div
        ref={panel}
        role="toolbar"
        data-bar="tools"
        aria-label={t('reach.tools')}
        aria-orientation="vertical"
        className="pointer-events-auto flex max-h-[calc(100dvh-8.5rem)] w-38 shrink-0 flex-col gap-1 overflow-y-auto rounded-2xl bg-board forced-colors:border-2 p-1.5 shadow-xl"
      >
        <DragHandle panel={panel} reach={reach} />
        <ModeSwitch desk={desk} side={away} />
        {(['Write', 'Place'] as const).map((name) => (
          <div key={name} role="group" aria-label={GROUP_NAMES[name]} className="grid grid-cols-2 gap-1">
            <span aria-hidden className="col-span-2 px-1 pt-0.5 text-xs text-paper-dim">
              {GROUP_NAMES[name]}
            </span>
            {toolsIn(name).map((tool) => (
              <ToolButton key={tool} tool={tool} desk={desk} side={away} />
            ))}
            {name === 'Place' && <PictureButton desk={desk} side={away} />}
          </div>
        ))}
        <div
          role="group"
          aria-label={GROUP_NAMES.Arrange}
          className="grid grid-cols-2 gap-1 border-t border-board-hover pt-1"
        >
          {toolsIn('Arrange').map((tool) => (
            <ToolButton key={tool} tool={tool} desk={desk} side={away} />
          ))}
          <WipeMenu desk={desk} side={away} />
        </div>
        <div className="grid grid-cols-3 gap-1 border-t border-board-hover pt-1">
          <GroupSheet name="Point" icon={<Crosshair aria-hidden />} desk={desk} side={away}>
            <PointSheet desk={desk} />
          </GroupSheet>
          <GroupSheet name="Focus" icon={<Focus aria-hidden />} desk={desk} side={away}>
            <FocusSheet desk={desk} />
          </GroupSheet>
          <GroupSheet name="Measure" icon={<Ruler aria-hidden />} desk={desk} side={away}>
            <MeasureSheet desk={desk} />
          </GroupSheet>
        </div>
        <ReadyPens desk={desk} />
        <ToolOptions desk={desk} side={away} />
        <History desk={desk} reach={reach} side={away} />
      </div>
    </Holder>
  );
}

function History({ desk, reach, side }: ReachPanelProps & { side: OpensTo }) {
  const { canUndo, canRedo } = useStore(desk.target.status);
  useStore(desk.room.mode);
  const { mayWrite } = desk;
  const common = { tooltipSide: side, className: '!min-w-0' };
  return (
    <div className="grid grid-cols-4 gap-0.5 border-t border-board-hover pt-1">
      <IconButton
        {...common}
        label={t('common.undo')}
        shortcut={desk.room.shortcuts.keyOf('undo')}
        icon={<Undo2 aria-hidden size={20} />}
        disabled={!canUndo || !mayWrite}
        onClick={() => desk.target.undo()}
      />
      <IconButton
        {...common}
        label={t('common.redo')}
        shortcut={desk.room.shortcuts.keyOf('redo')}
        icon={<Redo2 aria-hidden size={20} />}
        disabled={!canRedo || !mayWrite}
        onClick={() => desk.target.redo()}
      />
      <IconButton
        {...common}
        label={t('reach.moveTheToolsToThe')}
        shortcut={desk.room.shortcuts.keyOf('swapSide')}
        icon={<ArrowLeftRight aria-hidden size={20} />}
        onClick={reach.swapSide}
      />
      <IconButton
        {...common}
        label={t('common.foldTheToolsAway')}
        data-undoes-fold
        shortcut={desk.room.shortcuts.keyOf('fold')}
        icon={<Minimize2 aria-hidden size={20} />}
        onClick={reach.toggleFold}
      />
    </div>
  );
}

/** Folding and unfolding take away the button that was pressed; the focus goes to the one that undoes it. */
function useFocusKept(folded: boolean): void {
  const before = useRef(folded);
  useEffect(() => {
    if (before.current === folded) return;
    before.current = folded;
    if (document.activeElement === document.body)
      document.querySelector<HTMLElement>('[data-undoes-fold]')?.focus();
  }, [folded]);
}

/** One round button that shows the pen in hand. */
function FoldedReach({ desk, reach, state }: ReachPanelProps & { state: ReachState }) {
  const { tool } = useStore(desk.penCase);
  const mode = useStore(desk.room.mode);
  const writing = mode === 'write' && desk.room.mayTake(tool);
  const { compact } = useStore(windowRoom);
  const icon = writing ? WORK[tool].icon : <Hand aria-hidden />;
  return (
    <Holder state={state} low>
      {/* On a hand-held screen it lies over the page, which has the room. */}
      <div data-bar={compact ? undefined : 'tools'} className="pointer-events-auto shrink-0">
        <IconButton
          label={t(writing ? 'reach.showTheToolsInHand' : 'reach.showTheTools', { tool: TOOLS[tool].name })}
          shortcut={desk.room.shortcuts.keyOf('fold')}
          icon={icon}
          tooltipSide={state.side === 'left' ? 'right' : 'left'}
          data-undoes-fold
          onClick={reach.toggleFold}
          className="size-14 !rounded-full border-4 !bg-board shadow-xl"
          style={{ borderColor: (writing && desk.penCase.colour) || 'var(--color-board-line)' }}
        />
      </div>
    </Holder>
  );
}

function DragHandle({ panel, reach }: { panel: RefObject<HTMLDivElement | null>; reach: Reach }) {
  const placeAt = (event: PointerEvent<HTMLElement>, grip: { x: number; y: number }) => {
    const room = panel.current!.closest('[data-view]')!.getBoundingClientRect();
    const y = Math.max(0, event.clientY - room.top - grip.y);
    return { x: event.clientX - room.left - grip.x, y, room };
  };
  const drag = useDrag({
    begin: (event) => {
      const box = panel.current!.getBoundingClientRect();
      return { x: event.clientX - box.left, y: event.clientY - box.top };
    },
    move: (event, grip) => {
      const { x, y } = placeAt(event, grip);
      reach.patch({ floating: { x, y } });
    },
    end: (event, grip) => {
      const { x, y, room } = placeAt(event, grip);
      reach.drop(x, y, panel.current!.offsetWidth, room.width);
    },
  });
  return (
    <div
      aria-hidden
      title={t('reach.dragToMoveTheTools')}
      {...drag}
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
      className={classes('pointer-events-none absolute inset-y-2 z-20 flex flex-col', low && 'compact:z-40')}
      style={left === undefined ? { [side]: 8 } : { left }}
    >
      <span
        style={floating ? { flex: `0 1 ${floating.y}px` } : { flex: 1 }}
        className={low ? 'compact:!flex-1' : ''}
      />
      {children}
      {!floating && <span className={classes('flex-1', low && 'compact:hidden')} />}
    </div>
  );
}
