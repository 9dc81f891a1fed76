import { opusLength } from '@doodla/core/explain';
import {
  ALL_FORMATS,
  BlobSource,
  BufferTarget,
  Conversion,
  EncodedAudioPacketSource,
  EncodedPacketSink,
  Input,
  Mp4OutputFormat,
  Output,
  WebMOutputFormat,
} from 'mediabunny';

/** What WebM holds that browsers record (RFC 9559 and its codec mappings); all else goes into MP4. */
const IN_WEBM: ReadonlySet<string | null> = new Set(['opus', 'vp8', 'vp9']);
/** So much may stay of what is cut off, seconds: less than a syllable. Where more would, it is encoded anew. */
const LEFT_OVER = 0.06;

/**
 * Sound or video as a browser recorded it, made into a file in which any place is found at once: with its length and an index.
 * What is cut off at its end, as by a crash, is used as far as it goes. Nothing is encoded anew. Throws where it is neither.
 */
export function seekable(recorded: Blob): Promise<Blob> {
  return converted(recorded);
}

/**
 * Sound as a browser recorded it, made into a file in which any place is found at once, and in which each packet follows the one
 * before: players and decoders make different things of gaps. What is cut off at its end is used as far as it goes. Throws where
 * it is no sound.
 */
export async function evenSound(recorded: Blob): Promise<Blob> {
  const input = new Input({ formats: ALL_FORMATS, source: new BlobSource(recorded) });
  const track = await input.getPrimaryAudioTrack();
  if (track?.codec !== 'opus') return seekable(recorded);
  const target = new BufferTarget();
  const output = new Output({ format: new WebMOutputFormat(), target });
  const voice = new EncodedAudioPacketSource('opus');
  output.addAudioTrack(voice);
  await output.start();
  const decoderConfig = (await track.getDecoderConfig())!;
  let at = 0;
  for await (const packet of new EncodedPacketSink(track).packets()) {
    const duration = opusLength(packet.data) / 1000;
    await voice.add(packet.clone({ timestamp: at, duration }), { decoderConfig });
    at += duration;
  }
  await output.finalize();
  return new Blob([target.buffer!], { type: 'audio/webm;codecs=opus' });
}

/** A stretch of sound or video, seconds from its beginning, as a file of its own. Throws where the browser cannot make one. */
export function trimmed(recorded: Blob, start: number, end: number): Promise<Blob> {
  return converted(recorded, { start, end });
}

async function converted(recorded: Blob, trim?: { start: number; end: number }): Promise<Blob> {
  const input = new Input({ formats: ALL_FORMATS, source: new BlobSource(recorded) });
  const video = await input.getPrimaryVideoTrack();
  const track = video ?? (await input.getPrimaryAudioTrack());
  if (!track) throw new Error('There is neither sound nor a picture in it.');
  const isWebm = IN_WEBM.has(track.codec);
  const target = new BufferTarget();
  const output = new Output({ format: isWebm ? new WebMOutputFormat() : new Mp4OutputFormat(), target });
  const copy = { boundaryTolerance: LEFT_OVER };
  const conversion = await Conversion.init({
    input,
    output,
    showWarnings: false,
    ...(trim && { trim, copy }),
  });
  await conversion.execute();
  const type = `${video ? 'video' : 'audio'}/${isWebm ? 'webm' : 'mp4'}`;
  return new Blob([target.buffer!], { type: track.codec === 'opus' ? `${type};codecs=opus` : type });
}
