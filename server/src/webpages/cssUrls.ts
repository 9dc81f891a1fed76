/**
 * Every `url(…)` of a style sheet through a function; undefined leaves it as it is. Goes over the text once,
 * whatever it is made of (CSS Syntax 3, §4.3.6, as far as sheets in the wild keep to it).
 */
export function mapUrls(css: string, change: (target: string) => string | undefined): string {
  const lower = css.toLowerCase();
  let out = '';
  let at = 0;
  for (;;) {
    const start = lower.indexOf('url(', at);
    const end = start < 0 ? -1 : endOf(css, start + 4);
    if (end < 0) return out + css.slice(at, start < 0 ? undefined : start) + (start < 0 ? '' : 'none');
    const changed = change(bare(css.slice(start + 4, end)));
    out += css.slice(at, start) + (changed ?? css.slice(start, end + 1));
    at = end + 1;
  }
}

/** Where the closing bracket is: after the second quote where the address is quoted; -1 where there is none. */
function endOf(css: string, from: number): number {
  let at = from;
  while (isSpace(css.charCodeAt(at))) at += 1;
  const quote = css[at];
  if (quote !== '"' && quote !== "'") return css.indexOf(')', at);
  const closing = css.indexOf(quote, at + 1);
  return closing < 0 ? -1 : css.indexOf(')', closing);
}

function bare(text: string): string {
  const trimmed = text.trim();
  const quoted = trimmed.length > 1 && (trimmed.startsWith('"') || trimmed.startsWith("'"));
  return quoted ? trimmed.slice(1, -1) : trimmed;
}

function isSpace(code: number): boolean {
  return code === 32 || (code >= 9 && code <= 13);
}

/** A style sheet without its comments. */
export function withoutComments(css: string): string {
  let out = '';
  let at = 0;
  for (;;) {
    const start = css.indexOf('/*', at);
    if (start < 0) return out + css.slice(at);
    out += css.slice(at, start);
    const end = css.indexOf('*/', start + 2);
    if (end < 0) return out;
    at = end + 2;
  }
}

/** A style sheet without rules of a kind that end with a semicolon, such as `@import`. */
export function withoutRule(css: string, rule: string): string {
  const lower = css.toLowerCase();
  let out = '';
  let at = 0;
  for (;;) {
    const start = lower.indexOf(rule, at);
    if (start < 0) return out + css.slice(at);
    out += css.slice(at, start);
    const end = css.indexOf(';', start);
    if (end < 0) return out;
    at = end + 1;
  }
}

/** What a style sheet imports: the addresses as they are written, and for which media. */
export function importsOf(css: string): { target: string; media: string }[] {
  const lower = css.toLowerCase();
  const found: { target: string; media: string }[] = [];
  for (let at = lower.indexOf('@import'); at >= 0; at = lower.indexOf('@import', at + 7)) {
    const end = css.indexOf(';', at);
    const rule = css.slice(at + 7, end < 0 ? undefined : end).trim();
    const bare = rule.toLowerCase().startsWith('url(') ? rule.slice(4).trimStart() : rule;
    const quote = bare[0] === '"' || bare[0] === "'" ? bare[0] : undefined;
    const from = quote ? 1 : 0;
    const to = quote ? bare.indexOf(quote, 1) : bare.search(/[\s)]|$/);
    if (to < from) continue;
    const rest = bare.slice(to + (quote ? 1 : 0)).trimStart();
    found.push({ target: bare.slice(from, to), media: (rest.startsWith(')') ? rest.slice(1) : rest).trim() });
  }
  return found;
}
