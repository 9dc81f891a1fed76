import type { TakePlace } from '@doodla/core';
import type { InputVideoTrack, VideoSample } from 'mediabunny';
import { ALL_FORMATS, BlobSource, Input, VideoSampleSink } from 'mediabunny';

/** So far ahead it is sought instead of played through, seconds. */
const FAR = 3;

/** Pictures of a video one after the other, with the next one at hand. */
interface Reading {
  readonly take: string;
  readonly samples: AsyncGenerator<VideoSample, void, unknown>;
  now: VideoSample | undefined;
  next: VideoSample | undefined;
}

/** The pictures of recorded videos at places of their takes, fast where the places come in their order. */
export class FilmVideo {
  private readonly tracks = new Map<string, Promise<InputVideoTrack | null>>();
  private reading: Reading | undefined;

  constructor(private readonly files: ReadonlyMap<string, Blob>) {}

  /** The picture at a place, which stays this one's; undefined where there is none. Throws where a video cannot be decoded. */
  async at({ take, from }: TakePlace): Promise<VideoSample | undefined> {
    const time = from / 1000;
    if (!this.isNear(take, time)) await this.seek(take, time);
    const { reading } = this;
    if (!reading) return undefined;
    while (reading.next && reading.next.timestamp <= time) {
      reading.now?.close();
      reading.now = reading.next;
      reading.next = await nextOf(reading.samples);
    }
    return reading.now;
  }

  private isNear(take: string, time: number): boolean {
    const { reading } = this;
    if (reading?.take !== take) return false;
    const here = (reading.now ?? reading.next)?.timestamp ?? Infinity;
    return here <= time && (!reading.next || time - reading.next.timestamp < FAR);
  }

  private async seek(take: string, time: number): Promise<void> {
    this.reading?.now?.close();
    this.reading?.next?.close();
    await this.reading?.samples.return();
    this.reading = undefined;
    const track = await this.trackOf(take);
    if (!track) return;
    const samples = new VideoSampleSink(track).samples(time);
    this.reading = { take, samples, now: undefined, next: await nextOf(samples) };
  }

  private trackOf(take: string): Promise<InputVideoTrack | null> {
    const file = this.files.get(take);
    if (!file) return Promise.resolve(null);
    const known = this.tracks.get(take);
    const input = () => new Input({ formats: ALL_FORMATS, source: new BlobSource(file) });
    const track = known ?? input().getPrimaryVideoTrack();
    this.tracks.set(take, track);
    return track;
  }
}

const nextOf = async (samples: Reading['samples']): Promise<VideoSample | undefined> =>
  (await samples.next()).value ?? undefined;
