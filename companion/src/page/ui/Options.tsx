import type { InkStyle } from '@doodla/core';
import { PALETTE, STAMPS } from '@doodla/core';
import { useStore } from '@web/store/useStore';
import EraserSheet from '@web/tools/eraser/Sheet';
import FillSheet from '@web/tools/fill/Sheet';
import LineSheet from '@web/tools/line/Sheet';
import ShapeSheet from '@web/tools/shape/Sheet';
import { Choice } from '@web/ui/Choice';
import { classes } from '@web/ui/classes';
import { PercentSlider } from '@web/ui/PercentSlider';
import { Slider } from '@web/ui/Slider';
import { Switch } from '@web/ui/Switch';
import { t } from '@web/words';
import { STAMP_NAMES } from '@web/words/marks';
import { StampIcon } from '@web/tools/stamp/StampIcon';
import type { PenStyle } from '@web/tools/pen/facts';
import { Pipette } from 'lucide-react';
import { say } from '../../words';
import type { TabDesk } from '../tabDesk';

/** Everything that can be chosen for the tool in hand. */
export function Options({ desk }: { desk: TabDesk }) {
  const { tool } = useStore(desk.penCase);
  return (
    <>
      <Colours desk={desk} />
      {(tool === 'pen' || tool === 'wisp') && <PenOptions desk={desk} />}
      {tool === 'highlighter' && <HighlighterOptions desk={desk} />}
      {tool === 'eraser' && <EraserSheet desk={desk} />}
      {tool === 'shape' && <ShapeSheet desk={desk} />}
      {tool === 'line' && <LineSheet desk={desk} />}
      {tool === 'stamp' && <StampOptions desk={desk} />}
      {tool === 'text' && <TextOptions desk={desk} />}
      {tool === 'fill' && <FillSheet desk={desk} />}
    </>
  );
}

function Colours({ desk }: { desk: TabDesk }) {
  useStore(desk.penCase);
  const isPicking = useStore(desk.picking) !== undefined;
  const { colour } = desk.penCase;
  if (colour === undefined) return null;
  const isOther = !PALETTE.some(({ hex }) => hex === colour);
  return (
    <div>
      <div role="radiogroup" aria-label={t('ui.colour')} className="grid grid-cols-5 gap-1">
        {PALETTE.map(({ name, hex }) => (
          <button
            key={hex}
            type="button"
            role="radio"
            aria-checked={hex === colour}
            aria-label={t(`colours.${name}`)}
            title={t(`colours.${name}`)}
            onClick={() => desk.penCase.setColour(hex)}
            className={classes(
              'size-11 rounded-full border-2',
              hex === colour ? 'border-chalk ring-3 ring-chalk' : 'border-paper',
            )}
            style={{ background: hex }}
          />
        ))}
      </div>
      <div className="mt-2 flex items-center gap-2">
        <button
          type="button"
          aria-pressed={isPicking}
          onClick={() => desk.picking.set(isPicking ? undefined : (hex) => desk.penCase.setColour(hex))}
          className={classes(
            'flex min-h-11 grow items-center gap-2 rounded-xl px-3 text-start text-sm',
            isPicking ? 'bg-chalk font-bold text-board' : 'bg-board-light hover:bg-board-hover',
          )}
        >
          <Pipette aria-hidden size={18} />
          {isPicking ? say('pickColour') : say('fromPage')}
        </button>
        {isOther && (
          <span
            role="img"
            aria-label={colour}
            className="size-11 shrink-0 rounded-full border-2 border-chalk ring-3 ring-chalk"
            style={{ background: colour }}
          />
        )}
      </div>
    </div>
  );
}

function PenOptions({ desk: { penCase } }: { desk: TabDesk }) {
  const { pen, steadying } = useStore(penCase);
  const set = (part: Partial<PenStyle>) => penCase.patch({ pen: { ...pen, ...part } });
  const natures = ['pen', 'pencil', 'marker', 'chalk'] as const;
  return (
    <>
      <Choice
        label={t('tools.kindOfPen')}
        value={pen.nature}
        columns={2}
        options={natures.map((value) => ({ value, name: t(`tools.${value}`) }))}
        onChange={(nature) => set({ nature })}
      />
      <InkSliders ink={pen} least={1} most={40} onChange={set} />
      <Slider
        label={t('tools.smoothShakyLines')}
        value={Math.round(steadying * 100)}
        min={0}
        max={90}
        step={5}
        unit=" %"
        onChange={(value) => penCase.patch({ steadying: value / 100 })}
      />
      <p className="text-sm">{t('shapes.restHint')}</p>
    </>
  );
}

function HighlighterOptions({ desk: { penCase } }: { desk: TabDesk }) {
  const { highlighter, markWords, wordsLook } = useStore(penCase);
  const set = (part: Partial<InkStyle>) => penCase.patch({ highlighter: { ...highlighter, ...part } });
  return (
    <>
      <InkSliders ink={highlighter} least={6} most={80} onChange={set} />
      <Switch
        label={t('tools.markWholeWordsWhereThere')}
        checked={markWords}
        onChange={(value) => penCase.patch({ markWords: value })}
      />
      {markWords && (
        <Choice
          label={t('tools.howMarkedWordsLook')}
          value={wordsLook}
          columns={2}
          options={[
            { value: 'highlight', name: t('tools.highlighted') },
            { value: 'underline', name: t('tools.underlined') },
          ]}
          onChange={(value) => penCase.patch({ wordsLook: value })}
        />
      )}
    </>
  );
}

function InkSliders({
  ink,
  least,
  most,
  onChange,
}: {
  ink: InkStyle;
  least: number;
  most: number;
  onChange(part: Pick<InkStyle, 'width'> | Pick<InkStyle, 'opacity'>): void;
}) {
  return (
    <>
      <Slider
        label={t('common.width')}
        value={ink.width}
        min={least}
        max={most}
        step={0.5}
        onChange={(width) => onChange({ width })}
      />
      <PercentSlider
        label={t('common.opacity')}
        value={ink.opacity}
        onChange={(opacity) => onChange({ opacity })}
      />
    </>
  );
}

function StampOptions({ desk: { penCase } }: { desk: TabDesk }) {
  const { stamp } = useStore(penCase);
  return (
    <Choice
      label={t('tools.stamp')}
      value={stamp}
      options={STAMPS.map((value) => ({
        value,
        name: STAMP_NAMES[value],
        face: <StampIcon stamp={value} />,
      }))}
      onChange={(value) => penCase.patch({ stamp: value, ownStamp: null })}
    />
  );
}

function TextOptions({ desk: { penCase } }: { desk: TabDesk }) {
  const { text } = useStore(penCase);
  return (
    <Slider
      label={t('common.size')}
      value={text.size}
      min={8}
      max={120}
      step={1}
      onChange={(size) => penCase.patch({ text: { ...text, size } })}
    />
  );
}
