import type { FilmClock, FilmStretch, PlayedPart } from '@doodla/core/explain';
import { SoundClock } from '@doodla/core/explain';
import { ALL_FORMATS, AudioSample, AudioSampleSink, BlobSource, Input } from 'mediabunny';
import type { FilmPlan } from './filmPlan';

/** What all sound of a film is made to. */
export const SOUND_RATE = 48_000;
/** Longest piece of silence, frames. */
const SILENCE = SOUND_RATE / 2;

const NOTHING_LOST = new SoundClock([]);

/** A stretch of a film and what is heard in it: of a sound, from a place in it, or nothing. Seconds. */
export interface Heard {
  readonly from: number;
  readonly to: number;
  readonly take: string | undefined;
  readonly at: number;
}

/** Where in the sounds of takes their times are heard; as they are where it is not known otherwise. */
type Clocks = ReadonlyMap<string, SoundClock>;

/** What is heard in a film from its beginning to its end. */
export function heardIn(clock: FilmClock, played: readonly PlayedPart[], clocks: Clocks): Heard[] {
  let film = 0;
  return clock.stretches().flatMap((stretch) => {
    const begin = film;
    film += stretch.length;
    if (stretch.from === undefined) return [{ from: begin / 1000, to: film / 1000, take: undefined, at: 0 }];
    return heardWhile(stretch, stretch.from, begin, { played, clocks });
  });
}

function heardWhile(
  { length }: FilmStretch,
  from: number,
  begin: number,
  { played, clocks }: { played: readonly PlayedPart[]; clocks: Clocks },
): Heard[] {
  return played.flatMap((part): Heard[] => {
    const [first, last] = [Math.max(from, part.start), Math.min(from + length, part.start + part.length)];
    if (last <= first) return [];
    const shift = begin - from;
    const { voice } = part;
    if (!voice) return [{ from: (first + shift) / 1000, to: (last + shift) / 1000, take: undefined, at: 0 }];
    const taken = voice.from - part.start;
    return (clocks.get(voice.take.id) ?? NOTHING_LOST)
      .stretches(first + taken, last + taken)
      .map((heard) => ({
        from: (heard.from - taken + shift) / 1000,
        to: (heard.to - taken + shift) / 1000,
        take: voice.take.id,
        at: heard.at / 1000,
      }));
  });
}

/** The sound of a film, of one voice at `SOUND_RATE`, piece after piece without a gap; whoever takes a piece closes it. */
export async function* soundOf(
  clock: FilmClock,
  { played, sounds, noted }: Pick<FilmPlan, 'noted' | 'played' | 'sounds'>,
): AsyncGenerator<AudioSample> {
  // Counted in frames, so that nothing adds up.
  let now = 0;
  const clocks = new Map([...noted].map(([take, lines]) => [take, new SoundClock(lines)]));
  for (const heard of heardIn(clock, played, clocks)) {
    const end = framesIn(heard.to);
    for (const still of silence(now, framesIn(heard.from))) {
      now += still.numberOfFrames;
      yield still;
    }
    const sound = heard.take === undefined ? undefined : sounds.get(heard.take);
    if (sound)
      for await (const { at, data } of voiceIn(sound, heard)) {
        const stop = Math.min(end, at + data.length);
        for (const still of silence(now, Math.min(at, end))) {
          now += still.numberOfFrames;
          yield still;
        }
        if (stop <= now) continue;
        const piece = sampleOf(data.subarray(now - at, stop - at), now);
        now = stop;
        yield piece;
      }
    for (const still of silence(now, end)) {
      now += still.numberOfFrames;
      yield still;
    }
  }
}

const framesIn = (seconds: number) => Math.round(seconds * SOUND_RATE);

/** The sound of a stretch, as frames of one voice from a frame of the film on. */
async function* voiceIn(
  sound: Blob,
  { from, to, at }: Heard,
): AsyncGenerator<{ at: number; data: Float32Array<ArrayBuffer> }> {
  const input = new Input({ formats: ALL_FORMATS, source: new BlobSource(sound) });
  const track = await input.getPrimaryAudioTrack();
  if (!track) return;
  for await (const sample of new AudioSampleSink(track).samples(at, at + to - from)) {
    yield { at: framesIn(sample.timestamp - at + from), data: atRate(mixed(sample), sample.sampleRate) };
    sample.close();
  }
}

/** All channels of a piece as one, as loud as they are in the middle. */
function mixed(sample: AudioSample): Float32Array<ArrayBuffer> {
  const { numberOfFrames, numberOfChannels } = sample;
  const mix = new Float32Array(numberOfFrames);
  const plane = new Float32Array(numberOfFrames);
  for (let planeIndex = 0; planeIndex < numberOfChannels; planeIndex++) {
    sample.copyTo(plane, { planeIndex, format: 'f32-planar' });
    for (let i = 0; i < numberOfFrames; i++) mix[i]! += plane[i]! / numberOfChannels;
  }
  return mix;
}

/** Sound of another rate, with what lies between its frames in a straight line. */
export function atRate(data: Float32Array<ArrayBuffer>, rate: number): Float32Array<ArrayBuffer> {
  if (rate === SOUND_RATE) return data;
  const other = new Float32Array(Math.round((data.length * SOUND_RATE) / rate));
  for (let i = 0; i < other.length; i++) {
    const place = (i * rate) / SOUND_RATE;
    const before = Math.min(data.length - 1, Math.floor(place));
    const after = Math.min(data.length - 1, before + 1);
    other[i] = data[before]! + (place - before) * (data[after]! - data[before]!);
  }
  return other;
}

function* silence(from: number, to: number): Generator<AudioSample> {
  for (let at = from; at < to; at += SILENCE)
    yield sampleOf(new Float32Array(Math.min(SILENCE, to - at)), at);
}

function sampleOf(data: Float32Array<ArrayBuffer>, at: number): AudioSample {
  const timestamp = at / SOUND_RATE;
  return new AudioSample({
    data,
    format: 'f32-planar',
    numberOfChannels: 1,
    sampleRate: SOUND_RATE,
    timestamp,
  });
}
