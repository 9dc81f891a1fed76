import { cssFont } from '../canvas/cssFont';

type Context = OffscreenCanvasRenderingContext2D;
interface Size {
  readonly width: number;
  readonly height: number;
}

/** Shares of the height of the picture: letters, and the distance from its edges and round letters. */
const LETTERS = 1 / 22;
const ROOM = 1 / 60;
/** More of the width is not read at one glance. */
const MOST_WIDTH = 0.9;

/** Writes what is said at the foot of a picture, white on black. */
export function paintCaption(ctx: Context, size: Size, said: string): void {
  paintWords(ctx, size, said, { ground: 'rgb(0 0 0 / 0.85)', at: 'foot' });
}

/** Writes at the head of a picture what is to be done while it stands still, and the seconds that are left. */
export function paintHold(
  ctx: Context,
  size: Size,
  { text, left }: { text: string; left: number | undefined },
): void {
  const counted = left === undefined ? '' : `${Math.floor(left / 60)}:${String(left % 60).padStart(2, '0')}`;
  const words = [text, counted].filter(Boolean).join('  ·  ');
  if (words) paintWords(ctx, size, words, { ground: '#23483b', at: 'head' });
}

function paintWords(
  ctx: Context,
  { width, height }: Size,
  words: string,
  { ground, at }: { ground: string; at: 'head' | 'foot' },
): void {
  const letters = height * LETTERS;
  const room = height * ROOM;
  ctx.font = cssFont('andika', letters);
  const lines = words.split('\n').flatMap((line) => linesOf(ctx, line, width * MOST_WIDTH));
  const across = Math.max(...lines.map((line) => ctx.measureText(line).width)) + 2 * room;
  const down = lines.length * letters * 1.3 + 2 * room;
  const top = at === 'head' ? room : height - room - down;
  ctx.fillStyle = ground;
  ctx.beginPath();
  ctx.roundRect((width - across) / 2, top, across, down, room);
  ctx.fill();
  ctx.fillStyle = '#ffffff';
  ctx.textAlign = 'center';
  ctx.textBaseline = 'middle';
  lines.forEach((line, i) => ctx.fillText(line, width / 2, top + room + (i + 0.5) * letters * 1.3));
}

/** A line in as many as it needs; a word that is too long stands alone. */
function linesOf(ctx: Context, line: string, width: number): string[] {
  const lines = [''];
  for (const word of line.split(/\s+/)) {
    const longer = lines.at(-1) === '' ? word : `${lines.at(-1)} ${word}`;
    if (lines.at(-1) === '' || ctx.measureText(longer).width <= width) lines[lines.length - 1] = longer;
    else lines.push(word);
  }
  return lines;
}
