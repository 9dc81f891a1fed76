/** What a corner is called: A, B, C … and A1 after Z. */
export function cornerLetter(i: number): string {
  const round = Math.floor(i / 26);
  return String.fromCharCode(65 + (i % 26)) + (round > 0 ? String(round) : '');
}
