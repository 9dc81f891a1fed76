import { line, registerRulings } from '../pages/ruling.js';
import { axes } from './axes.js';
import { isometric } from './isometric.js';
import { numberLine } from './numberLine.js';
import { polar } from './polar.js';
import { handwriting, music } from './rows.js';

export { USUAL_LINE } from './numberLine.js';

registerRulings([
  ['handwriting', handwriting],
  ['music', music],
  ['isometric', (plane) => [line(isometric(plane), plane.faint)]],
  ['axes', axes],
  ['polar', polar],
  ['numberLine', numberLine],
]);
