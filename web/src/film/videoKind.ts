import type { AudioCodec, OutputFormat, VideoCodec } from 'mediabunny';
import { canEncodeAudio, canEncodeVideo, Mp4OutputFormat, WebMOutputFormat } from 'mediabunny';

/** How a video is written. */
export interface VideoKind {
  readonly format: OutputFormat;
  readonly ending: 'mp4' | 'webm';
  readonly picture: VideoCodec;
  readonly sound: AudioCodec;
}

interface Size {
  readonly width: number;
  readonly height: number;
}

/** The kind of video that the browser can make, the one first that plays anywhere; undefined where that is nothing. */
export async function videoKindOf(size: Size, isHeard: boolean): Promise<VideoKind | undefined> {
  if ((await canEncodeVideo('avc', size)) && (!isHeard || (await canEncodeAudio('aac'))))
    return {
      // Its index comes last, where chapters can be added to it.
      format: new Mp4OutputFormat({ fastStart: false }),
      ending: 'mp4',
      picture: 'avc',
      sound: 'aac',
    };
  const picture = (await canEncodeVideo('vp9', size)) ? 'vp9' : 'vp8';
  const canAll =
    (picture === 'vp9' || (await canEncodeVideo('vp8', size))) &&
    (!isHeard || (await canEncodeAudio('opus')));
  return canAll ? { format: new WebMOutputFormat(), ending: 'webm', picture, sound: 'opus' } : undefined;
}
