import type { LaidOutLink, LaidOutText, WebLayout } from '@doodla/core/handout';
import type { Page, Rect } from '@doodla/core';
import type { Room } from '../room/room';
import { t } from '../words';

/** How long a page may take to be laid out, milliseconds. */
const PATIENCE_MS = 20_000;

/** What can be read and followed on a web page, laid out as it is shown. Rejects where it cannot be. */
export async function webLayout(room: Room, page: Page): Promise<WebLayout> {
  if (page.surface.kind !== 'web') return { texts: [], links: [] };
  const html = await room.webPages.html(page.surface.material);
  const frame = document.createElement('iframe');
  frame.setAttribute('sandbox', 'allow-same-origin');
  frame.setAttribute('aria-hidden', 'true');
  frame.style.cssText = `position:fixed;top:0;left:0;border:0;visibility:hidden;width:${page.width}px;height:${page.height}px`;
  try {
    await loaded(frame, html);
    const inside = frame.contentDocument!;
    inside.documentElement.style.overflow = 'hidden';
    return { texts: textsIn(inside), links: linksIn(inside) };
  } finally {
    frame.remove();
  }
}

function loaded(frame: HTMLIFrameElement, html: string): Promise<void> {
  return new Promise((resolve, reject) => {
    const late = setTimeout(() => reject(new Error(t('handout.aWebPageCouldNot'))), PATIENCE_MS);
    frame.addEventListener('load', () => {
      clearTimeout(late);
      resolve();
    });
    frame.srcdoc = html;
    document.body.append(frame);
  });
}

/** The words of a page line by line; those of one line and one element together. */
export function textsIn(page: Document): LaidOutText[] {
  const texts: LaidOutText[] = [];
  const walker = page.createTreeWalker(page.body, NodeFilter.SHOW_TEXT);
  const range = page.createRange();
  for (let node = walker.nextNode() as Text | null; node; node = walker.nextNode() as Text | null) {
    let run: LaidOutText | undefined;
    for (const { 0: word, index } of node.data.matchAll(/\S+/g)) {
      range.setStart(node, index);
      range.setEnd(node, index + word.length);
      const box = range.getBoundingClientRect();
      if (box.width < 0.5 || box.height < 0.5) continue;
      if (run && isSameLine(run, box)) {
        run.text += ` ${word}`;
        run.width = box.right - run.x;
      } else texts.push((run = { ...rectOf(box), text: word }));
    }
  }
  return texts;
}

function linksIn(page: Document): LaidOutLink[] {
  return [...page.querySelectorAll<HTMLAnchorElement>('a[data-leads], a[href^="#"]')].flatMap((link) => {
    const leads = leadsOf(link, page);
    if (!leads) return [];
    const boxes = [...link.getClientRects()].filter(({ width, height }) => width > 0.5 && height > 0.5);
    return boxes.map((box) => ({ ...rectOf(box), ...leads }));
  });
}

function leadsOf(link: HTMLAnchorElement, page: Document): { address: string } | { to: number } | undefined {
  if (link.dataset.leads !== undefined) return { address: link.dataset.leads };
  const name = decoded(link.getAttribute('href')!.slice(1));
  const target = page.getElementById(name) ?? page.getElementsByName(name)[0];
  return target && { to: target.getBoundingClientRect().top };
}

function decoded(fragment: string): string {
  try {
    return decodeURIComponent(fragment);
  } catch {
    // A stray per cent sign stands for itself.
    return fragment;
  }
}

function isSameLine(run: Rect, { top, left, height }: DOMRect): boolean {
  return Math.abs(run.y - top) < height / 2 && left >= run.x;
}

function rectOf({ left, top, width, height }: DOMRect): Rect {
  return { x: left, y: top, width, height };
}
