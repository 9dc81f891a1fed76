/** What somebody typed as gigabytes or a number of people: null for nothing, NaN for what is none. */
export function typedNumber(text: string): number | null {
  const plain = text.trim().replace(',', '.');
  return plain === '' ? null : Number(plain);
}

/** The word for a school's address that its name suggests: small letters and digits, with dashes between. */
export function slugOf(name: string): string {
  return name
    .normalize('NFKD')
    .toLowerCase()
    .replace(/\p{M}/gu, '')
    .replace(/[^a-z0-9]+/g, '-')
    .replace(/^-+|-+$/g, '')
    .slice(0, 40)
    .replace(/-+$/, '');
}
