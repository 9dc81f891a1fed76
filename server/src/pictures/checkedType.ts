import { imageSize } from 'image-size';
import { readFile } from 'node:fs/promises';
import { Problem } from '../http/problem.js';
import type { PictureType } from './picture.entity.js';

const MAX_PIXELS = 40_000_000;

/** First and last bytes of the formats that are kept: PNG (W3C PNG §5) and JPEG (ITU-T T.81 annex B). */
const FORMATS: Record<PictureType, { start: number[]; end: number[] }> = {
  png: { start: [0x89, 0x50, 0x4e, 0x47], end: [0x49, 0x45, 0x4e, 0x44, 0xae, 0x42, 0x60, 0x82] },
  jpeg: { start: [0xff, 0xd8, 0xff], end: [0xff, 0xd9] },
};

/** The format of an uploaded picture, by its first and last bytes and its size. Throws Problem. */
export async function checkedType(path: string): Promise<PictureType> {
  const bytes = await readFile(path);
  const type = (Object.keys(FORMATS) as PictureType[]).find((name) => isWhole(bytes, FORMATS[name]));
  if (!type || pixelsOf(bytes) > MAX_PIXELS) {
    throw new Problem(
      415,
      'not-a-picture',
      'This file is not a picture that can be shown. Please choose a PNG or JPEG.',
    );
  }
  return type;
}

function isWhole(bytes: Buffer, { start, end }: { start: number[]; end: number[] }): boolean {
  return (
    bytes.subarray(0, start.length).equals(Buffer.from(start)) &&
    bytes.subarray(-end.length).equals(Buffer.from(end))
  );
}

/** Width times height; infinite where the picture does not say. */
function pixelsOf(bytes: Buffer): number {
  try {
    const { width, height } = imageSize(bytes);
    return width * height;
  } catch {
    // A picture whose size cannot be told counts as too large.
    return Infinity;
  }
}
