import { choice, figure, FigureError, number, words } from '../figure.js';
import { BLUE, INK, PALE } from '../pen.js';

const rows = figure({
  subject: 'languages',
  width: 640,
  height: 300,
  fields: { rows: number(1, 8, 3), model: words('', 40) },
  draw(pen, { rows: count, model }) {
    // Four lines to a row: for what reaches up, for small letters between the middle two, for what hangs down.
    const row = pen.height / count;
    const gap = (row * 0.8) / 3;
    for (let i = 0; i < count; i++) {
      const top = row * i + row * 0.1;
      for (let line = 0; line < 4; line++) {
        const inner = line === 1 || line === 2;
        pen.line([4, top + gap * line, 636, top + gap * line], {
          colour: inner ? INK : PALE,
          width: inner ? 1.6 : 1.1,
        });
      }
      // Small letters are as high as the middle space: about 0.43 of the size in this font.
      if (model !== '')
        pen.text(model, 14, top + gap * 1.5, { size: gap / 0.46, colour: '#7c8a84', align: 'left' });
    }
  },
});

const sounds = figure({
  subject: 'languages',
  width: 480,
  height: 130,
  fields: { syllables: words('ba-na-na', 60), signs: choice(['bows', 'dots', 'both']) },
  draw(pen, { syllables, signs }) {
    const parts = syllables.split('-');
    const all = parts.join('');
    const size = Math.min(64, 62 * (440 / Math.max(1, pen.widthOf(all, 62))));
    let x = (480 - pen.widthOf(all, size)) / 2;
    for (const part of parts) {
      const width = pen.widthOf(part, size);
      pen.text(part, x, 48, { size, align: 'left' });
      if (signs !== 'dots') {
        const bow = Array.from({ length: 17 }, (_, i) => [
          x + 3 + ((width - 6) * i) / 16,
          86 + 16 * Math.sin((Math.PI * i) / 16),
        ]);
        pen.line(bow.flat(), { colour: BLUE });
      }
      // Vowels have a dot, other sounds a dash.
      if (signs !== 'bows') {
        let at = x;
        for (const letter of part) {
          const own = pen.widthOf(letter, size);
          if (/[aeiouyäöüáéíóúàèâêîôû]/i.test(letter))
            pen.circle(at + own / 2, 118, 5, { fill: INK, edge: false });
          else pen.line([at + own / 2 - 7, 118, at + own / 2 + 7, 118], { width: 4 });
          at += own;
        }
      }
      x += width;
    }
  },
});

const tenses = figure({
  subject: 'languages',
  width: 720,
  height: 180,
  fields: {
    tense: choice(['past', 'present', 'future', 'pastStretch', 'sincePast', 'untilFuture']),
    now: words('now', 20),
    sentence: words('', 80),
  },
  draw(pen, { tense, now, sentence }) {
    pen.arrow(20, 110, 700, 110);
    pen.line([360, 96, 360, 124], { width: 3.4 });
    pen.text(now, 360, 144, { size: 20 });
    const [from, to] = {
      past: [180, 180],
      present: [360, 360],
      future: [540, 540],
      pastStretch: [110, 250],
      sincePast: [180, 360],
      untilFuture: [360, 540],
    }[tense] as [number, number];
    if (from === to) pen.circle(from, 110, 10, { fill: BLUE });
    else {
      pen.line([from, 110, to, 110], { colour: BLUE, width: 9 });
      pen.circle(from, 110, 8, { fill: BLUE });
      pen.circle(to, 110, 8, { fill: BLUE });
    }
    pen.text(sentence, 360, 40, { size: 26 });
  },
});

const tiles = figure({
  subject: 'languages',
  width: 560,
  height: 100,
  fields: { letters: words('ABCDEFG', 14) },
  draw(pen, { letters }) {
    const all = [...letters].filter((letter) => letter.trim() !== '');
    const side = Math.min(80, 540 / Math.max(1, all.length));
    for (const [i, letter] of all.entries()) {
      const x = 10 + i * side;
      pen.rect(x + 2, 50 - side / 2, side - 4, side, { fill: '#faf5e8' });
      pen.text(letter, x + side / 2, 50, { size: side * 0.6 });
    }
  },
});

/** Kinds of parts differ by their ground and by the line below them, as colours alone say nothing to some. */
const KINDS = [
  { fill: '#ffffff', lines: 0, dash: 0 },
  { fill: '#abdaf4', lines: 1, dash: 0 },
  { fill: '#f5cf8a', lines: 2, dash: 0 },
  { fill: '#80cfb9', lines: 1, dash: 9 },
  { fill: '#e5bcd3', lines: 1, dash: 3 },
  { fill: '#f8f1a1', lines: 2, dash: 6 },
] as const;

const sentenceParts = figure({
  subject: 'languages',
  width: 720,
  height: 110,
  fields: { split: words('The dog | chases | the cat', 160), kinds: words('1 2 3', 60) },
  draw(pen, { split, kinds }) {
    const parts = split.split('|').flatMap((part) => part.trim() || []);
    if (parts.length === 0) throw new FigureError('nothing');
    const numbers = kinds.split(/[\s,]+/).map(Number);
    const [gap, pad] = [8, 12];
    const free = 712 - gap * (parts.length - 1) - 2 * pad * parts.length;
    const whole = parts.reduce((sum, part) => sum + pen.widthOf(part, 40), 0);
    const size = 40 * Math.min(1, free / whole);
    let x = 4;
    for (const [i, part] of parts.entries()) {
      const kind = KINDS[numbers[i] ?? 0] ?? KINDS[0];
      const width = pen.widthOf(part, size) + 2 * pad;
      pen.rect(x, 10, width, 66, { fill: kind.fill, width: 1.6 });
      pen.text(part, x + width / 2, 43, { size });
      for (let line = 0; line < kind.lines; line++)
        pen.line([x + 3, 86 + line * 9, x + width - 3, 86 + line * 9], { width: 3.4, dash: kind.dash });
      x += width + gap;
    }
  },
});

export const LANGUAGES = { rows, sounds, tenses, sentenceParts, tiles };
