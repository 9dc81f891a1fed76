import { useStore } from '@web/store/useStore';
import { classes } from '@web/ui/classes';
import { useDrag } from '@web/ui/useDrag';
import { TOOLS, toolOf } from '@web/tools/tools';
import { t } from '@web/words';
import {
  ArrowLeftRight,
  Camera,
  Focus,
  GripHorizontal,
  Hand,
  ListTree,
  Minimize2,
  NotebookPen,
  Redo2,
  School,
  Trash2,
  Undo2,
  X,
} from 'lucide-react';
import type { ReactNode } from 'react';
import { useRef } from 'react';
import { ask } from '../../shared/messages';
import { say } from '../../words';
import type { Tab } from '../tab';
import type { TabToolId } from '../toolIds';
import { isTabTool } from '../toolIds';
import { TAB_TOOLS } from '../tools';
import type { HolderPlace, SheetName } from './holderState';
import { BoardButton } from './BoardButton';

/** The tools by what they are for; the others are in sheets. */
const GROUPS: readonly { name: string; tools: readonly TabToolId[] }[] = [
  { name: t('reach.write'), tools: ['pen', 'highlighter', 'text', 'eraser'] },
  { name: t('reach.place'), tools: ['shape', 'line', 'stamp', 'note', 'fill', 'select'] },
  { name: say('point'), tools: ['pointer', 'wisp'] },
];

export interface HolderProps {
  tab: Tab;
  place: HolderPlace;
  /** Opens what lies beside the tools, or puts it away. */
  onSheet(sheet: SheetName): void;
  sheet: SheetName | undefined;
  onClose(): void;
}

/** The tools at hand height on one side of the window, or folded to one round button. */
export function Holder(props: HolderProps) {
  const { folded, side, y } = useStore(props.place.state);
  return (
    <div
      className="pointer-events-none fixed inset-y-2 flex flex-col"
      style={{ [side]: 8 }}
      data-holder={side}
    >
      <span style={{ flex: `0 1 ${y}px` }} />
      {folded ? <Folded {...props} /> : <Open {...props} />}
    </div>
  );
}

function Open(props: HolderProps) {
  const { tab, place } = props;
  return (
    <div
      role="toolbar"
      aria-label={say('tools')}
      className="pointer-events-auto flex max-h-full w-40 shrink flex-col gap-1 overflow-y-auto rounded-2xl bg-board p-1.5 text-paper shadow-xl"
    >
      <Grabber place={place} />
      <Modes tab={tab} />
      {GROUPS.map(({ name, tools }) => (
        <div key={name} role="group" aria-label={name} className="grid grid-cols-2 gap-1">
          <p className="col-span-2 px-1 text-xs">{name}</p>
          {tools.map((id) => (
            <ToolButton key={id} id={id} tab={tab} />
          ))}
        </div>
      ))}
      <Pens tab={tab} />
      <Sheets {...props} />
      <History {...props} />
    </div>
  );
}

function Modes({ tab: { desk } }: { tab: Tab }) {
  const mode = useStore(desk.mode);
  const modes: { mode: 'use' | 'write'; label: string; caption: string; icon: ReactNode }[] = [
    {
      mode: 'use',
      label: t('reach.useThePageScrollAnd'),
      caption: t('reach.use'),
      icon: <Hand aria-hidden />,
    },
    {
      mode: 'write',
      label: t('reach.writeOnThePage'),
      caption: t('reach.write'),
      icon: <NotebookPen aria-hidden />,
    },
  ];
  return (
    <div
      role="group"
      aria-label={t('reach.useOrWrite')}
      className="grid grid-cols-2 gap-1 rounded-xl bg-board-light p-1"
    >
      {modes.map((one) => (
        <BoardButton
          key={one.mode}
          {...one}
          active={mode === one.mode}
          keyName="W"
          onClick={() => desk.mode.set(one.mode)}
        />
      ))}
    </div>
  );
}

function ToolButton({ id, tab: { desk } }: { id: TabToolId; tab: Tab }) {
  const mode = useStore(desk.mode);
  const { tool } = useStore(desk.penCase);
  const { name, does = name, key } = toolOf(id);
  return (
    <BoardButton
      label={does}
      caption={name}
      icon={TAB_TOOLS[id].icon}
      keyName={key}
      active={mode === 'write' && tool === id}
      onClick={() => desk.takeTool(id)}
    />
  );
}

/** The ready pens, one tap away. */
function Pens({ tab: { desk } }: { tab: Tab }) {
  const { ready } = useStore(desk.penCase);
  const inHand = desk.penCase.ink;
  return (
    <div role="group" aria-label={t('reach.penCase')} className="grid grid-cols-4 gap-1 pt-1">
      {ready.map((pen, i) => (
        <button
          key={i}
          type="button"
          aria-label={t('reach.readyPen', { number: i + 1, nature: t(`tools.${pen.nature}`) })}
          aria-pressed={inHand?.colour === pen.colour && inHand.width === pen.width}
          onClick={() => {
            desk.penCase.takeReady(pen);
            desk.mode.set('write');
          }}
          className={classes(
            'grid h-10 place-items-center rounded-xl border-2 bg-paper',
            inHand?.colour === pen.colour && inHand.width === pen.width
              ? 'border-chalk ring-2 ring-chalk'
              : 'border-board-line',
          )}
        >
          <span
            className="w-5 rounded-full border border-paper-line"
            style={{
              background: pen.colour,
              height: Math.min(20, Math.max(4, pen.width * 0.9)),
              opacity: pen.opacity,
            }}
          />
        </button>
      ))}
    </div>
  );
}

function Sheets({ tab: { desk }, sheet, onSheet }: HolderProps) {
  const { tool } = useStore(desk.penCase);
  const { name } = TOOLS[isTabTool(tool) ? tool : 'pen'];
  const { colour } = desk.penCase;
  const entries: { id: SheetName; label: string; icon: ReactNode }[] = [
    { id: 'focus', label: say('focus'), icon: <Focus aria-hidden size={20} /> },
    { id: 'picture', label: say('picture'), icon: <Camera aria-hidden size={20} /> },
    { id: 'list', label: say('list'), icon: <ListTree aria-hidden size={20} /> },
    { id: 'wipe', label: say('wipe'), icon: <Trash2 aria-hidden size={20} /> },
  ];
  return (
    <div className="flex flex-col gap-1 pt-1">
      <button
        type="button"
        aria-label={t('reach.colourAndOptionsOfThe', { tool: name })}
        aria-expanded={sheet === 'options'}
        onClick={() => onSheet('options')}
        className="flex min-h-11 items-center gap-2 rounded-xl bg-board-light px-2 text-sm hover:bg-board-hover"
      >
        <span
          className={classes('size-7 rounded-full border-2 border-paper', !colour && 'border-dashed')}
          style={{ background: colour ?? 'transparent' }}
        />
        {t('reach.options')}
      </button>
      <div className="grid grid-cols-2 gap-1">
        <BoardButton
          label={say('classroom')}
          caption={say('classroom')}
          icon={<School aria-hidden size={20} />}
          onClick={() => void openClass(desk)}
        />
        {entries.map(({ id, label, icon }) => (
          <BoardButton
            key={id}
            label={label}
            caption={label}
            icon={icon}
            expanded={sheet === id}
            onClick={() => onSheet(id)}
          />
        ))}
      </div>
    </div>
  );
}

/** Opens the page from which this tab is brought into a class. */
function openClass(desk: Tab['desk']): Promise<unknown> {
  return ask({ ask: 'class' }).catch(() => desk.tellProblem(say('noClassPage')));
}

function History({ tab: { log }, place, onClose }: HolderProps) {
  const { canUndo, canRedo } = useStore(log.status);
  return (
    <div className="grid grid-cols-5 border-t border-board-hover pt-1">
      <BoardButton
        label={t('common.undo')}
        keyName="Ctrl+Z"
        icon={<Undo2 aria-hidden size={18} />}
        disabled={!canUndo}
        onClick={() => log.undo()}
      />
      <BoardButton
        label={t('common.redo')}
        keyName="Ctrl+Y"
        icon={<Redo2 aria-hidden size={18} />}
        disabled={!canRedo}
        onClick={() => log.redo()}
      />
      <BoardButton
        label={say('otherSide')}
        keyName="X"
        icon={<ArrowLeftRight aria-hidden size={18} />}
        onClick={place.swap}
      />
      <BoardButton
        label={say('fold')}
        keyName="F"
        icon={<Minimize2 aria-hidden size={18} />}
        onClick={place.toggleFold}
      />
      <BoardButton label={say('close')} icon={<X aria-hidden size={18} />} onClick={onClose} />
    </div>
  );
}

function Folded({ tab: { desk }, place }: HolderProps) {
  const mode = useStore(desk.mode);
  const { tool } = useStore(desk.penCase);
  const isWriting = mode === 'write' && isTabTool(tool);
  return (
    <button
      type="button"
      aria-label={say('unfold')}
      title={say('unfold')}
      onClick={place.toggleFold}
      className="pointer-events-auto grid size-14 shrink-0 place-items-center rounded-full border-4 bg-board text-paper shadow-xl"
      style={{ borderColor: (isWriting && desk.penCase.colour) || 'var(--color-board-line)' }}
    >
      {isWriting ? TAB_TOOLS[tool].icon : <Hand aria-hidden />}
    </button>
  );
}

/** Drags the tools up and down, or to the other side. */
function Grabber({ place }: { place: HolderPlace }) {
  const panel = useRef<HTMLDivElement>(null);
  const drag = useDrag({
    begin: (event) => event.clientY - panel.current!.parentElement!.getBoundingClientRect().top,
    move: (event, grip) => place.drop(event.clientX, event.clientY - grip, window.innerWidth),
  });
  return (
    <div
      ref={panel}
      aria-hidden
      title={t('reach.dragToMoveTheTools')}
      {...drag}
      className="grid h-6 shrink-0 cursor-grab touch-none place-items-center text-board-line"
    >
      <GripHorizontal size={22} />
    </div>
  );
}
