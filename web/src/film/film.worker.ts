import type { Cue } from '@doodla/core/explain';
import {
  FilmClock,
  webmChapterRoom,
  withMp4Chapters,
  withWebmChapters,
  writeWebVtt,
} from '@doodla/core/explain';
import { expose } from 'comlink';
import type { AudioCodec } from 'mediabunny';
import {
  AudioSampleSource,
  BufferTarget,
  canEncodeAudio,
  CanvasSource,
  Mp4OutputFormat,
  OggOutputFormat,
  Output,
  Quality,
  TextSubtitleSource,
} from 'mediabunny';
import type { VideoKind } from './videoKind';
import { videoKindOf } from './videoKind';
import { FilmPicture } from './filmPicture';
import type { FilmHost, FilmPlan, MadeFilm } from './filmPlan';
import { NO_ENCODER } from './filmPlan';
import { filmScenery } from './filmScenery';
import { soundOf } from './filmSound';

const FRAMES_PER_SECOND = 25;
/** A picture shows the middle of the time for which it stands, seconds, so that it is never far off the sound. */
const HALF_FRAME = 1 / FRAMES_PER_SECOND / 2;
/** Bits per second: of a picture in which mostly ink comes, by its lines, and of one voice; from trials. */
const PICTURE_BITS = { 720: 1.2e6, 1080: 2.2e6 } as const;
const VOICE_BITS = 48_000;
/** Seconds between pictures from which a player can begin. */
const KEY_SECONDS = 4;

const worker = {
  /** A film with its sound, chapters and captions: MP4 where the browser can make it, else WebM. */
  async film(plan: FilmPlan, host: FilmHost): Promise<MadeFilm> {
    const isHeard = plan.played.some(({ voice }) => voice && plan.sounds.has(voice.take.id));
    const made = await kindOf(plan, isHeard);
    const target = new BufferTarget();
    const output = new Output({ format: made.format, target });
    const picture = new FilmPicture(plan, filmScenery(plan, host));
    const { clock } = picture;
    const frames = new CanvasSource(picture.canvas, {
      codec: made.picture,
      quality: new Quality({ bitrate: PICTURE_BITS[plan.lines] }),
      latencyMode: 'realtime',
      contentHint: 'text',
      keyFrameInterval: KEY_SECONDS,
    });
    output.addVideoTrack(frames, { frameRate: FRAMES_PER_SECOND });
    const sound = isHeard ? new Sound(made.sound, clock, plan) : undefined;
    if (sound) output.addAudioTrack(sound.source, { languageCode: 'und' });
    const words = plan.cues.length > 0 ? new TextSubtitleSource('webvtt') : undefined;
    if (words) output.addSubtitleTrack(words);
    const chapters = plan.chapters.map(({ at, name }) => ({ at: clock.toFilm(at), name }));
    if (made.ending === 'webm') output.setMetadataTags({ comment: ' '.repeat(webmChapterRoom(chapters)) });
    await output.start();
    await words?.add(writeWebVtt(plan.cues.map((cue) => inFilm(cue, clock))));
    words?.close();
    for (let second = 0; second * 1000 < clock.length; second++) {
      await addFrames(frames, picture, second);
      await sound?.until(second + 1);
      host.onProgress((second * 1000) / clock.length);
    }
    frames.close();
    await sound?.until(Infinity);
    await output.finalize();
    const file = new Uint8Array(target.buffer!);
    const whole =
      made.ending === 'webm'
        ? withWebmChapters(file, chapters, clock.length)
        : withMp4Chapters(file, chapters);
    return { blob: new Blob([whole as BlobPart], { type: `video/${made.ending}` }), ending: made.ending };
  },

  /** What is said, alone: M4A where the browser can make it, else Ogg. It does not stand still where a film does. */
  async sound(plan: FilmPlan, host: FilmHost): Promise<MadeFilm> {
    const isM4a = await canEncodeAudio('aac');
    if (!isM4a && !(await canEncodeAudio('opus'))) throw new Error(NO_ENCODER);
    const target = new BufferTarget();
    const output = new Output({ format: isM4a ? new Mp4OutputFormat() : new OggOutputFormat(), target });
    const length = plan.played.reduce((sum, part) => sum + part.length, 0);
    const sound = new Sound(isM4a ? 'aac' : 'opus', new FilmClock(length, []), plan);
    output.addAudioTrack(sound.source);
    output.setMetadataTags({ title: plan.title });
    await output.start();
    for (let second = 0; second * 1000 < length; second++) {
      await sound.until(second + 1);
      host.onProgress((second * 1000) / length);
    }
    await sound.until(Infinity);
    await output.finalize();
    const [type, ending] = isM4a ? (['audio/mp4', 'm4a'] as const) : (['audio/ogg', 'ogg'] as const);
    return { blob: new Blob([target.buffer!], { type }), ending };
  },
};

export type FilmWorker = typeof worker;

/** What the browser can make. Throws `NO_ENCODER` where that is nothing. */
async function kindOf({ lines }: FilmPlan, isHeard: boolean): Promise<VideoKind> {
  const kind = await videoKindOf({ width: (lines * 16) / 9, height: lines }, isHeard);
  if (!kind) throw new Error(NO_ENCODER);
  return kind;
}

/** Adds the pictures of a second that look otherwise than those before, and one at its beginning. */
async function addFrames(frames: CanvasSource, picture: FilmPicture, second: number): Promise<void> {
  for (let i = 0; i < FRAMES_PER_SECOND; i++) {
    const time = second + i / FRAMES_PER_SECOND;
    if (time * 1000 >= picture.clock.length) return;
    const isNew = await picture.draw((time + HALF_FRAME) * 1000);
    if (isNew || i === 0) await frames.add(time, 1 / FRAMES_PER_SECOND);
  }
}

/** What is heard, encoded as far as it is wanted. */
class Sound {
  readonly source: AudioSampleSource;
  private readonly samples: ReturnType<typeof soundOf>;
  private now = 0;

  constructor(codec: AudioCodec, clock: FilmClock, plan: FilmPlan) {
    this.source = new AudioSampleSource({
      codec,
      quality: new Quality({ bitrate: VOICE_BITS }),
    });
    this.samples = soundOf(clock, plan);
  }

  /** Goes on until a time, seconds; after the last piece it is closed. */
  async until(time: number): Promise<void> {
    while (this.now < time) {
      const next = await this.samples.next();
      if (next.done) {
        if (time === Infinity) this.source.close();
        return;
      }
      const { value } = next;
      this.now += value.duration;
      await this.source.add(value);
      value.close();
    }
  }
}

function inFilm({ from, to, text }: Cue, clock: FilmClock): Cue {
  return { from: clock.toFilm(from), to: clock.toFilm(to), text };
}

expose(worker);
