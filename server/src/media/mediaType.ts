import type { MediaForm } from '@doodla/core';

export interface MediaType {
  form: MediaForm;
  /** Media type as registered with IANA. */
  mime: string;
}

const ascii = (bytes: Uint8Array, from: number, length: number) =>
  String.fromCharCode(...bytes.subarray(from, from + length));

/**
 * What a sound or video file is, by its first bytes (at least 64), or undefined where no browser is sure to
 * play it. Ours, not file-type, which reads into a stranger's file as far as it leads, so that it would need a process of
 * its own; here a few bytes are enough. Signatures as in the WHATWG MIME Sniffing Standard §6.2; MPEG audio frames as its §6.2.2.
 */
export function mediaType(head: Uint8Array): MediaType | undefined {
  if (ascii(head, 4, 4) === 'ftyp') {
    return ascii(head, 8, 3) === 'M4A'
      ? { form: 'sound', mime: 'audio/mp4' }
      : { form: 'video', mime: 'video/mp4' };
  }
  if (head[0] === 0x1a && head[1] === 0x45 && head[2] === 0xdf && head[3] === 0xa3)
    return { form: 'video', mime: 'video/webm' };
  if (ascii(head, 0, 4) === 'OggS') {
    return ascii(head, 28, 64).includes('theora')
      ? { form: 'video', mime: 'video/ogg' }
      : { form: 'sound', mime: 'audio/ogg' };
  }
  if (ascii(head, 0, 4) === 'RIFF' && ascii(head, 8, 4) === 'WAVE')
    return { form: 'sound', mime: 'audio/wave' };
  if (ascii(head, 0, 4) === 'fLaC') return { form: 'sound', mime: 'audio/flac' };
  const isFrame = head[0] === 0xff && (head[1]! & 0xe0) === 0xe0 && (head[1]! & 0x06) !== 0;
  if (ascii(head, 0, 3) === 'ID3' || isFrame) return { form: 'sound', mime: 'audio/mpeg' };
  return undefined;
}
