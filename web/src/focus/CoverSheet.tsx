import type { Cover } from '@doodla/core';
import { ChevronDown, ChevronLeft, ChevronRight, ChevronUp } from 'lucide-react';
import type { Stage } from '../stage/stage';
import type { PageDesk } from '../room/pageDesk';
import { Grip } from '../ui/Grip';
import { onGlass, useBoxDrag } from './useBoxDrag';
import { t } from '../words';

interface CoverSheetProps {
  focus: Cover;
  stage: Stage;
  desk: PageDesk;
  leads: boolean;
}

/** Least that is left of a sheet, page units. */
const LEAST = 2;

/** Draws one side of a sheet inwards or outwards; outwards as far as the page goes. */
function drawn(side: 'left' | 'top' | 'right' | 'bottom', desk: PageDesk) {
  return (sheet: Cover, dx: number, dy: number): Cover => {
    const page = desk.page ? desk.extentOf(desk.page) : sheet;
    const [right, bottom] = [sheet.x + sheet.width, sheet.y + sheet.height];
    const between = (value: number, low: number, high: number) => Math.min(high, Math.max(low, value));
    switch (side) {
      case 'left': {
        const x = between(sheet.x + dx, page.x, right - LEAST);
        return { ...sheet, x, width: right - x };
      }
      case 'right': {
        const edge = between(right + dx, sheet.x + LEAST, page.x + page.width);
        return { ...sheet, width: edge - sheet.x };
      }
      case 'top': {
        const y = between(sheet.y + dy, page.y, bottom - LEAST);
        return { ...sheet, y, height: bottom - y };
      }
      case 'bottom': {
        const edge = between(bottom + dy, sheet.y + LEAST, page.y + page.height);
        return { ...sheet, height: edge - sheet.y };
      }
    }
  };
}

/** A sheet over the page, drawn back from any of its sides. */
export function CoverSheet({ focus, stage, desk, leads }: CoverSheetProps) {
  const box = onGlass(focus, stage);
  const sides = {
    left: useBoxDrag(focus, desk, stage, drawn('left', desk)),
    top: useBoxDrag(focus, desk, stage, drawn('top', desk)),
    right: useBoxDrag(focus, desk, stage, drawn('right', desk)),
    bottom: useBoxDrag(focus, desk, stage, drawn('bottom', desk)),
  };
  const [middle, centre] = [box.left + box.width / 2, box.top + box.height / 2];
  return (
    <>
      <div
        data-testid="cover"
        className="pointer-events-auto absolute touch-none rounded-sm shadow-xl"
        style={{
          ...box,
          background: 'repeating-linear-gradient(135deg, #23483b 0 26px, #264e40 26px 52px)',
        }}
      />
      {leads && (
        <>
          <Grip
            label={t('focus.drawBackFromTheLeft')}
            left={box.left}
            top={centre}
            icon={<ChevronRight aria-hidden />}
            handlers={sides.left}
          />
          <Grip
            label={t('focus.drawBackFromTheTop')}
            left={middle}
            top={box.top}
            icon={<ChevronDown aria-hidden />}
            handlers={sides.top}
          />
          <Grip
            label={t('focus.drawBackFromTheRight')}
            left={box.left + box.width}
            top={centre}
            icon={<ChevronLeft aria-hidden />}
            handlers={sides.right}
          />
          <Grip
            label={t('focus.drawBackFromTheBottom')}
            left={middle}
            top={box.top + box.height}
            icon={<ChevronUp aria-hidden />}
            handlers={sides.bottom}
          />
        </>
      )}
    </>
  );
}
