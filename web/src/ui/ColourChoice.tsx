import { isHexColour, PALETTE } from '@doodla/core';
import { Pipette } from 'lucide-react';
import { useState } from 'react';
import { HexColorInput, HexColorPicker } from 'react-colorful';
import { toast } from 'sonner';
import type { Store } from '@doodla/core/client';
import { Button } from './Button';
import { classes } from './classes';
import { t } from '../words';

/** Waits for a colour to be picked from the page. */
export type Picking = Store<((hex: string, at: { x: number; y: number }) => void) | undefined>;

interface ColourChoiceProps {
  label?: string;
  colour: string;
  onChange(colour: string): void;
  /** Where a colour can be picked from; without it none is picked from the page. */
  picking?: Picking;
}

/** The safe palette, and any other colour by wheel or hex. */
export function ColourChoice({ label = t('ui.colour'), colour, onChange, picking }: ColourChoiceProps) {
  const [free, setFree] = useState(!PALETTE.some(({ hex }) => hex === colour));
  const set = (value: string) => {
    const hex = value.toLowerCase();
    if (isHexColour(hex)) onChange(hex);
  };
  return (
    <div>
      {label !== t('ui.colour') && <p className="mb-1 text-sm">{label}</p>}
      <div role="radiogroup" aria-label={label} className="grid grid-cols-5 gap-1">
        {PALETTE.map(({ name, hex }) => (
          <button
            key={hex}
            type="button"
            role="radio"
            aria-checked={hex === colour}
            aria-label={t(`colours.${name}`)}
            title={t(`colours.${name}`)}
            onClick={() => onChange(hex)}
            className={classes(
              'size-11 rounded-full border-2',
              hex === colour ? 'border-chalk ring-3 ring-chalk' : 'border-paper',
            )}
            style={{ background: hex }}
          />
        ))}
        <button
          type="button"
          aria-expanded={free}
          aria-label={t('ui.anyOtherColour')}
          title={t('ui.anyOtherColour')}
          onClick={() => setFree(!free)}
          className="size-11 rounded-full border-2 border-paper text-xl"
          style={{ background: 'conic-gradient(#d55e00, #f0e442, #009e73, #0072b2, #cc79a7, #d55e00)' }}
        >
          <span className="sr-only">{t('ui.anyOtherColour')}</span>
        </button>
      </div>
      {free && picking && (
        <Button
          look="onBoard"
          className="mt-3 w-full"
          icon={<Pipette aria-hidden size={18} />}
          onClick={() => pickFromScreen(set, picking)}
        >
          {t('ui.pickFromThePage')}
        </Button>
      )}
      {free && (
        <div className="mt-3 flex flex-col gap-2">
          <HexColorPicker color={colour} onChange={set} style={{ width: '100%', height: 150 }} />
          <HexColorInput
            aria-label={t('ui.colourAsHex')}
            color={colour}
            onChange={set}
            prefixed
            className="min-h-11 rounded-xl border-2 border-board-line bg-board-light px-3 uppercase"
          />
        </div>
      )}
    </div>
  );
}

/** The browser's own way to take a colour from anything on screen, where it has one. */
interface EyeDropper {
  open(): Promise<{ sRGBHex: string }>;
}

/** Takes a colour from anything on screen where the browser can, else by a tap on the page. */
function pickFromScreen(onPicked: (colour: string) => void, picking: Picking): void {
  const { EyeDropper: Dropper } = window as unknown as { EyeDropper?: new () => EyeDropper };
  if (!Dropper) {
    picking.set(onPicked);
    toast(t('ui.tapTheColourOnThe'), { id: 'picking' });
    return;
  }
  new Dropper().open().then(
    (picked) => onPicked(picked.sRGBHex),
    // Rejected where the teacher changes their mind.
    () => undefined,
  );
}
