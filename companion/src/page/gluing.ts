import type { Mark, Rect } from '@doodla/core';
import { growRect, markBounds, rectsTouch } from '@doodla/core';
import type { Glue } from '@doodla/core/glue';
import { nameOf } from './elementNames';
import type { PageWords } from './pageWords';
import { documentOf, framesTo, onPage, spotAt } from './surroundings';

/** Words so near to a mark are what it was made on; CSS pixels. */
const NEAR = 14;
/** Places of a mark at which is looked for words, from its middle outwards, as parts of its sides. */
const PLACES = [0, -0.5, 0.5, -0.25, 0.25];
/** What is in these grows with them. */
const PICTURES = new Set(['IMG', 'VIDEO', 'CANVAS', 'IFRAME', 'FRAME', 'EMBED', 'OBJECT', 'svg', 'PICTURE']);

/** Works out what marks are made on. The glass must not be in the way while it does. */
export class Gluing {
  constructor(
    private readonly words: PageWords,
    private readonly top: Document,
  ) {}

  /** What a mark belongs to that has just been made: words, else the nearest element that lasts, else the page. */
  glueOf(mark: Mark): Glue {
    const bounds = markBounds(mark);
    if (mark.kind === 'quote') return this.toQuoted(mark) ?? { to: 'page' };
    return this.toPicture(bounds) ?? this.toWords(bounds) ?? this.toElement(bounds) ?? { to: 'page' };
  }

  private toQuoted({ exact, prefix, suffix, start, rects }: Extract<Mark, { kind: 'quote' }>): Glue {
    const [x, y, width, height] = rects as [number, number, number, number];
    const { document } = spotAt(x + width / 2, y + height / 2, this.top);
    const frames = framesTo(document, this.top);
    return { to: 'words', frames, quote: { exact, prefix, suffix, start }, at: { x, y, width, height } };
  }

  /** What lies wholly within a picture, a video or a frame of somebody else's belongs to that, not to words beside it. */
  private toPicture({ x, y, width, height }: Rect): Glue | undefined {
    const spot = spotAt(x + width / 2, y + height / 2, this.top);
    const element = spot.document.elementFromPoint(spot.x, spot.y)?.closest([...PICTURES].join(','));
    return element && !documentOf(element) ? this.to(element, true) : undefined;
  }

  private toWords(bounds: Rect): Glue | undefined {
    const near = growRect(bounds, NEAR);
    for (const v of PLACES)
      for (const u of PLACES) {
        const x = near.x + near.width * (0.5 + u);
        const y = near.y + near.height * (0.5 + v);
        const glue = this.toWordAt(x, y, near);
        if (glue) return glue;
      }
    return undefined;
  }

  /** The word at a place, if it touches what is near. */
  private toWordAt(x: number, y: number, near: Rect): Glue | undefined {
    const spot = spotAt(x, y, this.top);
    if (!spot.document.body) return undefined;
    const word = this.words.of(spot.document).between(spot, spot);
    if (!word) return undefined;
    const { exact, prefix, suffix, start, rects } = word;
    const [left, top, width, height] = rects as [number, number, number, number];
    const at = onPage({ x: left, y: top, width, height }, spot.document, this.top);
    if (!rectsTouch(at, near) || at.height === 0) return undefined;
    return {
      to: 'words',
      frames: framesTo(spot.document, this.top),
      quote: { exact, prefix, suffix, start },
      at,
    };
  }

  /** The nearest element under the middle that is not the whole page; beside the text, the paragraph that is level with it. */
  private toElement({ x, y, width, height }: Rect): Glue | undefined {
    const [cx, cy] = [x + width / 2, y + height / 2];
    const spot = spotAt(cx, cy, this.top);
    const { document } = spot;
    const under = document.elementFromPoint(spot.x, spot.y);
    const isPage = !under || under === document.documentElement || under === document.body;
    const element = isPage ? this.levelWith(document, spot.y) : under;
    return element ? this.to(element, PICTURES.has(element.tagName)) : undefined;
  }

  private levelWith(document: Document, y: number): Element | undefined {
    const { innerWidth } = document.defaultView!;
    for (const share of [0.5, 0.3, 0.7]) {
      const there = document.elementFromPoint(innerWidth * share, y);
      if (there && there !== document.body && there !== document.documentElement) return there;
    }
    return undefined;
  }

  private to(element: Element, stretches: boolean): Glue | undefined {
    const { ownerDocument } = element;
    const at = onPage(element.getBoundingClientRect(), ownerDocument, this.top);
    if (at.width === 0 || at.height === 0) return undefined;
    return {
      to: 'element',
      frames: framesTo(ownerDocument, this.top),
      name: nameOf(element),
      stretches,
      at: { x: at.x, y: at.y, width: at.width, height: at.height },
    };
  }
}
