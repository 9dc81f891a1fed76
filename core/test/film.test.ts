import fc from 'fast-check';
import { execFileSync } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { FilmChapter } from '../src/explain/index.js';
import {
  FilmClock,
  holdsOf,
  USUAL_HOLD_MS,
  webmChapterRoom,
  withMp4Chapters,
  withWebmChapters,
} from '../src/explain/index.js';

const LENGTH = 10_000;
const anyStop = fc.record({
  time: fc.integer({ min: 0, max: LENGTH }),
  text: fc.constant('Draw'),
  seconds: fc.option(fc.integer({ min: 1, max: 60 })),
});
const anyStops = fc.array(anyStop, { maxLength: 8 });

describe('the time of a film', () => {
  it('stands still at a stop for as long as its countdown, else for three seconds', () => {
    const stops = [
      { time: 4000, text: 'Think', seconds: null },
      { time: 1000, text: 'Draw', seconds: 5 },
    ];
    const clock = new FilmClock(LENGTH, holdsOf(stops));
    expect(clock.length).toBe(LENGTH + 5000 + USUAL_HOLD_MS);
    expect(clock.at(500)).toEqual({ time: 500 });
    expect(clock.at(3000)).toMatchObject({ time: 1000, hold: { text: 'Draw', isCounted: true }, left: 3000 });
    expect(clock.at(6000)).toEqual({ time: 1000 });
    expect(clock.at(9500)).toMatchObject({ time: 4000, hold: { text: 'Think', isCounted: false } });
    expect(clock.toFilm(4000)).toBe(9000);
    expect(clock.toFilm(4001)).toBe(12_001);
    expect(clock.stretches()).toEqual([
      { from: 0, length: 1000 },
      { from: undefined, length: 5000 },
      { from: 1000, length: 3000 },
      { from: undefined, length: 3000 },
      { from: 4000, length: 6000 },
    ]);
  });

  it('goes over all of a playback once, in its order, wherever it stands still', () => {
    fc.assert(
      fc.property(anyStops, fc.integer({ min: 0, max: LENGTH }), (stops, time) => {
        const clock = new FilmClock(LENGTH, holdsOf(stops));
        expect(clock.at(clock.toFilm(time)).time).toBe(time);
        const stretches = clock.stretches();
        expect(stretches.reduce((sum, { length }) => sum + length, 0)).toBe(clock.length);
        const played = stretches.flatMap(({ from, length }) =>
          from === undefined ? [] : [{ from, to: from + length }],
        );
        expect(played.at(-1)?.to ?? LENGTH).toBe(LENGTH);
        played.forEach(({ from }, i) => expect(from).toBe(played[i - 1]?.to ?? 0));
      }),
    );
  });

  it('leaves out stops that lie outside of it', () => {
    const holds = holdsOf([
      { time: -1, text: '', seconds: 9 },
      { time: LENGTH + 1, text: '', seconds: 9 },
    ]);
    expect(new FilmClock(LENGTH, holds).length).toBe(LENGTH);
  });
});

describe('chapters of a film', () => {
  const CHAPTERS: FilmChapter[] = [
    { at: 0, name: 'The beam' },
    { at: 1500, name: 'Brücken & Bögen ⌒' },
    { at: 2999, name: '' },
  ];
  let folder: string;
  beforeAll(() => {
    folder = mkdtempSync(join(tmpdir(), 'doodla-film-'));
  });
  afterAll(() => rmSync(folder, { recursive: true }));

  /** A film by ffmpeg of four seconds, with so many letters in a tag. */
  function film(name: string, codec: string, room: number): Uint8Array {
    const file = join(folder, name);
    const source = ['-f', 'lavfi', '-i', 'testsrc=size=64x48:rate=5:duration=4'];
    const tag = ['-metadata', `comment=${' '.repeat(room)}`];
    execFileSync('ffmpeg', ['-v', 'error', ...source, '-c:v', codec, ...tag, file]);
    return readFileSync(file);
  }

  /** The chapters of a file as ffprobe reads them, and how many pictures of it can be decoded. */
  function probed(name: string, bytes: Uint8Array) {
    const file = join(folder, name);
    writeFileSync(file, bytes);
    const show = ['-show_chapters', '-count_frames', '-show_entries', 'stream=nb_read_frames'];
    const said = execFileSync('ffprobe', ['-v', 'error', ...show, '-of', 'json', file]).toString();
    const { chapters, streams } = JSON.parse(said) as {
      chapters: { start_time: string; end_time: string; tags?: { title: string } }[];
      streams: { nb_read_frames: string }[];
    };
    return {
      pictures: Number(streams[0]!.nb_read_frames),
      chapters: chapters.map((one) => [Number(one.start_time), Number(one.end_time), one.tags?.title ?? '']),
    };
  }

  it('in WebM take the place of its tags, and nothing else moves', () => {
    const before = film('plain.webm', 'libvpx', webmChapterRoom(CHAPTERS));
    const after = withWebmChapters(before, CHAPTERS, 4000);
    expect(after).toHaveLength(before.length);
    expect(probed('chapters.webm', after)).toEqual({
      pictures: 20,
      chapters: [
        [0, 1.5, 'The beam'],
        [1.5, 2.999, 'Brücken & Bögen ⌒'],
        [2.999, 4, ''],
      ],
    });
  });

  it('in WebM need room that was kept', () => {
    const tight = film('tight.webm', 'libvpx', 1);
    expect(() => withWebmChapters(tight, Array(50).fill(CHAPTERS[1]) as FilmChapter[], 4000)).toThrow(
      RangeError,
    );
    expect(() => withWebmChapters(new Uint8Array([0, 0, 0, 0]), CHAPTERS, 4000)).toThrow(RangeError);
  });

  it('in MP4 are added at its end', () => {
    const after = withMp4Chapters(film('plain.mp4', 'mpeg4', 0), CHAPTERS);
    expect(probed('chapters.mp4', after)).toEqual({
      pictures: 20,
      chapters: [
        [0, 1.5, 'The beam'],
        [1.5, 2.999, 'Brücken & Bögen ⌒'],
        [2.999, 4, ''],
      ],
    });
  });

  it('in MP4 have names that fit, and are not more than can be counted', () => {
    const many = Array.from({ length: 300 }, (_, i) => ({ at: i * 10, name: '⌒'.repeat(200) }));
    const { chapters } = probed('many.mp4', withMp4Chapters(film('short.mp4', 'mpeg4', 0), many));
    expect(chapters).toHaveLength(255);
    expect(chapters[0]![2]).toBe('⌒'.repeat(85));
    expect(() => withMp4Chapters(new Uint8Array(4), many)).toThrow(RangeError);
  });
});
