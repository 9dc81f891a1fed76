import { CARD, pixelsPerMm, USUAL_PIXELS_PER_MM } from '@doodla/core/instruments';
import { useState } from 'react';
import type { Stage } from '../stage/stage';
import { Button } from '../ui/Button';
import { Modal } from '../ui/Modal';
import { t } from '../words';
import { keepPixels, knownPixels, showTrueSize } from './trueSize';

/** A display shows a card at least and at most so wide, CSS pixels. */
const LIMITS = { least: 140, most: 900 };

/** A card's outline is made as large as a card, so that a ruler on this display is as long as one of wood. */
export default function TrueSizeDialog({ stage, onClose }: { stage: Stage; onClose(): void }) {
  const [width, setWidth] = useState(() => Math.round((knownPixels() ?? USUAL_PIXELS_PER_MM) * CARD.width));
  const scale = pixelsPerMm(width);
  return (
    <Modal
      wide
      open
      title={t('instruments.fitTitle')}
      description={t('instruments.fitHow')}
      onOpenChange={onClose}
    >
      <div className="overflow-auto pb-4">
        <div
          data-testid="card"
          className="border-2 border-dashed border-board bg-paper-dim"
          style={{
            boxSizing: 'border-box',
            width: CARD.width * scale,
            height: CARD.height * scale,
            borderRadius: CARD.corner * scale,
          }}
        />
      </div>
      <label className="block font-bold">
        {t('instruments.cardWidth')}
        <input
          type="range"
          min={LIMITS.least}
          max={LIMITS.most}
          step={1}
          value={width}
          onChange={(event) => setWidth(event.target.valueAsNumber)}
          className="block h-11 w-full accent-board"
        />
      </label>
      <Button
        look="main"
        onClick={() => {
          keepPixels(scale);
          showTrueSize(stage);
          onClose();
        }}
      >
        {t('instruments.fits')}
      </Button>
    </Modal>
  );
}
