import { footOf } from '../handout/foot.js';
import type { HandoutOptions, HandoutPage, HandoutSources } from '../handout/sources.js';
import type { MadeFile } from './madeFile.js';
import { pageName } from './madeFile.js';
import { facesOn, picturesOn } from '../paint/shownOn.js';
import { fontCss, groundOf, inside } from './materials.js';
import { svgPage } from './svgPage.js';
import { strToU8 } from 'fflate';

/** Each page as an SVG file of its own that needs no other. */
export async function* svgFiles(
  pages: readonly HandoutPage[],
  sources: HandoutSources,
  { title, foot, onProgress }: HandoutOptions,
): AsyncGenerator<MadeFile> {
  for (const [i, handed] of pages.entries()) {
    const svg = svgPage(handed, {
      title: handed.page.title || `${title} ${i + 1}`,
      css: await fontCss(await facesOn(handed), sources),
      hrefOf: await inside(picturesOn(handed), sources),
      ground: await groundOf(handed, sources),
      foot: foot === undefined ? undefined : footOf(foot, i + 1, pages.length),
    });
    yield {
      name: pageName(i, pages.length, 'svg'),
      bytes: strToU8(`<?xml version="1.0" encoding="UTF-8"?>\n${svg}`),
    };
    onProgress?.(i + 1, pages.length);
  }
}
