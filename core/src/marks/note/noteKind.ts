import { unionRect } from '../../geometry/rect.js';
import { boxCorners, boxMatrix } from '../../geometry/turnedBox.js';
import { mapped, onGround, paintLayout, rectanglePath, solid } from '../../paint/items.js';
import { boxTarget, turnedReach } from '../boxParts.js';
import type { BoxKind } from '../kind.js';
import { transformBox } from '../transform.js';
import { noteLayout, noteReach } from './noteLayout.js';
import type { NoteMark } from './noteMark.js';
import { NOTE_FIELDS, NOTE_STYLE } from './noteMark.js';

const box = ({ x, y, width, height, rotation }: NoteMark) => ({ x, y, width, height, rotation });

export const note: BoxKind<NoteMark> = {
  fields: NOTE_FIELDS,
  style: NOTE_STYLE,
  name: () => 'note',
  content: ({ text }) => text,
  bounds: (mark) => turnedReach(mark, unionRect(mark, noteReach(mark))),
  target: boxTarget,
  transform: (mark, transform) => transformBox(box(mark), transform),
  paint(mark) {
    const matrix = boxMatrix(mark);
    const paper = solid(mapped(rectanglePath(mark), matrix), mark.style.colour);
    const { layout, x, y } = noteLayout(mark);
    return [paper, ...paintLayout(layout, x, y, onGround(mark.style.colour), matrix)];
  },
  area: (mark) => [boxCorners(mark)],
  hides: () => true,
  needs: 'words',
  exported: true,
  box,
};
