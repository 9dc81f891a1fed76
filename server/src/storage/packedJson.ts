import { deflateRawSync, inflateRawSync } from 'node:zlib';

/** Shorter texts gain nothing by being packed. */
const WORTH_PACKING = 160;
const PLAIN = Buffer.from([0]);
const DEFLATED = Buffer.from([1]);

/** A value as JSON, deflated (RFC 1951) where that makes it smaller; the first byte says which. */
export function packJson(value: unknown): Buffer {
  const text = Buffer.from(JSON.stringify(value));
  if (text.length < WORTH_PACKING) return Buffer.concat([PLAIN, text]);
  return Buffer.concat([DEFLATED, deflateRawSync(text, { level: 3 })]);
}

/** The value that `packJson` packed. Throws where the bytes are damaged. */
export function unpackJson<T>(bytes: Buffer): T {
  const body = bytes.subarray(1);
  const text = bytes[0] === DEFLATED[0] ? inflateRawSync(body) : body;
  return JSON.parse(text.toString()) as T;
}
