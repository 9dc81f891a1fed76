import { WebmSound } from '@doodla/core/explain';
import fc from 'fast-check';
import { EncodedAudioPacketSource, EncodedPacket, Output, StreamTarget, WebMOutputFormat } from 'mediabunny';
import { beforeAll, describe, expect, it } from 'vitest';

/** Opus packets are as long as this in browsers, seconds. */
const PACKET = 0.06;

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
    await source.add(new EncodedPacket(Uint8Array.of(8, i % 256, 0x1f, 0x43), 'key', i * PACKET, PACKET), {
      decoderConfig,
    });
  await output.finalize();
  return Uint8Array.from(chunks);
}

describe('how much sound there is in what a browser records', () => {
  let file: Uint8Array;
  beforeAll(async () => {
    file = await webm(200);
  });

  it('is where the last packet begins, however the file is cut into pieces', () => {
    fc.assert(
      fc.property(fc.array(fc.nat(file.length), { maxLength: 60 }), (cuts) => {
        const sound = new WebmSound();
        const places = [0, ...cuts.sort((a, b) => a - b), file.length];
        let before = -1;
        for (let i = 1; i < places.length; i++) {
          sound.add(file.subarray(places[i - 1], places[i]));
          expect(sound.at ?? -1).toBeGreaterThanOrEqual(before);
          before = sound.at ?? -1;
        }
        expect(sound.at).toBe(199 * PACKET * 1000);
      }),
      { numRuns: 60 },
    );
  });

  it('rises with each piece that holds a packet', () => {
    const sound = new WebmSound();
    const half = Math.floor(file.length / 2);
    sound.add(file.subarray(0, half));
    const middle = sound.at!;
    expect(Math.abs(middle - 6000)).toBeLessThan(600);
    sound.add(file.subarray(half, half + 200));
    expect(sound.at).toBeGreaterThan(middle);
  });

  it('is not known of what is no WebM', () => {
    const sound = new WebmSound();
    sound.add(new TextEncoder().encode('\0\0\0\u0018ftypmp42'));
    sound.add(file);
    expect(sound.at).toBeUndefined();
  });
});
