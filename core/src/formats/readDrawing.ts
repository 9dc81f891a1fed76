import { strFromU8 } from 'fflate';
import { readInkMl } from './readInkMl.js';
import type { ReadMark } from './readMark.js';
import { UnreadableFile } from './readMark.js';
import { readSlideInk } from './readSlideInk.js';
import { readSvg } from './readSvg.js';

/** What was read of a file: marks for one page or several, and how many parts could not become marks. */
export interface ReadFile {
  pages: ReadMark[][];
  left: number;
}

/** `PK`, with which every zip begins. */
const ZIP = [0x50, 0x4b];

/** Marks from a file that others made: ink (InkML), a drawing (SVG) or ink on slides (.pptx), by what is in it. Throws UnreadableFile. */
export function readDrawing(bytes: Uint8Array, room: { width: number; height: number }): ReadFile {
  if (ZIP.every((byte, i) => bytes[i] === byte)) return { pages: readSlideInk(bytes, room), left: 0 };
  const text = strFromU8(bytes);
  if (/<(\w+:)?ink[\s>]/.test(text)) return { pages: readInkMl(text, room), left: 0 };
  if (!/<svg[\s>]/.test(text)) throw new UnreadableFile();
  const { marks, left } = readSvg(text, room);
  return { pages: [marks], left };
}
