/** Kept of one web page. */
const MOST_LETTERS = 200_000;
/** Elements whose content is not read. */
const UNREAD = ['style', 'script', 'title', 'template'];

const NAMED: Record<string, string> = { amp: '&', lt: '<', gt: '>', quot: '"', apos: "'", nbsp: ' ' };

/**
 * The words of a web page that `pageCopy` has written, tags left out. Serialised HTML escapes `<` in text and names no
 * characters but those of `NAMED` (HTML Living Standard, §13.3), so that no parser is needed.
 */
export function wordsOfHtml(html: string): string {
  const parts: string[] = [];
  let letters = 0;
  for (let at = 0; at < html.length && letters < MOST_LETTERS;) {
    const tag = html.indexOf('<', at);
    const text = html.slice(at, tag < 0 ? undefined : tag);
    parts.push(text);
    letters += text.length;
    if (tag < 0) break;
    at = afterTag(html, tag);
  }
  return decoded(parts.join(' ')).replace(/\s+/g, ' ').trim().slice(0, MOST_LETTERS);
}

/** Where it goes on after a tag, a comment, or an element that is not read. */
function afterTag(html: string, tag: number): number {
  if (html.startsWith('<!--', tag)) return after(html, '-->', tag);
  const name = /^[a-z]+/i.exec(html.slice(tag + 1, tag + 12))?.[0].toLowerCase();
  if (name !== undefined && UNREAD.includes(name)) return after(html, `</${name}>`, tag);
  return after(html, '>', tag);
}

function after(html: string, end: string, from: number): number {
  const at = html.indexOf(end, from);
  return at < 0 ? html.length : at + end.length;
}

function decoded(text: string): string {
  return text.replace(/&(#\d{1,7}|[a-z]{2,4});/g, (all, name: string) => {
    if (!name.startsWith('#')) return NAMED[name] ?? all;
    const code = Number(name.slice(1));
    return code <= 0x10ffff ? String.fromCodePoint(code) : all;
  });
}
