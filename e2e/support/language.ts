import type { Browser, Page } from '@playwright/test';

/** Chooses a language before anything is loaded, as somebody has who was here before. */
export async function speakIn(page: Page, language: string): Promise<void> {
  await page.addInitScript((tag) => localStorage.setItem('doodla.language', tag), language);
}

/** A page of a new visitor, in a language. */
export async function visitorIn(
  browser: Browser,
  url: string,
  language: string,
  viewport = { width: 1280, height: 800 },
): Promise<Page> {
  const page = await (await browser.newContext({ baseURL: url, viewport })).newPage();
  await speakIn(page, language);
  return page;
}

/**
 * Words that are shown or read out although they are in no language file: those with three plain letters or more in a
 * row. Texts of the pseudo-language have none; `data` is what people and files are called.
 */
export function untranslated(page: Page, data: readonly string[]): Promise<string[]> {
  return page.evaluate((known) => {
    const said: string[] = [];
    const seen = (element: Element | null) =>
      element?.checkVisibility({ visibilityProperty: true }) &&
      !element.closest('option, kbd, [lang]:not(html)');
    const walker = document.createTreeWalker(document.body, NodeFilter.SHOW_TEXT);
    for (let node = walker.nextNode(); node; node = walker.nextNode())
      if (seen(node.parentElement)) said.push(node.textContent!);
    for (const element of document.querySelectorAll('[aria-label], [title], [placeholder], [alt]'))
      if (seen(element))
        for (const name of ['aria-label', 'title', 'placeholder', 'alt'])
          said.push(element.getAttribute(name) ?? '');
    // As `Intl` writes them where it does not know the language.
    const dates = /\d+ \w{3} \d{4}, \d\d:\d\d|\d+ (second|minute)s? ago|\bnow\b/g;
    const withoutData = (text: string) =>
      known.reduce((left, word) => left.replaceAll(word, ''), text.replace(dates, ''));
    return [...new Set(said.filter((text) => /[a-z]{3}/i.test(withoutData(text))))];
  }, data);
}

/** Buttons and labels whose own text does not fit into them: it is cut, or reaches over what is beside them. */
export function cutTexts(page: Page): Promise<string[]> {
  return page.evaluate(() => {
    const holders = [...document.querySelectorAll('button, a, label, h1, h2, p, span')];
    return holders
      .filter((element) => {
        const style = getComputedStyle(element);
        const { width } = element.getBoundingClientRect();
        const hides = style.overflowX !== 'visible' && !/auto|scroll/.test(style.overflowX);
        // Titles of people's own may end in dots.
        const ends = style.textOverflow === 'ellipsis' || style.webkitLineClamp !== 'none';
        const outgrows = element.tagName === 'BUTTON' || hides;
        return width > 2 && outgrows && !ends && element.scrollWidth > element.clientWidth + 1;
      })
      .map((element) => element.textContent.trim().slice(0, 60));
  });
}
