/** Bytes one after the other as one. */
export function joined(pieces: readonly Uint8Array[]): Uint8Array<ArrayBuffer> {
  const bytes = new Uint8Array(pieces.reduce((sum, { length }) => sum + length, 0));
  let at = 0;
  for (const piece of pieces) {
    bytes.set(piece, at);
    at += piece.length;
  }
  return bytes;
}

/** The same bytes in pieces of which none has more than `most`; none where there are none. */
export function piecesOf(bytes: readonly Uint8Array[], most: number): Uint8Array<ArrayBuffer>[] {
  const all = joined(bytes);
  return Array.from({ length: Math.ceil(all.length / most) }, (_, i) => all.slice(i * most, (i + 1) * most));
}
