import { opusLength, WebmSound } from '@doodla/core/explain';
import fc from 'fast-check';
import { EncodedAudioPacketSource, EncodedPacket, Output, StreamTarget, WebMOutputFormat } from 'mediabunny';
import { beforeAll, describe, expect, it } from 'vitest';

/** A packet of one frame of 60 ms, as browsers record a voice: its first byte by RFC 6716 §3.1. */
const HEAD = 3 << 3;
/** Seconds. */
const PACKET = 0.06;

/** The times of its packets have gaps, as where sound was lost; seconds. */
const GAP = 0.01;

/** A WebM file of sound, written by mediabunny as it comes; what is heard is of no matter. */
async function webm(packets: number): Promise<Uint8Array> {
  const chunks: number[] = [];
  const target = new StreamTarget(new WritableStream({ write: ({ data }) => void chunks.push(...data) }));
  const output = new Output({ format: new WebMOutputFormat({ appendOnly: true }), target });
  const source = new EncodedAudioPacketSource('opus');
  output.addAudioTrack(source);
  await output.start();
  const decoderConfig = { codec: 'opus', sampleRate: 48_000, numberOfChannels: 1 };
  for (let i = 0; i < packets; i++)
    await source.add(
      new EncodedPacket(Uint8Array.of(HEAD, i % 256, 0x1f, 0x43), 'key', i * (PACKET + GAP), PACKET),
      {
        decoderConfig,
      },
    );
  await output.finalize();
  return Uint8Array.from(chunks);
}

describe('how long a packet of Opus is', () => {
  // RFC 6716, table 2: the frame sizes of each configuration, in its order.
  const FRAMES = [
    ...Array.from({ length: 3 }, () => [10, 20, 40, 60]).flat(),
    ...[10, 20, 10, 20],
    ...Array.from({ length: 4 }, () => [2.5, 5, 10, 20]).flat(),
  ];

  it('is what its configuration says, for one, two or more frames', () => {
    FRAMES.forEach((frame, config) => {
      const packet = (code: number, count = 0) => opusLength(Uint8Array.of((config << 3) | code, count));
      expect([packet(0), packet(1), packet(2), packet(3, 0x80 | 6)]).toEqual([
        frame,
        2 * frame,
        2 * frame,
        6 * frame,
      ]);
    });
    expect(opusLength(new Uint8Array())).toBe(0);
  });
});

describe('how much sound there is in what a browser records', () => {
  let file: Uint8Array;
  beforeAll(async () => {
    file = await webm(200);
  });

  it('is all that its packets are long, however the file is cut into pieces', () => {
    fc.assert(
      fc.property(fc.array(fc.nat(file.length), { maxLength: 60 }), (cuts) => {
        const sound = new WebmSound();
        const places = [0, ...cuts.sort((a, b) => a - b), file.length];
        let before = -1;
        for (let i = 1; i < places.length; i++) {
          sound.add(file.subarray(places[i - 1], places[i]));
          expect(sound.length ?? -1).toBeGreaterThanOrEqual(before);
          before = sound.length ?? -1;
        }
        expect(sound.length).toBe(200 * PACKET * 1000);
      }),
      { numRuns: 60 },
    );
  });

  it('rises with each piece that holds a packet', () => {
    const sound = new WebmSound();
    const half = Math.floor(file.length / 2);
    sound.add(file.subarray(0, half));
    const middle = sound.length!;
    expect(Math.abs(middle - 6000)).toBeLessThan(600);
    sound.add(file.subarray(half, half + 200));
    expect(sound.length).toBeGreaterThan(middle);
  });

  it('is not known of what is no WebM', () => {
    const sound = new WebmSound();
    sound.add(new TextEncoder().encode('\0\0\0\u0018ftypmp42'));
    sound.add(file);
    expect(sound.length).toBeUndefined();
  });
});
