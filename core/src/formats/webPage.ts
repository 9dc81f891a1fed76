import { strToU8 } from 'fflate';
import { footOf } from '../handout/foot.js';
import type { HandoutOptions, HandoutPage, HandoutSources } from '../handout/sources.js';
import type { Face } from '../text/font.js';
import { facesOn, picturesOn } from '../paint/shownOn.js';
import { fontCss, groundOf, inside } from './materials.js';
import { extentOf, svgPage } from './svgPage.js';
import { element, xmlText } from './xml.js';

/** Nothing is fetched, and nothing runs (Content Security Policy Level 3). */
const POLICY = "default-src 'none'; img-src data:; font-src data:; style-src 'unsafe-inline'";
const LOOK = `
body{margin:0;background:#f4efe2;color:#1c2b26;font-family:Andika,sans-serif}
header{padding:1rem 1.5rem}h1{font-size:1.4rem;margin:0}
section{margin:0 auto 1.5rem;max-width:min(96vw,1200px);background:#fff;box-shadow:0 1px 6px rgb(0 0 0/.25)}
h2{font-size:1rem;margin:0;padding:.4rem .8rem;background:#e8e0cc}
section>svg{display:block;width:100%;height:auto}
@media print{header,h2{display:none}section{box-shadow:none;margin:0;max-width:none;break-after:page}section>svg{max-height:98vh}}`;

/** How pages lie on sheets when they are printed (CSS Paged Media 3). */
export interface PrintLayout {
  columns: number;
  rows: number;
}

/** On A4, the longer side as the pages have it. */
function printLook({ columns, rows }: PrintLayout, isWide: boolean): string {
  const count = columns * rows;
  return `
@page{size:A4 ${isWide ? 'landscape' : 'portrait'};margin:8mm}
body{background:#fff}header,h2{display:none}
main{display:grid;grid-template-columns:repeat(${columns},1fr);gap:4mm}
section{margin:0;max-width:none;box-shadow:none;display:grid;place-items:center;break-inside:avoid;height:${(isWide ? 190 : 277) / rows - 4}mm}
section:nth-child(${count}n){break-after:page}section:last-child{break-after:auto}
section>svg{width:auto;height:auto;max-width:100%;max-height:100%${count > 1 ? ';outline:.3mm solid #bbb' : ''}}`;
}

/** The pages as one HTML file that needs no other and runs nothing: each page an SVG whose words can be found and read out. */
export async function webPageFile(
  pages: readonly HandoutPage[],
  sources: HandoutSources,
  { title, language = 'en', foot, onProgress }: HandoutOptions,
  print?: PrintLayout,
): Promise<Uint8Array> {
  const faces = new Set<Face>();
  const sections: string[] = [];
  for (const [i, handed] of pages.entries()) {
    for (const face of await facesOn(handed)) faces.add(face);
    const name = handed.page.title || `${i + 1}`;
    const svg = svgPage(handed, {
      title: name,
      hrefOf: await inside(picturesOn(handed), sources),
      ground: await groundOf(handed, sources),
      foot: foot === undefined ? undefined : footOf(foot, i + 1, pages.length),
    });
    const heading = element('h2', { id: `page-${i + 1}` }, xmlText(name));
    sections.push(element('section', { 'aria-labelledby': `page-${i + 1}` }, heading + svg));
    onProgress?.(i + 1, pages.length);
  }
  const head = [
    '<meta charset="utf-8">',
    `<meta http-equiv="Content-Security-Policy" content="${POLICY}">`,
    '<meta name="viewport" content="width=device-width, initial-scale=1">',
    element('title', {}, xmlText(title)),
    `<style>${await fontCss(faces, sources)}${LOOK}${print ? printLook(print, isWide(pages, print)) : ''}</style>`,
  ];
  const body = `<header><h1>${xmlText(title)}</h1></header><main>${sections.join('\n')}</main>`;
  return strToU8(
    `<!doctype html>\n<html lang="${xmlText(language)}"><head>${head.join('\n')}</head><body>${body}</body></html>`,
  );
}

/** Whether most room is used where the longer side of the paper lies across. */
function isWide(pages: readonly HandoutPage[], { columns, rows }: PrintLayout): boolean {
  const [first] = pages;
  if (!first) return false;
  const { width, height } = extentOf(first);
  return (width * columns) / (height * rows) > 1;
}
