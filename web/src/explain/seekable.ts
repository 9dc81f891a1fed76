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
export async function seekable(recorded: Blob): Promise<Blob> {
  const input = new Input({ formats: ALL_FORMATS, source: new BlobSource(recorded) });
  const track = await input.getPrimaryAudioTrack();
  if (!track) throw new Error('There is no sound in it.');
  const isOpus = track.codec === 'opus';
  const target = new BufferTarget();
  const format = isOpus ? new WebMOutputFormat() : new Mp4OutputFormat();
  const conversion = await Conversion.init({
    input,
    output: new Output({ format, target }),
    showWarnings: false,
  });
  await conversion.execute();
  return new Blob([target.buffer!], { type: isOpus ? 'audio/webm;codecs=opus' : 'audio/mp4' });
}
