import type { Path } from '../../geometry/path.js';
import type { Rect } from '../../geometry/rect.js';
import { growRect, unionRect } from '../../geometry/rect.js';
import type { Face } from '../../text/font.js';
import { OVERHANG, textWidth } from '../../text/layout.js';
import type { StampMark, StampName } from './stampMark.js';

/** One part of a stamp on a square of 24 by 24: a filled outline or a line of some width. */
export type StampPart =
  { path: Path; fill: 'colour' | 'light' } | { path: Path; line: 'colour' | 'light'; width: number };

export const STAMP_SQUARE = 24;

/** A circle in four cubic arcs. */
function circle(cx: number, cy: number, r: number): Path {
  const k = r * 0.5522847498;
  return [
    ['M', cx, cy - r],
    ['C', cx + k, cy - r, cx + r, cy - k, cx + r, cy],
    ['C', cx + r, cy + k, cx + k, cy + r, cx, cy + r],
    ['C', cx - k, cy + r, cx - r, cy + k, cx - r, cy],
    ['C', cx - r, cy - k, cx - k, cy - r, cx, cy - r],
    ['Z'],
  ];
}

const STAR: Path = Array.from({ length: 10 }, (_, i) => {
  const angle = (i / 10) * 2 * Math.PI;
  const radius = i % 2 ? 4.6 : 11;
  return [i === 0 ? 'M' : 'L', 12 + radius * Math.sin(angle), 12.6 - radius * Math.cos(angle)] as const;
});

/** How each stamp is drawn; a number's figures are text on its disc. */
export const STAMP_PARTS: Record<StampName, readonly StampPart[]> = {
  tick: [
    {
      path: [
        ['M', 3, 13],
        ['L', 9.5, 20],
        ['L', 21, 4],
      ],
      line: 'colour',
      width: 4,
    },
  ],
  cross: [
    {
      path: [
        ['M', 4, 4],
        ['L', 20, 20],
      ],
      line: 'colour',
      width: 4,
    },
    {
      path: [
        ['M', 20, 4],
        ['L', 4, 20],
      ],
      line: 'colour',
      width: 4,
    },
  ],
  question: [
    {
      path: [
        ['M', 7, 8],
        ['C', 7, 1.5, 17, 1.5, 17, 8],
        ['C', 17, 12, 12, 11.5, 12, 15.5],
      ],
      line: 'colour',
      width: 3.4,
    },
    { path: circle(12, 20.5, 2.1), fill: 'colour' },
  ],
  star: [{ path: [...STAR, ['Z']], fill: 'colour' }],
  heart: [
    {
      path: [['M', 12, 21.5], ['C', -4, 11, 3, -1, 12, 6.5], ['C', 21, -1, 28, 11, 12, 21.5], ['Z']],
      fill: 'colour',
    },
  ],
  smile: [
    { path: circle(12, 12, 11), fill: 'colour' },
    { path: circle(8.2, 9, 1.7), fill: 'light' },
    { path: circle(15.8, 9, 1.7), fill: 'light' },
    {
      path: [
        ['M', 6.5, 14],
        ['C', 8.5, 19, 15.5, 19, 17.5, 14],
      ],
      line: 'light',
      width: 1.9,
    },
  ],
  arrow: [
    {
      path: [
        ['M', 1.5, 9],
        ['L', 12, 9],
        ['L', 12, 3],
        ['L', 22.5, 12],
        ['L', 12, 21],
        ['L', 12, 15],
        ['L', 1.5, 15],
        ['Z'],
      ],
      fill: 'colour',
    },
  ],
  number: [{ path: circle(12, 12, 11), fill: 'colour' }],
};

/** The face of a counting stamp's figures. */
export const STAMP_FACE: Face = 'andika-bold';

/** Size and width of a counting stamp's figures, page units. */
export function stampFigures({ label, height }: Pick<StampMark, 'label' | 'height'>): {
  size: number;
  width: number;
} {
  const size = height * (label.length > 1 ? 0.5 : 0.62);
  return { size, width: textWidth(label, STAMP_FACE, size) };
}

/** The rectangle that holds all of an unturned stamp, which is more than its box where that is flat or narrow. */
export function stampReach(mark: StampMark): Rect {
  const widths = STAMP_PARTS[mark.stamp].map((part) => ('width' in part ? part.width : 0));
  const box = growRect(mark, (Math.max(...widths) * mark.width) / (2 * STAMP_SQUARE));
  if (mark.stamp !== 'number') return box;
  const figures = stampFigures(mark);
  const [x, width] = [mark.x + (mark.width - figures.width) / 2, figures.width];
  return unionRect(box, growRect({ x, y: mark.y, width, height: mark.height }, OVERHANG * figures.size));
}
