/** A picture of a screen as luma, rows of bytes. */
export interface Frame {
  width: number;
  height: number;
  grey: Uint8Array;
}

/** Luma of RGBA pixels by the weights of ITU-R BT.601, as whole numbers. */
export function greyFrame(rgba: Uint8ClampedArray | Uint8Array, width: number, height: number): Frame {
  const pixels = new Uint32Array(rgba.buffer, rgba.byteOffset, width * height);
  const grey = new Uint8Array(width * height);
  for (let i = 0; i < grey.length; i++) {
    const pixel = pixels[i]!;
    // Bytes lie in the order R, G, B, A on every platform that browsers run on.
    grey[i] = ((pixel & 255) * 77 + ((pixel >>> 8) & 255) * 150 + ((pixel >>> 16) & 255) * 29) >>> 8;
  }
  return { width, height, grey };
}
