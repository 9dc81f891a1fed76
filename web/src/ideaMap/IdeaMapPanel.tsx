import type { Idea, IdeaLayout, OutlineItem } from '@doodla/core/idea-map';
import { IDEA_LAYOUTS, ideasOf, outlineOf, wordsOf } from '@doodla/core/idea-map';
import { FileDown, FileUp, ListTree, X } from 'lucide-react';
import { DropdownMenu } from 'radix-ui';
import type { RefObject } from 'react';
import { useEffect, useMemo, useRef, useState } from 'react';
import type { PageDesk } from '../room/pageDesk';
import { useStore } from '../store/useStore';
import { Button } from '../ui/Button';
import { classes } from '../ui/classes';
import { DragStrip } from '../ui/DragStrip';
import { IconButton } from '../ui/IconButton';
import { MENU_ITEM, MenuContent } from '../ui/MenuContent';
import { windowRoom } from '../ui/windowRoom';
import { t } from '../words';
import { IdeaActions } from './IdeaActions';
import { IdeaDesk } from './ideaDesk';
import { IdeaRow } from './IdeaRow';
import type { IdeaChange } from './ideaRows';
import { ideaKey, rowsOf } from './ideaRows';
import { EDGE, freeRight } from './freeRight';
import { PasteOutline } from './PasteOutline';

const LAYOUT_NAMES = {
  sides: 'ideaMap.sides',
  down: 'ideaMap.down',
  round: 'ideaMap.round',
  hand: 'ideaMap.byHand',
} as const;

/** In a window that is no wider it lies above the page, pixels. */
const WIDE = 640;

interface IdeaMapPanelProps {
  around: string | undefined;
  desk: PageDesk;
  onClose(): void;
}

/** An idea map in words: what is typed here is drawn on the page at once, and the other way round. */
export default function IdeaMapPanel({ around, desk, onClose }: IdeaMapPanelProps) {
  const ideas = useMemo(() => new IdeaDesk(desk), [desk]);
  useStore(desk.marksChanged);
  useStore(desk.pageId);
  const [root, setRoot] = useState(() => ideas.find(around)?.mark.id);
  const [current, setCurrent] = useState(root);
  const [isPasting, setPasting] = useState(false);
  const file = useRef<HTMLInputElement>(null);
  const panel = useRef<HTMLElement>(null);
  const [place, setPlace] = useState<{ x: number; y: number }>();
  const isWide = useStore(windowRoom).width >= WIDE;
  const right = useFreeRight(panel, desk);
  // What was its middle may be gone, or be none any more.
  const map = ideas.find(root) ?? ideas.find(undefined);
  const layout = map && ideas.layoutOf(map);
  const begin = (outline: OutlineItem, as: IdeaLayout = 'sides') => {
    // One that nobody has written in yet makes room.
    const isBegun = map?.children.length === 0 && wordsOf(map).trim() === t('ideaMap.middle');
    const made = ideas.start(outline, as, isBegun && ideas.mayTouch(map.mark) ? map.mark.id : undefined);
    if (made === undefined) return desk.tellProblem(t('material.nothingMayBePut'));
    setRoot(made);
    setCurrent(made);
  };
  const isEmpty = map === undefined;
  useEffect(() => {
    if (isEmpty) begin({ text: t('ideaMap.middle'), children: [] });
    // Only where there is none as it is opened.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, []);
  const read = async (chosen: File) => {
    try {
      const { readOutline } = await import('./outlineFiles');
      begin(await readOutline(chosen), layout);
    } catch (error) {
      desk.tellProblem((error as Error).message);
    }
  };
  const save = (as: 'opml' | 'md') =>
    import('./outlineFiles').then(
      ({ saveOutline }) => saveOutline(outlineOf(map!), as),
      () => desk.tellProblem(t('plots.notReached')),
    );
  return (
    <section
      ref={panel}
      aria-label={t('ideaMap.title')}
      // Where it was put by hand, the page does not make room for it.
      data-bar={place ? undefined : 'ideaMap'}
      style={place ? { left: place.x, top: place.y } : isWide ? { right } : undefined}
      onPointerDown={(event) => event.stopPropagation()}
      onKeyDown={(event) => {
        // In a menu the key closes that menu alone, which is no part of the panel's own tree.
        if (event.key === 'Escape' && event.currentTarget.contains(event.target as Node)) {
          // What was typed last is kept as its line loses the focus.
          (document.activeElement as HTMLElement | null)?.blur();
          onClose();
        }
        event.stopPropagation();
      }}
      className={classes(
        'pointer-events-auto absolute z-40 flex flex-col gap-2 rounded-2xl bg-board p-3 pt-1 text-paper shadow-xl forced-colors:border-2',
        isWide ? 'max-h-[calc(100%-10rem)] w-80' : 'inset-x-1 max-h-[54%]',
        !place && (isWide ? 'top-20' : 'top-14'),
      )}
    >
      {isWide && <DragStrip label={t('ideaMap.move')} hint={t('explain.dragPanel')} onPlace={setPlace} />}
      <div className="-my-1 flex items-center justify-between">
        <h2 className="font-bold">{t('ideaMap.title')}</h2>
        <div className="flex">
          <FileMenu
            onNew={() => begin({ text: t('ideaMap.middle'), children: [] })}
            onRead={() => file.current!.click()}
            onPaste={() => setPasting(true)}
            onSave={save}
            hasMap={!isEmpty}
          />
          <IconButton label={t('common.close')} icon={<X aria-hidden size={20} />} onClick={onClose} />
        </div>
      </div>
      <input
        ref={file}
        type="file"
        accept=".opml,.xml,.md,.markdown,.txt"
        aria-label={t('ideaMap.read')}
        className="sr-only"
        tabIndex={-1}
        onChange={({ target }) => {
          if (target.files?.[0]) void read(target.files[0]);
          target.value = '';
        }}
      />
      {isPasting ? (
        <PasteOutline
          onDone={(outline) => {
            setPasting(false);
            if (outline) begin(outline, layout);
          }}
        />
      ) : map ? (
        <Outline
          {...{ map, layout, ideas, desk, current, onCurrent: setCurrent }}
          onMissing={() => desk.tellProblem(t('material.nothingMayBePut'))}
        />
      ) : (
        <Button look="onBoard" onClick={() => begin({ text: t('ideaMap.middle'), children: [] })}>
          {t('ideaMap.newMap')}
        </Button>
      )}
    </section>
  );
}

/** How far from the right edge it lies so that no bar lies over it, pixels. */
function useFreeRight(panel: RefObject<HTMLElement | null>, desk: PageDesk): number {
  const [right, setRight] = useState(EDGE);
  const glass = useStore(desk.glass);
  useEffect(() => {
    const find = () => {
      const own = panel.current;
      if (!own) return;
      const bars = [...document.querySelectorAll('[data-bar]')].filter((bar) => bar !== own);
      const box = own.getBoundingClientRect();
      setRight(
        freeRight(
          box,
          bars.map((bar) => bar.getBoundingClientRect()),
          window.innerWidth,
        ),
      );
    };
    find();
    // Bars go elsewhere as the page is fitted anew.
    return glass?.view.subscribe(find);
  }, [glass, panel]);
  return right;
}

interface FileMenuProps {
  hasMap: boolean;
  onNew(): void;
  onRead(): void;
  onPaste(): void;
  onSave(as: 'opml' | 'md'): Promise<void>;
}

function FileMenu({ hasMap, onNew, onRead, onPaste, onSave }: FileMenuProps) {
  return (
    <DropdownMenu.Root>
      <DropdownMenu.Trigger asChild>
        <IconButton label={t('ideaMap.files')} icon={<ListTree aria-hidden size={20} />} />
      </DropdownMenu.Trigger>
      <MenuContent>
        <DropdownMenu.Item className={MENU_ITEM} onSelect={onNew}>
          {t('ideaMap.newMap')}
        </DropdownMenu.Item>
        <DropdownMenu.Item className={MENU_ITEM} onSelect={onPaste}>
          {t('ideaMap.fromOutline')}
        </DropdownMenu.Item>
        <DropdownMenu.Item className={MENU_ITEM} onSelect={onRead}>
          <FileUp aria-hidden size={18} /> {t('ideaMap.read')}
        </DropdownMenu.Item>
        <DropdownMenu.Item className={MENU_ITEM} disabled={!hasMap} onSelect={() => void onSave('opml')}>
          <FileDown aria-hidden size={18} /> {t('ideaMap.saveOpml')}
        </DropdownMenu.Item>
        <DropdownMenu.Item className={MENU_ITEM} disabled={!hasMap} onSelect={() => void onSave('md')}>
          <FileDown aria-hidden size={18} /> {t('ideaMap.saveMarkdown')}
        </DropdownMenu.Item>
      </MenuContent>
    </DropdownMenu.Root>
  );
}

interface OutlineProps {
  map: Idea;
  layout: IdeaLayout | undefined;
  ideas: IdeaDesk;
  desk: PageDesk;
  current: string | undefined;
  onCurrent(id: string): void;
  onMissing(): void;
}

/** The ideas of a map, one to a row, with what can be done to the one that is in hand. */
function Outline({ map, layout, ideas, desk, current, onCurrent, onMissing }: OutlineProps) {
  const root = map.mark.id;
  const rows = rowsOf(map);
  const at = Math.max(
    0,
    rows.findIndex(({ idea }) => idea.mark.id === current),
  );
  const change = (what: IdeaChange) => {
    let next: string | undefined;
    const isDone = ideas.change(root, layout, (edit) => {
      next = what(edit) ?? undefined;
    });
    if (!isDone) return onMissing();
    if (next !== undefined) onCurrent(next);
  };
  const list = useRef<HTMLUListElement>(null);
  useEffect(() => {
    // The row in hand has the focus, also where it was only just made.
    list.current?.querySelector<HTMLElement>(`[data-idea="${CSS.escape(current ?? '')}"]`)?.focus();
  }, [current, rows.length]);
  const mayLayOut = ideas.mayLayOut(map);
  return (
    <>
      <label className="flex items-center gap-2">
        {t('ideaMap.layout')}
        <select
          value={layout ?? 'hand'}
          disabled={!mayLayOut}
          onChange={({ target }) => {
            if (!ideas.change(root, target.value as IdeaLayout, () => undefined)) onMissing();
          }}
          className="min-h-11 grow rounded-xl border-2 border-board-light bg-white px-2 text-ink"
        >
          {IDEA_LAYOUTS.map((one) => (
            <option key={one} value={one}>
              {t(LAYOUT_NAMES[one])}
            </option>
          ))}
          <option value="hand" disabled>
            {t('ideaMap.byHand')}
          </option>
        </select>
      </label>
      <ul ref={list} aria-label={t('ideaMap.ideas')} className="min-h-24 overflow-auto">
        {rows.map((row, i) => (
          <IdeaRow
            key={row.idea.mark.id}
            row={row}
            isCurrent={i === at}
            mayChange={ideas.mayTouch(row.idea.mark)}
            onCurrent={() => onCurrent(row.idea.mark.id)}
            onText={(text) => change((edit) => void edit.setText(row.idea.mark.id, text))}
            onFold={(away) => change((edit) => void edit.fold(row.idea.mark.id, away))}
            onKey={(event, text) =>
              ideaKey({ event, rows, at: i, text, mayTouch: ideas.mayTouch, change, onCurrent })
            }
          />
        ))}
      </ul>
      <IdeaActions
        rows={rows}
        at={at}
        mayTouch={ideas.mayTouch}
        mayRule={ideas.mayRule}
        change={change}
        onBranch={() => desk.selection.select(idsOf(rows[at]!.idea))}
      />
      <p className="text-sm text-paper/80 max-sm:hidden">{t('ideaMap.keys')}</p>
    </>
  );
}

/** All marks of an idea and of what hangs on it. */
const idsOf = (idea: Idea): string[] =>
  ideasOf(idea).flatMap(({ mark, within }) => [mark.id, ...within.map(({ id }) => id)]);
