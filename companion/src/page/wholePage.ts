import type { Pictured, PicturePiece } from '../shared/messages';
import { painted } from './host';
import { pictureOfTab } from './pictures';
import type { Tab } from './tab';

/** Highest page that is pictured, CSS pixels. */
const MOST_HEIGHT = 30_000;
/** Highest piece: canvases of more are refused by some browsers; CSS pixels. */
const PIECE = 4000;
/** Most words that are looked for. */
const MOST_WORDS = 20_000;

/** What is in sight, or a part of it, as a picture with the marks; undefined where none could be taken. */
export async function pictureInSight(
  tab: Tab,
  part = { x: 0, y: 0, width: innerWidth, height: innerHeight },
): Promise<Pictured | undefined> {
  const taken = await pictureOfTab(tab, true);
  if (!taken) return undefined;
  const canvas = canvasOf(part.width, part.height, taken.scale);
  canvas.getContext('2d')!.drawImage(taken.bitmap, -part.x * taken.scale, -part.y * taken.scale);
  const onPage = { ...part, x: part.x + scrollX, y: part.y + scrollY };
  return pictured(part.width, [
    { data: canvas.toDataURL(), height: part.height, words: wordsIn(tab, onPage) },
  ]);
}

/**
 * The whole page, taken by scrolling through it; what stays over it while it scrolls is on it once. `onStep` hears how much is done,
 * 0 to 1, and says whether to go on.
 */
export async function pictureOfPage(
  tab: Tab,
  onStep: (done: number) => boolean = () => true,
): Promise<Pictured | undefined> {
  const page = document.scrollingElement ?? document.documentElement;
  const [width, height] = [page.clientWidth, Math.min(page.scrollHeight, MOST_HEIGHT)];
  const before = { left: scrollX, top: scrollY, behavior: 'instant' } as const;
  const bars = tab.barsNow();
  const [above, below] = [barAt(bars, 0), barAt(bars, innerHeight)];
  const pieces: PicturePiece[] = [];
  let canvas: HTMLCanvasElement | undefined;
  let from = 0;
  const finish = (to: number) => {
    if (!canvas || to <= from) return;
    const words = wordsIn(tab, { x: 0, y: from, width, height: to - from });
    pieces.push({ data: canvas.toDataURL(), height: to - from, words });
    [canvas, from] = [undefined, to];
  };
  try {
    for (let y = 0; y < height;) {
      if (!onStep(y / height)) return undefined;
      window.scrollTo({ left: 0, top: Math.max(0, y - (y === 0 ? 0 : above)), behavior: 'instant' });
      await painted();
      const taken = await pictureOfTab(tab, true);
      if (!taken) return undefined;
      // The last part cannot be scrolled to the upper edge.
      const top = y - scrollY;
      const isLast = scrollY + innerHeight >= page.scrollHeight - 1;
      const seen = Math.min(height - y, innerHeight - top - (isLast ? 0 : below));
      canvas ??= canvasOf(width, Math.min(PIECE, height - from), taken.scale);
      const rows = Math.min(seen, from + canvas.height / taken.scale - y);
      draw(canvas, taken, { top, rows, at: y - from, width });
      y += Math.max(1, rows);
      if (y >= height || y - from >= PIECE) finish(y);
    }
    return pictured(width, pieces);
  } finally {
    window.scrollTo(before);
  }
}

function draw(
  canvas: HTMLCanvasElement,
  { bitmap, scale }: { bitmap: ImageBitmap; scale: number },
  { top, rows, at, width }: { top: number; rows: number; at: number; width: number },
): void {
  const [w, h] = [width * scale, rows * scale];
  canvas.getContext('2d')!.drawImage(bitmap, 0, top * scale, w, h, 0, at * scale, w, h);
}

/** How far what stays reaches in from the upper or lower edge of the window, CSS pixels. */
function barAt(bars: ReturnType<Tab['barsNow']>, edge: number): number {
  const wide = bars.filter(({ width }) => width > innerWidth * 0.6);
  const at = wide.find(({ y, height }) => (edge === 0 ? y <= 1 : y + height >= edge - 1));
  return at?.height ?? 0;
}

function canvasOf(width: number, height: number, scale: number): HTMLCanvasElement {
  const size = { width: Math.round(width * scale), height: Math.round(height * scale) };
  return Object.assign(document.createElement('canvas'), size);
}

function pictured(width: number, pieces: readonly PicturePiece[]): Pictured {
  return { title: document.title, address: location.href, width, pieces };
}

/** Words that stand in a part of the page, with their places in it. */
function wordsIn(
  tab: Tab,
  part: { x: number; y: number; width: number; height: number },
): PicturePiece['words'] {
  return tab.wordsOnPage(MOST_WORDS).flatMap((word) => {
    const [x, y] = [word.x - part.x, word.y - part.y];
    const isIn = x >= 0 && y >= 0 && x + word.width <= part.width && y + word.height <= part.height;
    return isIn ? [{ ...word, x, y }] : [];
  });
}
