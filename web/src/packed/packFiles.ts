import type { PackedExplanation } from '@doodla/core/explain';
import type { MadeFile } from '@doodla/core/formats';
import { zipFiles } from '@doodla/core/formats';
import { strFromU8, strToU8, unzipSync } from 'fflate';
import { t } from '../words';

/** An explanation and what is played with it: one ZIP file. */
export interface PackFiles {
  readonly explanation: PackedExplanation;
  /** What something else than Doodla draws of pages, by page. */
  readonly grounds: ReadonlyMap<string, Blob>;
  /** By material. */
  readonly pictures: ReadonlyMap<string, Blob>;
  /** By take. */
  readonly sounds: ReadonlyMap<string, Blob>;
  readonly videos: ReadonlyMap<string, Blob>;
  readonly faces: ReadonlyMap<string, Blob>;
}

const EXPLANATION = 'explanation.json';
const FOLDERS = ['grounds', 'pictures', 'sounds', 'videos', 'faces'] as const;
type Folder = (typeof FOLDERS)[number];
/** Endings by which a reader knows what a file is, and what is compressed already. */
const ENDINGS: Readonly<Record<string, string>> = {
  'image/webp': 'webp',
  'image/png': 'png',
  'audio/webm': 'weba',
  'audio/mp4': 'm4a',
  'video/webm': 'webm',
  'video/mp4': 'mp4',
};
const FILE = /^(\w+)\/(.+)\.(\w+)$/;
/** Most bytes that are unpacked of what somebody else has packed. */
const MOST_BYTES = 2_000_000_000;

const endingOf = (type: string) => ENDINGS[type.split(';')[0]!] ?? 'bin';

/** Packs it into one file. */
export async function writePack(files: PackFiles): Promise<Blob> {
  const pieces: Uint8Array<ArrayBuffer>[] = [];
  await zipFiles(filesOf(files), (piece) => pieces.push(piece as Uint8Array<ArrayBuffer>));
  return new Blob(pieces, { type: 'application/zip' });
}

async function* filesOf(files: PackFiles): AsyncGenerator<MadeFile> {
  yield { name: EXPLANATION, bytes: strToU8(JSON.stringify(files.explanation)) };
  for (const folder of FOLDERS)
    for (const [id, blob] of files[folder]) {
      const name = `${folder}/${encodeURIComponent(id)}.${endingOf(blob.type)}`;
      yield { name, bytes: new Uint8Array(await blob.arrayBuffer()) };
    }
}

/** Unpacks a file. Throws an error with a sentence where it is none. */
export function readPack(bytes: Uint8Array): PackFiles {
  const unpacked = unpack(bytes);
  const explanation = unpacked[EXPLANATION] && explanationIn(unpacked[EXPLANATION]);
  if (!explanation) throw new Error(t('explain.packUnreadable'));
  const found: Record<Folder, Map<string, Blob>> = {
    grounds: new Map(),
    pictures: new Map(),
    sounds: new Map(),
    videos: new Map(),
    faces: new Map(),
  };
  for (const [name, content] of Object.entries(unpacked)) {
    const [, folder, id, ending] = FILE.exec(name) ?? [];
    if (!isFolder(folder) || id === undefined) continue;
    const type = Object.keys(ENDINGS).find((one) => ENDINGS[one] === ending) ?? '';
    found[folder].set(decodeURIComponent(id), new Blob([content as Uint8Array<ArrayBuffer>], { type }));
  }
  return { explanation, ...found };
}

const isFolder = (name: string | undefined): name is Folder => FOLDERS.some((one) => one === name);

function unpack(bytes: Uint8Array): Record<string, Uint8Array> {
  let sum = 0;
  const isWanted = ({ originalSize }: { originalSize: number }) => (sum += originalSize) <= MOST_BYTES;
  try {
    return unzipSync(bytes, { filter: isWanted });
  } catch {
    // No ZIP file, or one that was cut off.
    return {};
  }
}

/** Undefined where it is no explanation, or one of a later version. */
function explanationIn(json: Uint8Array): PackedExplanation | undefined {
  try {
    const value = JSON.parse(strFromU8(json)) as Partial<PackedExplanation> | null;
    const lists = [value?.played, value?.pages, value?.stops, value?.chapters, value?.cues];
    const isOne =
      value?.version === 1 && lists.every(Array.isArray) && Array.isArray(value.recorded?.operations);
    return isOne ? (value as PackedExplanation) : undefined;
  } catch {
    // Cut off, or something else.
    return undefined;
  }
}
