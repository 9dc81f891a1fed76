import type { SoundPart } from '@doodla/core';
import { SCREEN } from '@doodla/core';
import type { Line } from '@doodla/core/client';
import { canEncodeSound } from '../secure/secureOnly';

/** Bits per second; plenty for speech and enough for music. */
const BITRATE = 64_000;

type TrackReader = new (from: { track: MediaStreamTrack }) => { readable: ReadableStream<AudioData> };

/** Sends the sound of what is shown as Opus. Returns what stops it; nothing happens where the browser cannot. */
export function sendSound(track: MediaStreamTrack, sitting: string, connection: Line): () => void {
  const { MediaStreamTrackProcessor: Reader } = window as unknown as {
    MediaStreamTrackProcessor?: TrackReader;
  };
  if (!Reader || !canEncodeSound()) return () => undefined;
  const reader = new Reader({ track }).readable.getReader();
  let format: Pick<SoundPart, 'rate' | 'channels'> | undefined;
  const encoder = new AudioEncoder({
    output: (chunk) => {
      const bytes = new ArrayBuffer(chunk.byteLength);
      chunk.copyTo(bytes);
      const head: SoundPart = { sitting, at: Math.max(0, chunk.timestamp), ...format! };
      connection.sendVolatile(SCREEN.sound, head, bytes);
    },
    error: () => void reader.cancel(),
  });
  const read = async () => {
    for (;;) {
      const { done, value } = await reader.read();
      if (done) return;
      if (!format) {
        format = { rate: value.sampleRate, channels: Math.min(2, value.numberOfChannels) };
        const { rate: sampleRate, channels: numberOfChannels } = format;
        encoder.configure({ codec: 'opus', sampleRate, numberOfChannels, bitrate: BITRATE });
      }
      if (encoder.state === 'configured' && isHeard(value)) encoder.encode(value);
      value.close();
    }
  };
  // Cut off when the screen is no longer shown.
  void read().catch(() => undefined);
  return () => {
    // It has ended already.
    void reader.cancel().catch(() => undefined);
    if (encoder.state !== 'closed') encoder.close();
  };
}

/** Whether there is anything but silence, of which nothing is sent. */
function isHeard(data: AudioData): boolean {
  const samples = new Float32Array(data.numberOfFrames);
  data.copyTo(samples, { planeIndex: 0, format: 'f32-planar' });
  return samples.some((sample) => Math.abs(sample) > 1e-4);
}
