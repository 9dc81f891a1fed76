import type { Take } from '@doodla/core';
import { NotedTake, playedParts } from '@doodla/core/explain';
import { beforeEach, describe, expect, it } from 'vitest';
import type { Voice } from '../src/replay/voice';
import { PlayedVoice } from '../src/replay/voice';

/** A voice that is somewhere, and goes nowhere by itself. */
class Still implements Voice {
  currentTime = 0;
  ended = false;
  muted = false;
  paused = true;
  playbackRate = 1;
  seeking = false;
  volume = 1;
  fails: string | undefined;
  play(): Promise<void> {
    if (this.fails !== undefined) return Promise.reject(new DOMException('…', this.fails));
    this.paused = false;
    return Promise.resolve();
  }
  pause(): void {
    this.paused = true;
  }
}

const take = (id: string, length: number): Take => ({
  id,
  startedAt: 0,
  length,
  voice: 'audio/webm',
  video: null,
  face: null,
});
let one: Still;
let two: Still;
let problems: number;
const played = (parts: Parameters<typeof playedParts>[0]['parts'] = null) =>
  new PlayedVoice(
    playedParts({ takes: [take('one', 4000), take('two', 2000)], parts }),
    new Map([
      ['one', one],
      ['two', two],
    ]),
    new Map([['two', new NotedTake([{ t: 1000, do: 'lost', ms: 300 }])]]),
    () => problems++,
  );
beforeEach(() => {
  [one, two, problems] = [new Still(), new Still(), 0];
});

describe('the voice of an explanation', () => {
  it('leads what is seen, and hands over to that of the next take', () => {
    const voice = played();
    voice.play(1000, 1);
    expect([one.currentTime, one.paused]).toEqual([1, false]);
    one.currentTime = 1.5;
    expect(voice.follow(1016, 1)).toBe(1500);
    one.currentTime = 4.2;
    expect(voice.follow(3990, 1)).toBe(4000);
    expect(voice.follow(4000, 1)).toBe(4000);
    expect([one.paused, two.paused, two.currentTime]).toEqual([true, false, 0]);
  });

  it('keeps what is seen in step where some of the sound is missing', () => {
    const voice = played();
    voice.play(4000 + 900, 1);
    expect(two.currentTime).toBe(0.9);
    two.currentTime = 1.1;
    expect(voice.follow(4990, 1)).toBe(4000 + 1400);
    voice.play(4000 + 1500, 1);
    expect(two.currentTime).toBeCloseTo(1.2);
    // Where it is missing it goes on with what comes next.
    voice.play(4000 + 1100, 1);
    expect(two.currentTime).toBe(1);
  });

  it('is heard from where a part says, and not at all where it says nothing', () => {
    const voice = played([
      { take: 'one', from: 3000, length: 500 },
      { take: 'one', from: 0, length: 1000, voice: { take: 'two', from: 800 } },
      { take: 'one', from: 0, length: 1000, voice: null },
    ]);
    voice.play(600, 1);
    expect(two.currentTime).toBeCloseTo(0.9);
    two.currentTime = 1;
    expect(voice.follow(650, 1)).toBeCloseTo(700);
    expect(voice.follow(1500, 1)).toBeUndefined();
    expect(two.paused).toBe(true);
  });

  it('is waited for while it is looked for, and not when it ended too early', () => {
    const voice = played();
    voice.play(0, 1);
    one.seeking = true;
    expect(voice.follow(0, 1)).toBe(0);
    [one.seeking, one.ended] = [false, true];
    expect(voice.follow(3900, 1)).toBeUndefined();
  });

  it('keeps to the speed, is silent where nobody understands it, and can be switched off', () => {
    const voice = played();
    voice.play(0, 2);
    expect([one.playbackRate, one.muted]).toEqual([2, false]);
    voice.follow(0, 4);
    expect([one.playbackRate, one.muted]).toEqual([4, true]);
    voice.loudness.set(0);
    voice.follow(0, 1);
    expect(one.muted).toBe(true);
  });

  it('that cannot be played is told, and the drawing goes on; one that is only stopped is not', async () => {
    one.fails = 'AbortError';
    played().play(0, 1);
    await Promise.resolve();
    expect(problems).toBe(0);
    one.fails = 'NotSupportedError';
    const voice = played();
    voice.play(0, 1);
    await new Promise((resolve) => setTimeout(resolve));
    expect(problems).toBe(1);
    expect(voice.follow(10, 1)).toBeUndefined();
  });
});
