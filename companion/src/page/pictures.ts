import { pour, pourChanges } from '@doodla/core/fill';
import type { Mark } from '@doodla/core';
import { ask } from '../shared/messages';
import { say } from '../words';
import { t } from '@web/words';
import type { Host } from './host';
import type { TabDesk } from './tabDesk';

/** What picturing needs of a tab. */
interface Seen {
  desk: TabDesk;
  host: Host;
}

/** How far a colour may differ from the one poured on, 0 to 255. */
const TOLERANCE = 48;
const FILL_OPACITY = 0.55;

/** What is in sight of a tab, as pixels. */
export class TabPicture {
  private readonly ctx: CanvasRenderingContext2D;
  /** Pixels to a CSS pixel. */
  readonly scale: number;

  constructor(readonly bitmap: ImageBitmap) {
    const canvas = document.createElement('canvas');
    [canvas.width, canvas.height] = [bitmap.width, bitmap.height];
    this.ctx = canvas.getContext('2d', { willReadFrequently: true })!;
    this.ctx.drawImage(bitmap, 0, 0);
    this.scale = bitmap.width / innerWidth;
  }

  /** The colour at a place of the window, as hex. */
  colourAt(x: number, y: number): string {
    const { data } = this.ctx.getImageData(Math.floor(x * this.scale), Math.floor(y * this.scale), 1, 1);
    return `#${[...data.slice(0, 3)].map((part) => part.toString(16).padStart(2, '0')).join('')}`;
  }

  /** As the address of its data. */
  get data(): string {
    return this.ctx.canvas.toDataURL('image/jpeg', 0.92);
  }

  get raster() {
    const { width, height } = this.bitmap;
    return { width, height, data: this.ctx.getImageData(0, 0, width, height).data };
  }
}

/** A picture of what is in sight, without what is ours; says so where none can be had. `withInk`: with the marks on it. */
export async function pictureOfTab(tab: Seen, withInk = false): Promise<TabPicture | undefined> {
  try {
    await restedSince();
    const address = await tab.host.away(() => ask({ ask: 'picture' }), withInk);
    return new TabPicture(await createImageBitmap(await bytesOf(address)));
  } catch {
    // Whatever the reason, such as rights that ended with a visit elsewhere, the button gives them anew.
    tab.desk.tellProblem(say('noPicture'));
    return undefined;
  }
}

/** Browsers take two pictures a second, and refuse more; waited for before anything is put out of sight. */
const APART_MS = 550;
let takenAt = -Infinity;

async function restedSince(): Promise<void> {
  const rest = takenAt + APART_MS - performance.now();
  takenAt = Math.max(performance.now(), takenAt + APART_MS);
  if (rest > 0) await new Promise((resolve) => setTimeout(resolve, rest));
}

/** The bytes of a data URL; a page's policy may forbid to fetch one. */
function bytesOf(address: string): Promise<Blob> {
  const [head = '', base64 = ''] = address.split(',', 2);
  const bytes = Uint8Array.from(atob(base64), (letter) => letter.charCodeAt(0));
  return Promise.resolve(new Blob([bytes], { type: /data:([^;]+)/.exec(head)?.[1] ?? 'image/png' }));
}

/** Pours colour into the area round a place of the page, which what is seen there bounds. */
export async function pourAt({ desk, host }: Seen, at: { x: number; y: number }): Promise<void> {
  const picture = await pictureOfTab({ desk, host }, true);
  if (!picture) return;
  const { scale } = picture;
  const { fillGap, fillColour: colour } = desk.penCase.get();
  const [x, y] = [(at.x - scrollX) * scale, (at.y - scrollY) * scale];
  const poured = pour(picture.raster, { x, y, tolerance: TOLERANCE, gap: fillGap * scale });
  if ('failed' in poured)
    return desk.tellProblem(t(poured.failed === 'open' ? 'tools.areaIsOpen' : 'tools.thereIsNoRoomHere'));
  const rings = poured.rings.map((ring) =>
    ring.map((value, i) => Math.round((value / scale + (i % 2 === 0 ? scrollX : scrollY)) * 100) / 100),
  );
  const mark = { ...desk.newMark(), kind: 'fill', rings, style: { colour, opacity: FILL_OPACITY } } as const;
  const mayTouch = (other: Mark) => desk.mayTouch(other);
  desk.target.perform(pourChanges(mark, [at.x, at.y], desk.target.marks.all(), mayTouch));
}
