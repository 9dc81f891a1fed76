import { hasExactly } from '../checks/fields.js';
import type { WireMark } from '../live/wire.js';
import { packMark, unpackedInput, unpackMark } from '../live/wire.js';
import { isMark } from '../marks/check.js';
import type { Mark } from '../marks/mark.js';
import type { Glue } from './glue.js';
import { isGlue } from './glue.js';

/** A mark on a web page, and what it belongs to there. */
export interface GluedMark {
  mark: Mark;
  glue: Glue;
}

/** A glued mark as it is kept: the points of ink packed. */
export interface KeptMark {
  mark: WireMark;
  glue: Glue;
}

export const keptOf = ({ mark, glue }: GluedMark): KeptMark => ({ mark: packMark(mark), glue });

export const gluedOf = ({ mark, glue }: KeptMark): GluedMark => ({ mark: unpackMark(mark), glue });

/** What was kept or came from a file, read again; undefined where it is no glued mark. */
export function readGlued(value: unknown): GluedMark | undefined {
  const { mark, glue } = (value ?? {}) as { mark?: unknown; glue?: unknown };
  const [change] = unpackedInput([{ do: 'add', mark }]) as [{ mark: unknown }];
  const read = { mark: change.mark, glue };
  return hasExactly(read, { mark: isMark, glue: isGlue }) ? (read as GluedMark) : undefined;
}
