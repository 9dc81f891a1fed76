import type { Rect } from '../geometry/rect.js';
import type { UnplacedMark } from './sketch.js';
import { Sketch } from './sketch.js';

export const TEMPLATES = [
  'ideas',
  'knowWantLearned',
  'twoCircles',
  'twoColumns',
  'weekPlan',
  'mindMap',
  'storyBoard',
  'lookingBack',
  'steps',
  'comparison',
  'coordinates',
] as const;
export type TemplateId = (typeof TEMPLATES)[number];

/** The words that templates have, in the language of whoever places them. */
export interface TemplateWords {
  topic: string;
  ideas: string;
  know: string;
  want: string;
  learned: string;
  one: string;
  both: string;
  other: string;
  forIt: string;
  againstIt: string;
  /** Monday to Friday. */
  days: readonly string[];
  wentWell: string;
  wasHard: string;
  surprised: string;
  nextTime: string;
  compared: string;
}

/** Part of a page that is left free all round. */
const MARGIN = 0.06;

/** The marks of a template, on a page of a size, lowest first. */
export function templateOn(
  id: TemplateId,
  { x, y, width, height }: Rect,
  words: TemplateWords,
): UnplacedMark[] {
  const margin = Math.min(width, height) * MARGIN;
  const sketch = new Sketch({
    x: x + margin,
    y: y + margin,
    width: width - 2 * margin,
    height: height - 2 * margin,
  });
  DRAWN[id](sketch, words);
  return sketch.marks;
}

const DRAWN: Record<TemplateId, (sketch: Sketch, words: TemplateWords) => void> = {
  ideas(sketch, { ideas }) {
    const { area, line, size } = sketch;
    sketch.text(ideas, area, { bold: true, scale: 1.4 });
    for (const cell of sketch.cells(sketch.below(area, 2 * line), 3, 2, size)) sketch.shape('rounded', cell);
  },
  knowWantLearned(sketch, { know, want, learned }) {
    table(sketch, [know, want, learned], 1);
  },
  twoCircles(sketch, { one, both, other }) {
    const { area, line } = sketch;
    const { x, width, height } = area;
    const free = sketch.below(area, 1.5 * line);
    const w = Math.min(width * 0.62, (height - 1.5 * line) * 1.3);
    const h = Math.min(free.height, w);
    const y = free.y + (free.height - h) / 2;
    const [left, right] = [x + width / 2 - w * 0.8, x + width / 2 - w * 0.2];
    sketch.shape('ellipse', { x: left, y, width: w, height: h });
    sketch.shape('ellipse', { x: right, y, width: w, height: h });
    const top = y - 1.5 * line;
    sketch.text(one, { x: left, y: top, width: w * 0.55 }, { bold: true });
    sketch.text(both, { x: x + width / 2 - w * 0.2, y: top, width: w * 0.4 }, { bold: true });
    sketch.text(other, { x: left + w * 1.05, y: top, width: w * 0.55 }, { bold: true });
  },
  twoColumns(sketch, { forIt, againstIt }) {
    const { area, line } = sketch;
    const { x, y, width, height } = area;
    const [left, right] = sketch.cells(area, 2, 1);
    sketch.text(forIt, left!, { bold: true, scale: 1.2 });
    sketch.text(againstIt, right!, { bold: true, scale: 1.2 });
    sketch.path([x, y + 1.6 * line, x + width, y + 1.6 * line]);
    sketch.path([x + width / 2, y, x + width / 2, y + height]);
  },
  weekPlan(sketch, { days }) {
    table(sketch, days, 3);
  },
  mindMap(sketch, { topic }) {
    const { area, line } = sketch;
    const { x, y, width, height } = area;
    const middle = { x: x + width / 2, y: y + height / 2 };
    const [w, h] = [width * 0.26, height * 0.2];
    for (const column of [0, 1])
      for (const row of [0, 1, 2]) {
        const cell = {
          x: x + column * (width - w),
          y: y + (row * (height - h)) / 2,
          width: w,
          height: h,
        };
        const [end, side] = [column === 0 ? cell.x + w : cell.x, column === 0 ? -1 : 1];
        sketch.path([middle.x + side * w * 0.45, middle.y + (row - 1) * h * 0.3, end, cell.y + h / 2]);
        sketch.shape('rounded', cell);
      }
    sketch.shape('ellipse', { x: middle.x - w / 2, y: middle.y - h * 0.6, width: w, height: h * 1.2 });
    sketch.text(topic, { x: middle.x - w / 2, y: middle.y - line / 2, width: w }, { bold: true });
  },
  storyBoard(sketch) {
    const { area, line, size } = sketch;
    for (const { x, y, width, height } of sketch.cells(area, 3, 2, size * 1.5)) {
      const frame = height - 2.5 * line;
      sketch.shape('rectangle', { x, y, width, height: frame });
      for (const i of [1, 2]) {
        const below = y + frame + i * 1.2 * line;
        sketch.path([x, below, x + width, below], { pale: true });
      }
    }
  },
  lookingBack(sketch, { wentWell, wasHard, surprised, nextTime }) {
    const { area, size } = sketch;
    const titles = [wentWell, wasHard, surprised, nextTime];
    for (const [i, cell] of sketch.cells(area, 2, 2, size).entries()) {
      sketch.shape('rounded', cell);
      const inside = { x: cell.x + size, y: cell.y + size / 2, width: cell.width - 2 * size };
      sketch.text(titles[i]!, inside, { bold: true, align: 'left' });
    }
  },
  steps(sketch) {
    const { area, line, size } = sketch;
    const rows = sketch.cells(area, 1, 5, size * 1.2);
    for (const [i, { x, y, width, height }] of rows.entries()) {
      const round = Math.min(height, 3 * line);
      const top = y + (height - round) / 2;
      sketch.shape('ellipse', { x, y: top, width: round, height: round });
      sketch.text(`${i + 1}`, { x, y: y + (height - line) / 2, width: round }, { bold: true });
      sketch.shape('rounded', { x: x + round + size, y, width: width - round - size, height });
      const next = rows[i + 1];
      const nextTop = next && next.y + (next.height - round) / 2;
      if (nextTop !== undefined)
        sketch.path([x + round / 2, top + round, x + round / 2, nextTop], { arrow: true });
    }
  },
  comparison(sketch, { compared, one, other }) {
    table(sketch, [compared, one, other], 4);
  },
  coordinates(sketch) {
    const { area, size, line } = sketch;
    const step = Math.min(area.width / 12, area.height / 12);
    const middle = { x: area.x + area.width / 2, y: area.y + area.height / 2 };
    for (let n = -5; n <= 5; n++) {
      if (n === 0) continue;
      sketch.path([middle.x + n * step, middle.y - 5 * step, middle.x + n * step, middle.y + 5 * step], {
        pale: true,
      });
      sketch.path([middle.x - 5 * step, middle.y - n * step, middle.x + 5 * step, middle.y - n * step], {
        pale: true,
      });
    }
    sketch.path([middle.x - 5.6 * step, middle.y, middle.x + 5.8 * step, middle.y], { arrow: true });
    sketch.path([middle.x, middle.y + 5.6 * step, middle.x, middle.y - 5.8 * step], { arrow: true });
    for (let n = -5; n <= 5; n++) {
      if (n === 0) continue;
      const name = `${n}`.replace('-', '−');
      sketch.text(
        name,
        { x: middle.x + n * step - step / 2, y: middle.y + size * 0.15, width: step },
        { scale: 0.75 },
      );
      const beside = {
        x: middle.x - 1.65 * step,
        y: middle.y - n * step - (line * 0.75) / 2,
        width: 1.5 * step,
      };
      sketch.text(name, beside, { align: 'right', scale: 0.75 });
    }
  },
};

/** Columns with titles, and rows to write in. */
function table(sketch: Sketch, titles: readonly string[], rows: number): void {
  const { area, line } = sketch;
  const { x, y, width, height } = area;
  const head = 2 * line;
  sketch.shape('rectangle', area);
  for (const [i, cell] of sketch.cells(area, titles.length, 1).entries()) {
    sketch.text(titles[i]!, { x: cell.x, y: y + (head - line) / 2, width: cell.width }, { bold: true });
    if (i > 0) sketch.path([cell.x, y, cell.x, y + height]);
  }
  for (const cell of sketch.cells(sketch.below(area, head), 1, rows))
    sketch.path([x, cell.y, x + width, cell.y]);
}
