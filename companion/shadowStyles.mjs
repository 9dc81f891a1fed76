/**
 * Style sheets that go into a shadow root: sizes that follow the page's own letters would change with every page, and registered
 * properties count in documents only, so their first values are set as the older rules do that browsers without them need.
 */
export function shadowStyles() {
  return {
    name: 'shadow-styles',
    enforce: 'post',
    transform(code, id) {
      if (!/\.css\?inline/.test(id)) return undefined;
      return { code: forShadow(code), map: null };
    },
  };
}

/** @param {string} css @returns {string} */
export function forShadow(css) {
  return css
    .replace(/([{;]\s*[\w-]+\s*:)([^;{}]*)/g, (_, name, value) => name + inPixels(value))
    .replace(/@supports \(+-webkit-hyphens: ?none[^{]*\{/g, '@supports (display: block) {')
    .replace(/@property\s+--[\w-]+\s*\{[^}]*\}/g, '');
}

/** A value whose sizes follow nobody's letters. */
function inPixels(value) {
  return value.replace(/(\d*\.?\d+)rem\b/g, (_, size) => `${Number(size) * 16}px`);
}
