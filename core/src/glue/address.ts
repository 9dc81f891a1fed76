/** Parts of a page that no address names: a fragment with one of these leads to a page of its own (single-page routes). */
const ROUTE = /^!|[/?=]/;

/**
 * The address under which the marks of a web page are kept. A fragment that only scrolls is left out; one that is the route of a
 * single-page application is kept, and so is what is asked for (RFC 3986 §3.4 and §3.5). Text fragments (the directive after
 * `:~:`) and credentials never belong to it.
 */
export function addressOf(href: string): string {
  const url = new URL(href);
  url.username = '';
  url.password = '';
  const fragment = url.hash.slice(1).replace(/:~:.*$/, '');
  url.hash = ROUTE.test(fragment) ? fragment : '';
  // An empty fragment would still leave its sign.
  return url.href.replace(/#$/, '');
}

/** Whether pages of an address can be written on: those of the browser itself cannot. */
export function isWritable(href: string): boolean {
  return /^(https?|file):/.test(href);
}

/** A short name for an address, the same wherever it is asked for: two 32-bit FNV-1a sums (draft-eastlake-fnv-21), one of them backwards. */
export function shortName(address: string): string {
  let [there, back] = [0x811c9dc5, 0x811c9dc5];
  for (let i = 0; i < address.length; i++) {
    there = Math.imul(there ^ address.charCodeAt(i), 0x01000193);
    back = Math.imul(back ^ address.charCodeAt(address.length - 1 - i), 0x01000193);
  }
  return [there, back].map((sum) => (sum >>> 0).toString(36)).join('-');
}
