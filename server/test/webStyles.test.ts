import * as cssTree from 'css-tree';
import fc from 'fast-check';
import { JSDOM } from 'jsdom';
import { describe, expect, it } from 'vitest';
import { copyPage } from '../src/webpages/pageCopy.js';
import { mapUrls, withoutComments, withoutRule } from '../src/webpages/cssUrls.js';

/** The addresses that a parser made for the standard finds (css-tree, after CSS Syntax 3). */
function addressesIn(css: string): string[] {
  const found: string[] = [];
  cssTree.walk(cssTree.parse(css), (node) => {
    if (node.type === 'Url') found.push(node.value);
  });
  return found;
}

const addressesSeen = (css: string): string[] => {
  const seen: string[] = [];
  mapUrls(css, (target) => void seen.push(target));
  return seen;
};

const target = fc.string({ unit: fc.constantFrom(...'abcz09/._-:?=&%#'), minLength: 1, maxLength: 20 });
const space = fc.constantFrom('', ' ', '\n', '\t  ', '\r\n');
const written = fc
  .tuple(target, space, space, fc.constantFrom('', '"', "'"), fc.constantFrom('url(', 'URL(', 'Url('))
  .map(([address, before, after, quote, name]) => `${name}${before}${quote}${address}${quote}${after})`);
const rule = fc
  .tuple(written, fc.constantFrom('background', 'list-style-image', 'border-image', 'cursor'))
  .map(([url, property]) => `p { ${property}: ${url}; color: red }`);
const sheet = fc.array(rule, { maxLength: 6 }).map((rules) => rules.join('\n'));

describe('style sheets', () => {
  it('have the addresses that css-tree finds in them, however they are written', () => {
    fc.assert(
      fc.property(sheet, (css) => {
        expect(addressesSeen(css)).toEqual(addressesIn(css));
      }),
    );
  });

  it('are still sheets when every address is changed, and say what they were changed to', () => {
    fc.assert(
      fc.property(sheet, (css) => {
        const changed = mapUrls(css, () => 'url("data:,x")');
        expect(addressesIn(changed)).toEqual(addressesIn(css).map(() => 'data:,x'));
        expect(changed.match(/color: red/g)?.length).toBe(css.match(/color: red/g)?.length);
      }),
    );
  });

  it('are untouched where nothing is changed', () => {
    fc.assert(
      fc.property(sheet, (css) => {
        expect(mapUrls(css, () => undefined)).toBe(css);
      }),
    );
  });

  it('lose their comments and nothing else', () => {
    fc.assert(
      fc.property(fc.array(fc.tuple(rule, fc.string({ maxLength: 10 }))), (parts) => {
        const clean = parts.map(([css, note]) => [css, note.replaceAll('*/', '')] as const);
        const commented = clean.map(([css, note]) => `${css}/*${note}*/`).join('');
        expect(withoutComments(commented)).toBe(clean.map(([css]) => css).join(''));
      }),
    );
  });

  it('that break off in the middle lose what is unfinished', () => {
    expect(withoutComments('a { color: red } /* and then')).toBe('a { color: red } ');
    expect(mapUrls('a { color: red; background: url(', () => 'no')).toBe('a { color: red; background: none');
    expect(mapUrls('a { background: url("x', () => 'no')).toBe('a { background: none');
    expect(withoutRule('a { color: red } @IMPORT "x.css"', '@import')).toBe('a { color: red } ');
  });
});

/** Every way that HTML and SVG know to fetch something (HTML §§2.5, 4.2–4.8; SVG 2 §16; CSS Images 4 §2). */
const FETCHERS = [
  '<img src="//evil.example/a">',
  '<img src="https:evil.example/a" srcset="//evil.example/b 2x">',
  '<picture><source srcset="https://evil.example/a"><img alt="x"></picture>',
  '<video src="https://evil.example/a" poster="https://evil.example/b"></video>',
  '<audio src="https://evil.example/a"><source src="https://evil.example/b"></audio>',
  '<input type="image" src="https://evil.example/a">',
  '<table background="https://evil.example/a"><tr><td background="https://evil.example/b">x</table>',
  '<body background="https://evil.example/a">',
  '<embed src="https://evil.example/a">',
  '<track src="https://evil.example/a">',
  '<svg><image href="https://evil.example/a"/></svg>',
  '<svg xmlns:xlink="http://www.w3.org/1999/xlink"><image xlink:href="https://evil.example/a"/></svg>',
  '<svg><use href="https://evil.example/a#b"/></svg>',
  '<svg><filter><feImage href="https://evil.example/a"/></filter></svg>',
  '<svg><rect fill="url(https://evil.example/a#b)"/></svg>',
  '<svg><rect style="mask: url(https://evil.example/a#b)"/></svg>',
  '<svg><style>rect { filter: url(https://evil.example/a#b) }</style></svg>',
  '<p style="background: image-set(\'https://evil.example/a\' 1x)">x</p>',
  '<p style="background: -webkit-image-set(url(https://evil.example/a) 1x)">x</p>',
  '<p style="background: u\\72l(https://evil.example/a)">x</p>',
  '<p style="background: \\75\\72\\6c(https://evil.example/a)">x</p>',
  '<p style="content: url(  \'https://evil.example/a\'  )">x</p>',
  '<style>@import url(https://evil.example/a);</style>',
  '<style>@im\\port "https://evil.example/a";</style>',
  '<style>@font-face { font-family: x; src: url(https://evil.example/a) format("woff") }</style>',
  '<style>p { background: image-set("https://evil.example/a" 1x) }</style>',
  '<style>p { background: url(/**/https://evil.example/a) }</style>',
  '<style>p { cursor: URL(https://evil.example/a), auto }</style>',
  '<link rel="preload" as="image" href="https://evil.example/a">',
  '<link rel="dns-prefetch" href="//evil.example">',
  '<link rel="icon" href="https://evil.example/a">',
  '<meta http-equiv="refresh" content="0; url=https://evil.example/">',
];

describe('copies of web pages', () => {
  it.each(FETCHERS)('fetch nothing when they are looked at: %s', async (fetcher) => {
    const { html } = await copyPage(`<p>Before</p>${fetcher}`, 'https://page.example/', () =>
      Promise.resolve(undefined),
    );
    const { document } = new JSDOM(html).window;
    const all = [...document.querySelectorAll('*')];
    const outside = all.flatMap((element) =>
      [...element.attributes]
        .filter(
          ({ name, value }) =>
            !['data-source', 'data-leads', 'style'].includes(name) && /evil\.example/i.test(value),
        )
        .map(({ name }) => `${element.tagName} ${name}`),
    );
    expect(outside).toEqual([]);
    const inline = all.map((element) => `p { ${element.getAttribute('style') ?? ''} }`);
    const sheets = [...document.querySelectorAll('style')].map(({ textContent }) => textContent);
    for (const css of [...inline, ...sheets]) {
      expect(addressesIn(css).filter((address) => !/^(data:|#)/.test(address))).toEqual([]);
      expect(css).not.toMatch(/@import|(^|[^-\w])(-webkit-)?image-set\(/i);
    }
    expect(document.body.textContent).toContain('Before');
  });

  it('note where links lead, follow none, and keep those to places on the page', async () => {
    const links = [
      '/pier#a',
      'https://mill.example/x',
      'mailto:ada@mill.example',
      '#arch',
      '/bridges#arch',
      'javascript:x()',
    ];
    const markup = links.map((href) => `<a href="${href}" data-leads="javascript:y()">x</a>`).join('');
    const { html } = await copyPage(markup, 'https://page.example/bridges', () => Promise.resolve(undefined));
    const found = [...new JSDOM(html).window.document.querySelectorAll('a')].map((link) => [
      link.getAttribute('href'),
      link.getAttribute('data-leads'),
    ]);
    expect(found).toEqual([
      [null, 'https://page.example/pier#a'],
      [null, 'https://mill.example/x'],
      [null, 'mailto:ada@mill.example'],
      ['#arch', null],
      ['#arch', null],
      [null, null],
    ]);
  });
});
