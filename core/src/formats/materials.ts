import type { HandoutPage, HandoutSources, PictureFile } from '../handout/sources.js';
import { hasOriginal } from '../paint/shownOn.js';
import type { Face } from '../text/font.js';
import { encodeToBase64 } from '@cantoo/pdf-lib';
import type { HrefOf } from './svgMarks.js';
import { cssFace, FAMILIES } from './svgMarks.js';
import type { SvgGround } from './svgPage.js';
import { extentOf } from './svgPage.js';

/** A picture of what something else has to draw of a page, and its words. */
export async function groundOf(
  handed: HandoutPage,
  sources: Pick<HandoutSources, 'pagePicture' | 'webLayout'>,
): Promise<SvgGround | undefined> {
  if (!hasOriginal(handed)) return undefined;
  const picture = await sources.pagePicture(handed.page, extentOf(handed));
  const { texts } = await sources.webLayout(handed.page);
  return { href: dataUri(picture), texts };
}

/** Pictures as data URIs, for a file that needs no other. */
export async function inside(
  materials: Iterable<string>,
  sources: Pick<HandoutSources, 'picture'>,
): Promise<HrefOf> {
  const hrefs = new Map<string, string>();
  for (const material of materials) {
    const file = await sources.picture(material);
    if (file) hrefs.set(material, dataUri(file));
  }
  return (material) => hrefs.get(material);
}

/** Font faces as CSS rules that hold their files. */
export async function fontCss(faces: Iterable<Face>, sources: Pick<HandoutSources, 'font'>): Promise<string> {
  const rules: string[] = [];
  for (const face of faces) {
    const { family, bold, italic } = cssFace(face);
    const bytes = await sources.font(face);
    rules.push(
      `@font-face{font-family:'${FAMILIES[family]}';font-weight:${bold ? 700 : 400};` +
        `font-style:${italic ? 'italic' : 'normal'};src:url(data:font/ttf;base64,${base64(bytes)})}`,
    );
  }
  return rules.join('');
}

export function dataUri({ bytes, type }: PictureFile): string {
  return `data:image/${type};base64,${base64(bytes)}`;
}

function base64(bytes: Uint8Array): string {
  return encodeToBase64(bytes);
}
