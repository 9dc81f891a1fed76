/** Text as it stands in XML (XML 1.0 §2.4); what XML cannot hold (§2.2) is left out. */
export function xmlText(text: string): string {
  return text
    .replace(FORBIDDEN, '')
    .replaceAll('&', '&amp;')
    .replaceAll('<', '&lt;')
    .replaceAll('>', '&gt;')
    .replaceAll('"', '&quot;');
}

// eslint-disable-next-line no-control-regex -- these are the characters that XML 1.0 does not allow
const FORBIDDEN = /[\u0000-\u0008\u000b\u000c\u000e-\u001f\ufffe\uffff]/g;

/** An element with its attributes; those that are undefined are left out. */
export function element(
  name: string,
  attributes: Readonly<Record<string, string | number | undefined>> = {},
  content = '',
): string {
  const all = Object.entries(attributes)
    .filter(([, value]) => value !== undefined)
    .map(([key, value]) => ` ${key}="${typeof value === 'number' ? decimal(value) : xmlText(String(value))}"`)
    .join('');
  return content === '' ? `<${name}${all}/>` : `<${name}${all}>${content}</${name}>`;
}

/** A number to a thousandth. */
export function decimal(value: number): string {
  return String(Math.round(value * 1000) / 1000);
}
