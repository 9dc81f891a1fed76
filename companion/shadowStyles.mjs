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
    .replace(/(\d*\.?\d+)rem\b/g, (_, value) => `${Number(value) * 16}px`)
    .replace(/@supports \(+-webkit-hyphens: ?none[^{]*\{/g, '@supports (display: block) {')
    .replace(/@property\s+--[\w-]+\s*\{[^}]*\}/g, '');
}
