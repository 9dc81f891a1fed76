import { opusLength } from './opusPacket.js';

/** Elements of Matroska (RFC 9559 §5.1), by their ids. */
const SEGMENT = 0x18538067;
const CLUSTER = 0x1f43b675;
const SIMPLE_BLOCK = 0xa3;
const BLOCK_GROUP = 0xa0;
const BLOCK = 0xa1;

const OPENED: ReadonlySet<number> = new Set([SEGMENT, CLUSTER, BLOCK_GROUP]);
/** A block begins with the number of its track, its time within its cluster (16 bits) and its flags (RFC 9559 §10.1). */
const BLOCK_HEAD = 4;
/** What of a packet says how long it is. */
const PACKET_HEAD = 2;

interface Element {
  readonly id: number;
  /** Infinity where the file does not say. */
  readonly size: number;
  /** Where its content begins. */
  readonly content: number;
}

/**
 * Reads how much sound of Opus there is in a WebM file (RFC 9559) while it is recorded, from pieces cut anywhere. Not by its
 * times: where sound was lost some browsers leave a gap in them, others do not.
 */
export class WebmSound {
  private rest = new Uint8Array(0);
  /** Bytes of a content that are passed over. */
  private skipped = 0;
  private sum = 0;
  private isOther = false;

  /** How much has come, milliseconds; undefined where nothing has, or it is no WebM. */
  get length(): number | undefined {
    return this.isOther || this.sum === 0 ? undefined : this.sum;
  }

  add(piece: Uint8Array): void {
    if (this.isOther) return;
    const bytes = new Uint8Array(this.rest.length + piece.length);
    bytes.set(this.rest);
    bytes.set(piece, this.rest.length);
    let place = 0;
    while (place < bytes.length) {
      const passed = Math.min(this.skipped, bytes.length - place);
      this.skipped -= passed;
      place += passed;
      const element = place < bytes.length ? elementAt(bytes, place) : undefined;
      if (element === 'none') {
        this.isOther = true;
        return;
      }
      if (!element || !this.read(bytes, element)) break;
      place = element.content;
    }
    this.rest = bytes.slice(place);
  }

  /** Takes what an element says; false where not enough of it is there. */
  private read(bytes: Uint8Array, { id, size, content }: Element): boolean {
    if (OPENED.has(id)) return true;
    if (isBlock(id)) {
      const head = Math.min(size, BLOCK_HEAD + PACKET_HEAD);
      if (bytes.length - content < head) return false;
      this.sum += opusLength(bytes.subarray(content + BLOCK_HEAD, content + head));
    }
    this.skipped = size;
    return true;
  }
}

const isBlock = (id: number) => id === SIMPLE_BLOCK || id === BLOCK;

/** The head of an element (RFC 8794 §5, §6); undefined where it is cut off, `none` where there is none. */
function elementAt(bytes: Uint8Array, place: number): Element | 'none' | undefined {
  const idLength = Math.clz32(bytes[place]!) - 23;
  if (idLength > 4) return 'none';
  const sizeAt = place + idLength;
  if (sizeAt >= bytes.length) return undefined;
  const sizeLength = Math.clz32(bytes[sizeAt]!) - 23;
  if (sizeLength > 8) return 'none';
  const content = sizeAt + sizeLength;
  if (content > bytes.length) return undefined;
  const marker = 2 ** (7 * sizeLength);
  const size = numberAt(bytes, sizeAt, sizeLength) - marker;
  return { id: numberAt(bytes, place, idLength), size: size === marker - 1 ? Infinity : size, content };
}

function numberAt(bytes: Uint8Array, place: number, length: number): number {
  return bytes.subarray(place, place + length).reduce((sum, byte) => sum * 256 + byte, 0);
}
