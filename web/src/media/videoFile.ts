import {
  ALL_FORMATS,
  BlobSource,
  BufferTarget,
  EncodedAudioPacketSource,
  EncodedPacketSink,
  EncodedVideoPacketSource,
  Input,
  Mp4OutputFormat,
  Output,
  WebMOutputFormat,
} from 'mediabunny';
import { seekable } from './seekable';

/** A video as it was recorded: its picture, and what was heard with it, which begin together. */
export interface RecordedVideo {
  readonly picture: Blob;
  readonly sound: Blob | undefined;
}

/** One file of it, in which any place is found at once; nothing is encoded anew. Throws where it cannot be read. */
export async function videoFile({ picture, sound }: RecordedVideo, name: string): Promise<File> {
  const whole = sound ? await together(picture, sound) : await seekable(picture);
  return new File([whole], `${name}.${whole.type.includes('webm') ? 'webm' : 'mp4'}`, { type: whole.type });
}

async function together(picture: Blob, sound: Blob): Promise<Blob> {
  const read = (file: Blob) => new Input({ formats: ALL_FORMATS, source: new BlobSource(file) });
  const [seen, heard] = [
    await read(picture).getPrimaryVideoTrack(),
    await read(sound).getPrimaryAudioTrack(),
  ];
  if (!seen?.codec || !heard?.codec) throw new Error('There is no picture or no sound in it.');
  const isWebm = seen.codec !== 'avc';
  const target = new BufferTarget();
  const output = new Output({ format: isWebm ? new WebMOutputFormat() : new Mp4OutputFormat(), target });
  const [frames, voice] = [
    new EncodedVideoPacketSource(seen.codec),
    new EncodedAudioPacketSource(heard.codec),
  ];
  output.addVideoTrack(frames);
  output.addAudioTrack(voice);
  await output.start();
  const copyFrames = async () => {
    const decoderConfig = (await seen.getDecoderConfig())!;
    for await (const packet of new EncodedPacketSink(seen).packets())
      await frames.add(packet, { decoderConfig });
    frames.close();
  };
  const copyVoice = async () => {
    const decoderConfig = (await heard.getDecoderConfig())!;
    for await (const packet of new EncodedPacketSink(heard).packets())
      await voice.add(packet, { decoderConfig });
    voice.close();
  };
  await Promise.all([copyFrames(), copyVoice()]);
  await output.finalize();
  return new Blob([target.buffer!], { type: isWebm ? 'video/webm' : 'video/mp4' });
}
