/** A join code in two halves, easier to read out and to type. */
export function spacedCode(code: string): string {
  const half = Math.ceil(code.length / 2);
  return `${code.slice(0, half)} ${code.slice(half)}`;
}
