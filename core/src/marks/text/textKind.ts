import type { TurnedBox } from '../../geometry/turnedBox.js';
import { boxMatrix } from '../../geometry/turnedBox.js';
import { mapped, paintLayout, rectanglePath, solid } from '../../paint/items.js';
import { boxTarget, turnedReach } from '../boxParts.js';
import { CONTRAST, contrastLack } from '../contrastLack.js';
import type { BoxKind } from '../kind.js';
import { boxFactors, roundWithin, transformBox } from '../transform.js';
import { textHeight, textLayout, textReach } from './textLayout.js';
import type { TextMark } from './textMark.js';
import { TEXT_FIELDS, TEXT_OPTIONAL, TEXT_SIZE, TEXT_STYLE } from './textMark.js';

/** Text below this is too small to be read from the back of a room; page units. */
const SMALL_TEXT = 14;

function textBox(mark: TextMark, height = textHeight(mark)): TurnedBox {
  const { x, y, width, rotation } = mark;
  return { x, y, width, height, rotation };
}

export const text: BoxKind<TextMark> = {
  fields: TEXT_FIELDS,
  optional: TEXT_OPTIONAL,
  style: TEXT_STYLE,
  name: () => 'text',
  content: (mark) => mark.text,
  problems({ style: { size, colour, background } }, paper) {
    const least = size >= CONTRAST.largeFrom ? CONTRAST.large : CONTRAST.normal;
    const problems = contrastLack(colour, background ?? paper, least);
    if (size < SMALL_TEXT) problems.push({ what: 'small' });
    return problems;
  },
  bounds(mark) {
    const layout = textLayout(mark);
    return turnedReach(textBox(mark, layout.height), textReach(mark, layout));
  },
  target: (mark) => boxTarget(textBox(mark)),
  transform(mark, transform) {
    const patch = transformBox(textBox(mark), transform);
    delete patch.height;
    const down = boxFactors(mark.rotation, transform)[1];
    return down === 1 ? patch : { ...patch, style: { size: roundWithin(mark.style.size * down, TEXT_SIZE) } };
  },
  paint(mark) {
    const { background, colour } = mark.style;
    const layout = textLayout(mark);
    const box = textBox(mark, layout.height);
    const matrix = boxMatrix(box);
    const words = paintLayout(layout, mark.x, mark.y, colour, matrix);
    if (background === null) return words;
    return [solid(mapped(rectanglePath(box), matrix), background), ...words];
  },
  area: () => [],
  hides: () => false,
  needs: 'words',
  exported: true,
  box: (mark) => textBox(mark),
};
