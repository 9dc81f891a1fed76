import createDOMPurify from 'dompurify';
import { Problem } from '../http/problem.js';
import { importsOf, mapUrls, withoutComments, withoutRule } from './cssUrls.js';

/** Fetches what a page is made of; undefined where that is not to be had. */
export type PartSource = (url: string) => Promise<{ type: string; bytes: Buffer } | undefined>;

export interface PageCopy {
  title: string;
  /** A whole document that needs nothing from anywhere. */
  html: string;
  /** Pictures that could not be had. */
  lost: number;
}

/** Most pictures, style sheets and fonts of one page, and the most bytes they may have together. */
const MAX_PARTS = 300;
const MAX_BYTES = 30_000_000;

/** Elements within one another; pages of the web stay below a few hundred. */
const MAX_DEPTH = 1500;
/** Longest address of a link that is kept. */
const MAX_ADDRESS = 2000;

/** What the copy may load, wherever it is shown. */
const POLICY = "default-src 'none'; img-src data:; style-src 'unsafe-inline'; font-src data:";

/** Attributes whose value may be fetched, or lead elsewhere. */
const FETCHING = new Set([
  'href',
  'xlink:href',
  'src',
  'srcset',
  'imagesrcset',
  'poster',
  'background',
  'action',
  'data',
  'cite',
  'longdesc',
  'usemap',
  'manifest',
  'archive',
  'codebase',
  'classid',
  'profile',
  'lowsrc',
  'dynsrc',
]);

const FORBIDDEN = [
  'script',
  'noscript',
  'iframe',
  'frame',
  'object',
  'embed',
  'applet',
  'form',
  'base',
  'link',
  'meta',
  'dialog',
  'audio',
  'video',
  'portal',
  'template',
];

/**
 * A self-contained copy of a web page: scripts and everything that could fetch or send are taken
 * out (DOMPurify), styles, pictures and fonts are put into the document as data.
 */
export async function copyPage(html: string, url: string, source: PartSource): Promise<PageCopy> {
  if (depthOf(html) > MAX_DEPTH) throw tooDeep();
  // Takes longer to load than the rest of the server, and many never need it.
  const { JSDOM } = await import('jsdom');
  const { window } = new JSDOM(html, { url });
  const { document } = window;
  const base = document.querySelector('base')?.href ?? url;
  const parts = new Parts(source);
  const sheets = await styleSheets(document, base, parts);
  const lost = await inlinePictures(document, base, parts);
  keepPlainText(document);
  noteLinks(document, base);
  const title = document.title.trim().slice(0, 200);
  const purify = createDOMPurify(window);
  purify.addHook('uponSanitizeAttribute', (_, data) => {
    // Links stay readable but lead nowhere; what is fetched may only be data.
    if (FETCHING.has(data.attrName))
      data.keepAttr =
        data.attrName === 'src' ? isPictureData(data.attrValue) : data.attrValue.startsWith('#');
    if (data.attrName === 'style') data.attrValue = safeCss(data.attrValue);
    // Those of SVG that may name a picture or filter elsewhere.
    else if (/url\(/i.test(data.attrValue)) data.keepAttr = /^\s*url\(\s*["']?#/i.test(data.attrValue);
  });
  const body = purify.sanitize(document.body.outerHTML, {
    FORBID_TAGS: FORBIDDEN,
    FORBID_ATTR: ['ping', 'formaction', 'nonce', 'integrity'],
    WHOLE_DOCUMENT: false,
    ADD_DATA_URI_TAGS: ['img'],
  });
  const attributes = ['class', 'id', 'lang', 'dir'].flatMap((name) => {
    const value =
      document.body.getAttribute(name) ?? (name === 'lang' ? document.documentElement.lang : null);
    return value ? [`${name}="${value.replace(/["<>&]/g, '')}"`] : [];
  });
  const css = sheets.map((sheet) => `<style>${sheet.replace(/<\//g, '<\\/')}</style>`).join('\n');
  window.close();
  return {
    title,
    lost,
    html: `<!doctype html><html data-source="${url.replace(/["<>&]/g, (c) => `&#${c.charCodeAt(0)};`)}"><head><meta charset="utf-8"><meta http-equiv="Content-Security-Policy" content="${POLICY}">${css}</head><body ${attributes.join(' ')}>${body}</body></html>`,
  };
}

/** Notes where links lead, as what nothing follows; links to places on the page itself stay as they are. */
function noteLinks(document: Document, base: string): void {
  const [page] = base.split('#');
  for (const link of document.querySelectorAll('[data-leads]')) link.removeAttribute('data-leads');
  for (const link of document.querySelectorAll('a[href]')) {
    const address = absolute(link.getAttribute('href')!, base);
    if (address === undefined || address.length > MAX_ADDRESS) continue;
    if (address.startsWith(`${page}#`)) link.setAttribute('href', address.slice(page!.length));
    else if (/^(?:https?|mailto):/i.test(address)) link.setAttribute('data-leads', address);
  }
}

/**
 * How deep elements stand in one another, by those that are always closed. Building and cleaning a tree takes
 * time by the square of it.
 */
function depthOf(html: string): number {
  let [depth, most] = [0, 0];
  for (const [tag] of html.matchAll(
    /<\/?(?:div|span|section|article|table|ul|ol|blockquote|b|i|em|strong|font|center|a)\b/gi,
  )) {
    depth = Math.max(0, depth + (tag[1] === '/' ? -1 : 1));
    most = Math.max(most, depth);
  }
  return most;
}

function tooDeep(): Problem {
  return new Problem(
    422,
    'too-deep',
    'This page is built in a way that takes too long to read. Please save it as PDF and bring that in.',
  );
}

export function notAPage(): Problem {
  return new Problem(
    415,
    'not-a-page',
    'This file is not a web page. Please choose one whose name ends in .html or .mhtml.',
  );
}

/** Fetches each part once, until there are too many or they are too large. */
class Parts {
  private readonly known = new Map<string, Promise<{ type: string; bytes: Buffer } | undefined>>();
  private left = MAX_BYTES;

  constructor(private readonly source: PartSource) {}

  get(url: string): Promise<{ type: string; bytes: Buffer } | undefined> {
    let part = this.known.get(url);
    if (part) return part;
    if (this.known.size >= MAX_PARTS) return Promise.resolve(undefined);
    part = this.source(url)
      // A page without one of its parts is still a page.
      .catch(() => undefined)
      .then((fetched) => {
        if (!fetched || fetched.bytes.length > this.left) return undefined;
        this.left -= fetched.bytes.length;
        return fetched;
      });
    this.known.set(url, part);
    return part;
  }

  async dataUrl(url: string, accept: RegExp): Promise<string | undefined> {
    const part = await this.get(url);
    if (!part || !accept.test(part.type)) return undefined;
    return `data:${part.type};base64,${part.bytes.toString('base64')}`;
  }
}

const PICTURE = /^image\/(png|jpeg|gif|webp|avif|bmp|x-icon|svg\+xml)$/;
const FONT_OR_PICTURE =
  /^(image\/(png|jpeg|gif|webp|avif|svg\+xml)|font\/|application\/(font|x-font|vnd\.ms-fontobject|octet-stream))/;

function isPictureData(value: string): boolean {
  return /^data:image\/(png|jpeg|gif|webp|avif|bmp|x-icon|svg\+xml)[;,]/i.test(value);
}

async function styleSheets(document: Document, base: string, parts: Parts): Promise<string[]> {
  const sheets: string[] = [];
  for (const element of document.querySelectorAll('style, link[rel~="stylesheet" i]')) {
    const media = element.getAttribute('media') ?? '';
    if (element.tagName === 'STYLE')
      sheets.push(forMedia(media, await inlineCss(element.textContent, base, parts)));
    else {
      const url = absolute(element.getAttribute('href') ?? '', base);
      const sheet = url === undefined ? undefined : await parts.get(url);
      if (sheet && /css|plain/.test(sheet.type))
        sheets.push(forMedia(media, await inlineCss(sheet.bytes.toString(), url!, parts)));
    }
    element.remove();
  }
  return sheets;
}

/** Style for some media only, such as print, as a rule of its own. What is no plain list of media is left out with it. */
function forMedia(media: string, css: string): string {
  const wanted = media.trim();
  if (wanted === '' || wanted === 'all') return css;
  return /^[\w\s(),:.-]{1,200}$/.test(wanted) ? `@media ${wanted} {\n${css}\n}` : '';
}

/** Sheets that name each other are followed so far. */
const MAX_IMPORT_DEPTH = 4;

/** A sheet with those that it imports in their places (CSS Cascade 4, §5). */
async function withImports(css: string, base: string, parts: Parts, depth: number): Promise<string> {
  if (depth >= MAX_IMPORT_DEPTH || !/@import/i.test(css)) return css;
  let imported = '';
  for (const { target, media } of importsOf(css)) {
    const url = absolute(target, base);
    const sheet = url === undefined ? undefined : await parts.get(url);
    if (sheet && /css|plain/.test(sheet.type))
      imported += `${forMedia(media, await inlineCss(sheet.bytes.toString(), url!, parts, depth + 1))}\n`;
  }
  return imported + withoutRule(css, '@import');
}

/** Style with its pictures and fonts as data, and nothing that fetches or runs. */
async function inlineCss(css: string, base: string, parts: Parts, depth = 0): Promise<string> {
  const plain = await withImports(withoutComments(css), base, parts, depth);
  const targets = new Set<string>();
  mapUrls(plain, (target) => void targets.add(target));
  const urls = new Map<string, string>();
  for (const target of targets) {
    if (target.startsWith('data:')) continue;
    const url = absolute(target, base);
    const data = url === undefined ? undefined : await parts.dataUrl(url, FONT_OR_PICTURE);
    if (data !== undefined) urls.set(target, data);
  }
  return safeCss(mapUrls(plain, (target) => (urls.has(target) ? `url("${urls.get(target)!}")` : undefined)));
}

/** Takes out of CSS what fetches from outside or was once able to run. */
function safeCss(css: string): string {
  // Escapes could spell any of these words in another way (CSS Syntax 3, §4.3.7); nothing that is shown needs them.
  const plain = withoutRule(css.replace(/\\(?=[0-9a-z])/gi, ''), '@import');
  const bound = mapUrls(plain, (target) => (/^(?:data:|#)/i.test(target) ? undefined : 'none'));
  return bound
    .replace(/(?:-webkit-)?(?:image-set|cross-fade|src)\(/gi, 'x-removed(')
    .replace(/expression\(|expression\s|-moz-binding|behavior|javascript:/gi, 'x-removed');
}

/** Text of elements that show what is in them as it stands, which would be taken out with them. */
function keepPlainText(document: Document): void {
  for (const element of document.querySelectorAll('xmp, plaintext, listing')) {
    const text = document.createElement('pre');
    text.textContent = element.textContent;
    element.replaceWith(text);
  }
}

/** Returns how many could not be had. */
async function inlinePictures(document: Document, base: string, parts: Parts): Promise<number> {
  let lost = 0;
  for (const picture of document.querySelectorAll('img')) {
    const wanted = picture.getAttribute('src') || picture.getAttribute('data-src') || '';
    picture.removeAttribute('srcset');
    picture.removeAttribute('loading');
    if (isPictureData(wanted)) continue;
    const url = absolute(wanted, base);
    const data = url === undefined ? undefined : await parts.dataUrl(url, PICTURE);
    if (data === undefined) {
      picture.removeAttribute('src');
      if (wanted !== '') lost += 1;
    } else picture.setAttribute('src', data);
  }
  for (const source of document.querySelectorAll('picture > source')) source.remove();
  return lost;
}

function absolute(url: string, base: string): string | undefined {
  return url !== '' && URL.canParse(url, base) ? new URL(url, base).href : undefined;
}
