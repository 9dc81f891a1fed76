import { expose } from 'comlink';
import { ALL_FORMATS, AudioSampleSink, BlobSource, Input } from 'mediabunny';

/** How loud sound is, window by window: the root mean square of each, 0 to 1. Throws where it cannot be decoded. */
async function loudnessOf(sound: Blob, windowMs: number): Promise<Float32Array> {
  const input = new Input({ formats: ALL_FORMATS, source: new BlobSource(sound) });
  const track = await input.getPrimaryAudioTrack();
  if (!track) throw new Error('There is no sound in it.');
  const windows: { sum: number; count: number }[] = [];
  for await (const sample of new AudioSampleSink(track).samples()) {
    const { timestamp, sampleRate, numberOfFrames } = sample;
    const data = new Float32Array(numberOfFrames);
    sample.copyTo(data, { planeIndex: 0, format: 'f32-planar' });
    sample.close();
    for (let i = 0; i < numberOfFrames; i++) {
      const at = Math.max(0, Math.floor(((timestamp + i / sampleRate) * 1000) / windowMs));
      const window = (windows[at] ??= { sum: 0, count: 0 });
      window.sum += data[i]! * data[i]!;
      window.count += 1;
    }
  }
  return Float32Array.from({ length: windows.length }, (_, i) => {
    const { sum, count } = windows[i] ?? { sum: 0, count: 1 };
    return Math.sqrt(sum / count);
  });
}

const works = { loudnessOf };
export type Loudness = typeof works;
expose(works);
