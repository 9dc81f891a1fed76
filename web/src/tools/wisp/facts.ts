import type { PenStyle } from '../pen/facts';
import { pen } from '../pen/facts';
import type { Tool } from '../tool';
import { t } from '../../words';

export interface WispKept {
  /** It writes with the pen. */
  pen: PenStyle;
  /** Seconds after which a wisp has faded. */
  wispSeconds: number;
}

export const wisp: Tool<WispKept> = {
  name: t('tools.wisp'),
  does: t('tools.inkThatFades'),
  key: 'I',
  group: 'Point',
  needs: 'pointing',
  kept: { pen: pen.kept.pen, wispSeconds: 3 },
  colour: {
    of: (kept) => kept.pen.colour,
    with: (kept, colour) => ({ pen: { ...kept.pen, colour } }),
  },
};
