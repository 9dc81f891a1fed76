/** Bytes as gigabytes of 1,000,000,000, with one place below ten. */
export function gigabytes(bytes: number): number {
  const gb = bytes / 1e9;
  return gb < 10 ? Math.round(gb * 10) / 10 : Math.round(gb);
}
