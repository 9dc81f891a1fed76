/** How long the frames of a packet are, milliseconds, by its configuration (RFC 6716, table 2). */
const SILK = [10, 20, 40, 60] as const;
const HYBRID = [10, 20] as const;
const CELT = [2.5, 5, 10, 20] as const;
const FIRST_HYBRID = 12;
const FIRST_CELT = 16;

/** How long a packet of Opus lasts, milliseconds, by its first two bytes (RFC 6716 §3.1, §3.2). */
export function opusLength(packet: Uint8Array): number {
  const [head, second = 0] = packet;
  if (head === undefined) return 0;
  const config = head >> 3;
  const frame =
    config < FIRST_HYBRID ? SILK[config % 4]! : config < FIRST_CELT ? HYBRID[config % 2]! : CELT[config % 4]!;
  const code = head & 3;
  return frame * (code === 0 ? 1 : code === 3 ? second & 0x3f : 2);
}
