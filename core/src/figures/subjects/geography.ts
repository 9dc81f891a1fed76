import { choice, figure, FigureError, number, words } from '../figure.js';
import { BLUE, INK, WARM } from '../pen.js';

const scaleBar = figure({
  subject: 'geography',
  width: 360,
  height: 70,
  fields: { length: number(1, 10_000, 100), unit: choice(['km', 'm', 'mi']), parts: number(1, 10, 4) },
  draw(pen, { length, unit, parts }) {
    for (let i = 0; i < parts; i++) {
      const width = 310 / parts;
      pen.rect(20 + i * width, 36, width, 14, { fill: i % 2 === 0 ? INK : '#ffffff', width: 1.8 });
    }
    const said = (part: number) => String(Number(((length * part) / parts).toPrecision(4)));
    for (let i = 0; i <= parts; i++)
      if (parts < 6 || i % 2 === 0 || i === parts)
        pen.text(said(i), 20 + (310 * i) / parts, 20, { size: 16 });
    pen.text(unit, 352, 43, { size: 16, align: 'right' });
  },
});

const compass = figure({
  subject: 'geography',
  width: 320,
  height: 320,
  fields: { points: choice(['4', '8', '16'], '8'), letters: words('N E S W', 20), turn: number(0, 359, 0) },
  draw(pen, { points, letters, turn }) {
    const names = letters.split(/\s+/);
    const at = (angle: number, radius: number) => {
      const a = ((angle + turn) * Math.PI) / 180;
      return [160 + radius * Math.sin(a), 160 - radius * Math.cos(a)] as const;
    };
    const point = (angle: number, long: number, wide: number) => {
      pen.area([...at(angle, long), ...at(angle + 45, wide), 160, 160], { fill: INK, width: 1.4 });
      pen.area([...at(angle, long), ...at(angle - 45, wide), 160, 160], { fill: '#ffffff', width: 1.4 });
    };
    pen.circle(160, 160, 108, { width: 1.8 });
    if (points === '16') for (let i = 0; i < 8; i++) point(22.5 + i * 45, 78, 18);
    if (points !== '4') for (let i = 0; i < 4; i++) point(45 + i * 90, 94, 24);
    for (let i = 0; i < 4; i++) {
      point(i * 90, 122, 28);
      pen.text(names[i] ?? '', ...at(i * 90, 142), { size: 26 });
    }
    pen.circle(160, 160, 6, { fill: BLUE });
  },
});

/** Events of a time line: a year, a space, and what happened, with semicolons between. Throws FigureError `events`. */
export function eventsOf(text: string): { year: number; name: string }[] {
  return text
    .split(/[;\n]/)
    .map((event) => event.trim())
    .filter((event) => event !== '')
    .map((event) => {
      const [, year, name] = /^([-−]?\d{1,6}(?:[.,]\d+)?)\s+(.+)$/.exec(event) ?? [];
      if (year === undefined || name === undefined) throw new FigureError('events', event);
      return { year: Number(year.replace('−', '-').replace(',', '.')), name };
    });
}

const timeLine = figure({
  subject: 'geography',
  width: 860,
  height: 260,
  fields: {
    from: number(-10_000, 3000, 1400),
    to: number(-10_000, 3000, 2000),
    events: words('1450 printing; 1769 steam engine; 1876 telephone; 1969 on the moon', 400),
  },
  draw(pen, { from, to, events }) {
    const [first, last] = from < to ? [from, to] : [to, from + 1];
    const at = (year: number) => 40 + (780 * (year - first)) / (last - first);
    pen.arrow(20, 150, 846, 150, { width: 3.4 });
    const raw = (last - first) / 8;
    const power = 10 ** Math.floor(Math.log10(raw));
    const step = [1, 2, 5, 10].map((by) => by * power).find((one) => one >= raw)!;
    for (let year = Math.ceil(first / step) * step; year <= last; year += step) {
      pen.line([at(year), 143, at(year), 157], { width: 1.8 });
      pen.text(String(year).replace('-', '−'), at(year), 172, { size: 15 });
    }
    const shown = eventsOf(events)
      .filter(({ year }) => year >= first && year <= last)
      .sort((a, b) => a.year - b.year);
    for (const [i, { year, name }] of shown.entries()) {
      const [x, row] = [at(year), i % 4];
      const y = [112, 206, 70, 240][row]!;
      pen.line([x, 150, x, y + (y < 150 ? 12 : -12)], { width: 1.4, colour: BLUE });
      pen.circle(x, 150, 6, { fill: BLUE });
      const half = pen.widthOf(`${year} ${name}`, 16) / 2 + 6;
      const middle = Math.min(850 - half, Math.max(10 + half, x));
      pen.rect(middle - half, y - 12, half * 2, 24, { fill: WARM, width: 1.2 });
      pen.text(`${String(year).replace('-', '−')} ${name}`, middle, y, { size: 16 });
    }
  },
});

export const GEOGRAPHY = { scaleBar, compass, timeLine };
