import {
  ALL_FORMATS,
  BlobSource,
  BufferTarget,
  Conversion,
  Input,
  Mp4OutputFormat,
  Output,
  WebMOutputFormat,
} from 'mediabunny';

/**
 * Sound as a browser recorded it, made into a file in which any place is found at once: with its length and an index. What is
 * cut off at its end, as by a crash, is used as far as it goes. Nothing is encoded anew. Throws where it is no sound.
 */
export function seekable(recorded: Blob): Promise<Blob> {
  return converted(recorded);
}

/** A stretch of sound, seconds from its beginning, as a file of its own. Throws where the browser cannot make one. */
export function trimmed(sound: Blob, start: number, end: number): Promise<Blob> {
  return converted(sound, { start, end });
}

async function converted(sound: Blob, trim?: { start: number; end: number }): Promise<Blob> {
  const input = new Input({ formats: ALL_FORMATS, source: new BlobSource(sound) });
  const track = await input.getPrimaryAudioTrack();
  if (!track) throw new Error('There is no sound in it.');
  const isOpus = track.codec === 'opus';
  const target = new BufferTarget();
  const format = isOpus ? new WebMOutputFormat() : new Mp4OutputFormat();
  const output = new Output({ format, target });
  const conversion = await Conversion.init({ input, output, showWarnings: false, ...(trim && { trim }) });
  await conversion.execute();
  return new Blob([target.buffer!], { type: isOpus ? 'audio/webm;codecs=opus' : 'audio/mp4' });
}
