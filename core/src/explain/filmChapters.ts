/** A chapter of a film; `at` in milliseconds. */
export interface FilmChapter {
  readonly at: number;
  readonly name: string;
}

/** IDs of RFC 9559 (Matroska Media Container Format), §5.1, which are written as they stand. */
const EBML = {
  segment: 0x18538067,
  seekHead: 0x114d9b74,
  seek: 0x4dbb,
  seekId: 0x53ab,
  tags: 0x1254c367,
  chapters: 0x1043a770,
  edition: 0x45b9,
  chapter: 0xb6,
  uid: 0x73c4,
  start: 0x91,
  end: 0x92,
  display: 0x80,
  string: 0x85,
  language: 0x437c,
  void: 0xec,
} as const;

/** The list counts in one byte. */
const MOST_MP4_CHAPTERS = 255;
const UNITS_PER_MS = 1e4;
const NS_PER_MS = 1e6;

/** How many bytes a WebM file has to keep free in its tags for its chapters. */
export function webmChapterRoom(chapters: readonly FilmChapter[]): number {
  return chaptersElement(chapters, 0).length + 16;
}

/**
 * A WebM file with chapters in the place of its tags, which have to have been made large enough for them (`webmChapterRoom`), so
 * that nothing else moves. RFC 9559, §5.1.7; `length` is that of the film, milliseconds. Throws a RangeError where there is no
 * room.
 */
export function withWebmChapters(
  file: Uint8Array,
  chapters: readonly FilmChapter[],
  length: number,
): Uint8Array {
  const out = file.slice();
  const tags = elementsOf(out).find(({ id, parent }) => id === EBML.tags && parent === EBML.segment);
  if (!tags) throw new RangeError('There is no room for chapters.');
  const made = chaptersElement(chapters, length);
  const left = tags.end - tags.start - made.length;
  if (left < 9) throw new RangeError('There is no room for chapters.');
  out.set(made, tags.start);
  // Empty space with a size of eight bytes, which fits whatever is left.
  out.set(
    joined([bytesOf(EBML.void, 1), sized(left - 9, 8), new Uint8Array(left - 9)]),
    tags.start + made.length,
  );
  for (const { content, end } of elementsOf(out).filter(({ id }) => id === EBML.seekId)) {
    const sought = new DataView(out.buffer, content, end - content);
    if (sought.byteLength === 4 && sought.getUint32(0) === EBML.tags) sought.setUint32(0, EBML.chapters);
  }
  return out;
}

interface Element {
  id: number;
  parent: number | undefined;
  start: number;
  content: number;
  end: number;
}

const CONTAINERS: readonly number[] = [EBML.segment, EBML.seekHead, EBML.seek];

/** The elements of a file that matter here, in their order, with those that lie within them after them. */
function elementsOf(file: Uint8Array, from = 0, to = file.length, parent?: number): Element[] {
  const found: Element[] = [];
  let at = from;
  while (at < to) {
    const idLength = Math.clz32(file[at]!) - 23;
    const id = numberIn(file.subarray(at, at + idLength));
    const sizeAt = at + idLength;
    const sizeLength = Math.clz32(file[sizeAt]!) - 23;
    const content = sizeAt + sizeLength;
    const marker = 1 << (8 - sizeLength);
    const size = numberIn([file[sizeAt]! & (marker - 1), ...file.subarray(sizeAt + 1, content)]);
    const end = Math.min(to, content + size);
    found.push({ id, parent, start: at, content, end });
    if (CONTAINERS.includes(id)) found.push(...elementsOf(file, content, end, id));
    at = end;
  }
  return found;
}

function chaptersElement(chapters: readonly FilmChapter[], length: number): Uint8Array {
  const atoms = chapters.map(({ at, name }, i) => {
    const ends = Math.max(at, chapters[i + 1]?.at ?? length);
    return element(EBML.chapter, [
      element(EBML.uid, [bytesOf(i + 1)]),
      element(EBML.start, [bytesOf(at * NS_PER_MS)]),
      element(EBML.end, [bytesOf(ends * NS_PER_MS)]),
      element(EBML.display, [
        element(EBML.string, [new TextEncoder().encode(name)]),
        element(EBML.language, [new TextEncoder().encode('und')]),
      ]),
    ]);
  });
  return element(EBML.chapters, [element(EBML.edition, atoms)]);
}

function element(id: number, parts: readonly Uint8Array[]): Uint8Array {
  const content = joined(parts);
  const idBytes = id > 0xffffff ? 4 : id > 0xff ? 2 : 1;
  return joined([bytesOf(id, idBytes), sized(content.length, 4), content]);
}

/** A length as EBML writes it (RFC 8794, §6), in so many bytes. */
function sized(value: number, bytes: number): Uint8Array {
  const out = bytesOf(value, bytes);
  out[0]! |= 1 << (8 - bytes);
  return out;
}

const numberIn = (bytes: Iterable<number>) => [...bytes].reduce((sum, byte) => sum * 256 + byte, 0);

/** A whole number, the most significant byte first. */
function bytesOf(value: number, bytes = 8): Uint8Array {
  const out = new Uint8Array(bytes);
  let left = Math.round(value);
  for (let i = bytes - 1; i >= 0; i--) {
    out[i] = left % 256;
    left = Math.floor(left / 256);
  }
  return out;
}

function joined(parts: readonly Uint8Array[]): Uint8Array {
  const out = new Uint8Array(parts.reduce((sum, { length }) => sum + length, 0));
  let at = 0;
  for (const part of parts) {
    out.set(part, at);
    at += part.length;
  }
  return out;
}

/**
 * An MP4 file (ISO/IEC 14496-12) whose index lies at its end, with chapters in a list of the user's data of the whole
 * presentation (`moov/udta/chpl`); common practice, no standard: FFmpeg reads and writes it so. Those after the 255th are left
 * out. Throws a RangeError where the index is not the last box.
 */
export function withMp4Chapters(file: Uint8Array, chapters: readonly FilmChapter[]): Uint8Array {
  const moov = lastBox(file);
  if (moov.kind !== 'moov') throw new RangeError('There is no room for chapters.');
  const list = chapters.slice(0, MOST_MP4_CHAPTERS).map(({ at, name }) => {
    const said = shortened(name, 255);
    return joined([bytesOf(at * UNITS_PER_MS), bytesOf(said.length, 1), said]);
  });
  const head = [bytesOf(0x01000000, 4), bytesOf(0, 4), bytesOf(list.length, 1)];
  const added = box('udta', [box('chpl', [...head, ...list])]);
  const out = joined([file, added]);
  new DataView(out.buffer).setUint32(moov.start, file.length - moov.start + added.length);
  return out;
}

function lastBox(file: Uint8Array): { kind: string; start: number } {
  const view = new DataView(file.buffer, file.byteOffset, file.byteLength);
  let last = { kind: '', start: 0 };
  let at = 0;
  while (at + 8 <= file.length) {
    const short = view.getUint32(at);
    const size = short === 1 ? Number(view.getBigUint64(at + 8)) : short;
    last = { kind: new TextDecoder().decode(file.subarray(at + 4, at + 8)), start: at };
    at += size === 0 ? file.length : Math.max(8, size);
  }
  return last;
}

function box(kind: string, parts: readonly Uint8Array[]): Uint8Array {
  const content = joined(parts);
  return joined([bytesOf(content.length + 8, 4), new TextEncoder().encode(kind), content]);
}

/** Words in UTF-8, as many of their letters as fit into so many bytes. */
function shortened(words: string, most: number): Uint8Array {
  let all = [...words];
  while (new TextEncoder().encode(all.join('')).length > most) all = all.slice(0, -1);
  return new TextEncoder().encode(all.join(''));
}
