import type { Matrix } from '../../geometry/matrix.js';
import { mapPath } from '../../geometry/path.js';
import { boxMatrix } from '../../geometry/turnedBox.js';
import type { PaintItem } from '../../paint/items.js';
import { mapped, onGround, solid } from '../../paint/items.js';
import { boxTarget, turnedReach } from '../boxParts.js';
import type { BoxKind } from '../kind.js';
import { transformBox } from '../transform.js';
import { STAMP_FACE, STAMP_PARTS, STAMP_SQUARE, stampFigures, stampReach } from './stampGeometry.js';
import type { StampMark } from './stampMark.js';
import { STAMP_FIELDS, STAMP_STYLE } from './stampMark.js';

const box = ({ x, y, width, height, rotation, flip }: StampMark) => ({ x, y, width, height, rotation, flip });

export const stamp: BoxKind<StampMark> = {
  fields: STAMP_FIELDS,
  style: STAMP_STYLE,
  name: () => 'stamp',
  content: (mark) => (mark.stamp === 'number' ? mark.label : mark.stamp),
  bounds: (mark) => turnedReach(mark, stampReach(mark)),
  target: boxTarget,
  transform: (mark, transform) => transformBox(box(mark), transform),
  paint: (mark) => (mark.stamp === 'number' ? [...paintParts(mark), paintFigures(mark)] : paintParts(mark)),
  area: () => [],
  hides: () => false,
  needs: 'everything',
  exported: true,
  box,
};

function paintParts(mark: StampMark): PaintItem[] {
  const { x, y, width, height, style } = mark;
  const scale: Matrix = [width / STAMP_SQUARE, 0, 0, height / STAMP_SQUARE, x, y];
  const matrix = boxMatrix(mark);
  const colourOf = (part: 'light' | 'colour') => (part === 'light' ? onGround(style.colour) : style.colour);
  return STAMP_PARTS[mark.stamp].map((part): PaintItem => {
    const path = mapped(mapPath(part.path, scale), matrix);
    if ('fill' in part) return solid(path, colourOf(part.fill));
    const lineWidth = (part.width * width) / STAMP_SQUARE;
    return { kind: 'line', path, colour: colourOf(part.line), width: lineWidth, dash: [], opacity: 1 };
  });
}

function paintFigures(mark: StampMark): PaintItem {
  const { size, width } = stampFigures(mark);
  return {
    kind: 'text',
    x: mark.x + (mark.width - width) / 2,
    y: mark.y + mark.height / 2 + size * 0.36,
    text: mark.label,
    width,
    face: STAMP_FACE,
    size,
    colour: onGround(mark.style.colour),
    fallback: false,
    matrix: boxMatrix(mark),
  };
}
