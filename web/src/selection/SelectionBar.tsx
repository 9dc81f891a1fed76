import type { Mark, MarkOf, MarkPatch, Sides } from '@doodla/core';
import { cropBy, croppedSides, isChart } from '@doodla/core';
import {
  ArrowDownToLine,
  ArrowUpToLine,
  ChartSpline,
  CopyPlus,
  FlipHorizontal2,
  Lock,
  LockOpen,
  Palette,
  PencilRuler,
  Ruler,
  Scissors,
  Trash2,
} from 'lucide-react';
import { Popover } from 'radix-ui';
import type { RefObject } from 'react';
import { lazy, Suspense, useLayoutEffect, useRef, useState } from 'react';
import { ColourChoice } from '../ui/ColourChoice';
import { LineOrFilling } from '../ui/LineOrFilling';
import { TextSheet } from '../ui/TextSheet';
import { IconButton } from '../ui/IconButton';
import { Slider } from '../ui/Slider';
import { AltDialog } from './AltDialog';
import { FormulaMenu } from './FormulaMenu';
import { MoreMenu } from './MoreMenu';
import { neatenSelection } from './neatenSelection';
import { NudgeMenu } from './NudgeMenu';
import { RepeatDialog } from './RepeatDialog';
import type { PageDesk } from '../room/pageDesk';
import { t } from '../words';

const RuleDialog = lazy(() => import('../answering/RuleDialog'));

interface SelectionBarProps {
  marks: readonly Mark[];
  desk: PageDesk;
  /** The frame in the window, CSS pixels. */
  place: { left: number; top: number; width: number; height: number };
  /** What the bars at the sides take of the window, CSS pixels. */
  room: { left: number; right: number };
  /** Cutting a picture by its sides, where one is selected. */
  crop: { isOn: boolean; toggle(): void } | undefined;
  /** The panels of lines and shapes, where such are selected. */
  panel: { open: string | undefined; toggle(panel: 'measures' | 'construct'): void } | undefined;
}

const BAR_HEIGHT = 52;

/** When a bar goes that somebody is in by the keyboard, the focus goes to the page, not nowhere. */
function useFocusToPage(bar: RefObject<HTMLDivElement | null>, desk: PageDesk): void {
  useLayoutEffect(() => {
    const { current } = bar;
    return () => {
      if (current?.contains(document.activeElement)) desk.glass.get()?.host.focus();
    };
  }, [bar, desk]);
}

/** What can be done with the selected marks, beside them. */
export function SelectionBar({ marks, desk, place, room, crop, panel }: SelectionBarProps) {
  const { selection } = desk;
  const [describing, setDescribing] = useState(false);
  const [repeating, setRepeating] = useState(false);
  const [ruling, setRuling] = useState(false);
  const ruled = desk.isTeacher && !desk.room.device ? ruledOf(marks) : undefined;
  const locked = marks.every((mark) => mark.locked);
  const [first, ...others] = marks;
  const formula = first?.kind === 'formula' && others.length === 0 ? first : undefined;
  const plot = first?.kind === 'plot' && others.length === 0 ? first : undefined;
  const top = place.top > 110 ? place.top - BAR_HEIGHT - 44 : place.top + place.height + 16;
  const centre = { x: place.left + place.width / 2, y: place.top + place.height / 2 };
  const bounds = selection.bounds();
  const flip = (vertical: boolean) => {
    if (bounds)
      selection.apply({
        kind: 'flip',
        vertical,
        x: bounds.x + bounds.width / 2,
        y: bounds.y + bounds.height / 2,
      });
  };
  const bar = useRef<HTMLDivElement>(null);
  useFocusToPage(bar, desk);
  return (
    <div
      ref={bar}
      className="pointer-events-none absolute z-10 flex"
      style={{ top: `clamp(4px, ${top}px, calc(100% - 60px))`, left: room.left, right: room.right }}
    >
      {/* Gives way where the bar would not fit beside it. */}
      <div className="min-w-0 shrink" style={{ flexBasis: Math.max(0, centre.x - 160 - room.left) }} />
      <div
        role="toolbar"
        aria-label={t('selection.selectedMarks')}
        onPointerDown={(event) => event.stopPropagation()}
        className="pointer-events-auto flex max-w-full shrink-0 flex-wrap items-center rounded-2xl bg-board forced-colors:border-2 p-0.5 text-paper shadow-xl"
      >
        {!locked && (
          <>
            <LookMenu marks={marks} desk={desk} />
            {marks.some((mark) => mark.kind === 'stroke') && (
              <IconButton
                label={t('shapes.neaten')}
                icon={<PencilRuler aria-hidden size={20} />}
                onClick={() => void neatenSelection(desk, marks)}
              />
            )}
            {panel && (
              <IconButton
                label={t('measures.title')}
                active={panel.open === 'measures'}
                icon={<Ruler aria-hidden size={20} />}
                onClick={() => panel.toggle('measures')}
              />
            )}
            {formula && <FormulaMenu mark={formula} desk={desk} />}
            {plot && (
              <IconButton
                label={t(SHEETS[sheetOf(plot)])}
                icon={<ChartSpline aria-hidden size={20} />}
                onClick={() => desk.plotEdit.set({ is: sheetOf(plot), mark: plot })}
              />
            )}
            <NudgeMenu desk={desk} />
            {crop && (
              <IconButton
                label={t('selection.crop')}
                active={crop.isOn}
                icon={<Scissors aria-hidden size={20} />}
                onClick={crop.toggle}
              />
            )}
            <IconButton
              label={t('common.duplicate')}
              shortcut={desk.room.shortcuts.keyOf('duplicate')}
              icon={<CopyPlus aria-hidden size={20} />}
              onClick={() => selection.duplicate()}
            />
            <IconButton
              label={t('common.toTheFront')}
              shortcut={desk.room.shortcuts.keyOf('toFront')}
              icon={<ArrowUpToLine aria-hidden size={20} />}
              onClick={() => selection.reorder('front')}
            />
            <IconButton
              label={t('common.toTheBack')}
              shortcut={desk.room.shortcuts.keyOf('toBack')}
              icon={<ArrowDownToLine aria-hidden size={20} />}
              onClick={() => selection.reorder('back')}
            />
            <IconButton
              label={t('selection.mirrorLeftToRight')}
              icon={<FlipHorizontal2 aria-hidden size={20} />}
              onClick={() => flip(false)}
            />
          </>
        )}
        {desk.isTeacher && (
          <IconButton
            label={locked ? t('selection.unlock') : t('selection.lock')}
            icon={locked ? <LockOpen aria-hidden size={20} /> : <Lock aria-hidden size={20} />}
            onClick={() => selection.setLocked(!locked)}
          />
        )}
        {!locked && (
          <>
            <MoreMenu
              marks={marks}
              desk={desk}
              onFlip={() => flip(true)}
              onDescribe={() => setDescribing(true)}
              onRepeat={() => setRepeating(true)}
              onRule={ruled && (() => setRuling(true))}
              onConstruct={panel && (() => panel.toggle('construct'))}
            />
            <IconButton
              label={t('common.delete')}
              shortcut="Delete"
              icon={<Trash2 aria-hidden size={20} />}
              onClick={() => selection.remove()}
            />
          </>
        )}
        {ruling && ruled && (
          <Suspense>
            <RuleDialog mark={ruled} desk={desk} onClose={() => setRuling(false)} />
          </Suspense>
        )}
        {repeating && <RepeatDialog selection={selection} onClose={() => setRepeating(false)} />}
        {describing && <AltDialog marks={marks} desk={desk} onClose={() => setDescribing(false)} />}
      </div>
    </div>
  );
}

/** The mark whose rule can be made: of a group, the one that has one, or its lowest. */
function ruledOf(marks: readonly Mark[]): Mark | undefined {
  const [first] = marks;
  const isOne = marks.every(({ group }) => group !== null && group === first?.group);
  return marks.length === 1 || isOne ? (marks.find(({ rule }) => rule) ?? first) : undefined;
}

const takesFilling = (mark: Mark) => mark.kind === 'shape' || (mark.kind === 'path' && mark.closed);

function LookMenu({ marks, desk }: Pick<SelectionBarProps, 'marks' | 'desk'>) {
  const { selection } = desk;
  const [first] = marks;
  if (!first) return null;
  const { style } = first;
  const colour = 'colour' in style ? style.colour : 'line' in style ? (style.line ?? style.fill) : null;
  return (
    <Popover.Root>
      <Popover.Trigger asChild>
        <IconButton label={t('selection.colourAndLook')} icon={<Palette aria-hidden size={20} />} />
      </Popover.Trigger>
      <Popover.Portal>
        <Popover.Content
          aria-label={t('selection.colourAndLook')}
          sideOffset={8}
          collisionPadding={8}
          className="z-40 flex max-h-[80dvh] w-66 flex-col gap-3 overflow-auto rounded-2xl bg-board forced-colors:border-2 p-3 text-paper shadow-xl"
        >
          {colour !== null && desk.penCase.fixedColour === undefined && (
            <ColourChoice
              colour={colour}
              picking={desk.picking}
              onChange={(value) => selection.recolour(value)}
            />
          )}
          {'line' in style && takesFilling(first) && (
            <LineOrFilling
              style={style}
              suggestion={desk.penCase.get().fillColour}
              picking={desk.picking}
              fixed={desk.penCase.fixedColour !== undefined}
              onChange={(part) => selection.restyle({ ...part })}
            />
          )}
          {'width' in style && (
            <Slider
              label={t('common.width')}
              value={style.width}
              min={1}
              max={40}
              step={0.5}
              onChange={(width) => selection.restyle({ width })}
            />
          )}
          {'opacity' in style && (
            <Slider
              label={t('common.opacity')}
              value={Math.round(style.opacity * 100)}
              min={5}
              max={100}
              step={5}
              unit=" %"
              onChange={(part) => selection.restyle({ opacity: part / 100 })}
            />
          )}
          {first.kind === 'picture' && (
            <CropSheet picture={first} onCrop={(set) => selection.patchOne(first.id, set)} />
          )}
          {first.kind === 'text' && (
            <TextSheet style={first.style} onChange={(part) => selection.restyle({ ...part })} />
          )}
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}

interface CropSheetProps {
  picture: MarkOf<'picture'>;
  onCrop(set: MarkPatch): void;
}

/** How much of a picture is left off at each side. */
function CropSheet({ picture, onCrop }: CropSheetProps) {
  const off = croppedSides(picture);
  const set = (side: keyof Sides, percent: number) =>
    onCrop(cropBy(picture, { [side]: percent / 100 - off[side] }));
  return (
    <fieldset>
      <legend className="font-bold">{t('selection.crop')}</legend>
      {(['left', 'top', 'right', 'bottom'] as const).map((side) => (
        <Slider
          key={side}
          label={
            {
              left: t('common.left'),
              top: t('selection.top'),
              right: t('common.right'),
              bottom: t('selection.bottom'),
            }[side]
          }
          value={Math.round(off[side] * 100)}
          min={0}
          max={90}
          step={1}
          unit=" %"
          onChange={(percent) => set(side, percent)}
        />
      ))}
    </fieldset>
  );
}

const SHEETS = { chart: 'charts.change', figure: 'figures.change', plot: 'plots.forThis' } as const;

/** In which sheet a drawing by a recipe is changed. */
function sheetOf(plot: MarkOf<'plot'>): keyof typeof SHEETS {
  if (plot.recipe.startsWith('{"figure":')) return 'figure';
  return isChart(plot) ? 'chart' : 'plot';
}
