import type { Take } from '@doodla/core';
import { Store } from '@doodla/core/client';
import { playedParts } from '@doodla/core/explain';
import { describe, expect, it } from 'vitest';
import type { Film } from '../src/replay/playedPictures';
import { PlayedPictures } from '../src/replay/playedPictures';
import type { Playing, Speed } from '../src/replay/player';

/** A film that is sought when it is told, and goes nowhere by itself. */
class Still extends EventTarget implements Film {
  duration = 10;
  paused = true;
  playbackRate = 1;
  readyState = 4;
  seeking = false;
  refuses = false;
  private at = 0;
  get currentTime() {
    return this.at;
  }
  set currentTime(at: number) {
    this.at = at;
    this.seeking = true;
  }
  /** As a film that plays. */
  goOn(seconds: number) {
    this.at += seconds;
  }
  sought() {
    this.seeking = false;
    this.dispatchEvent(new Event('seeked'));
  }
  play(): Promise<void> {
    if (this.refuses) return Promise.reject(new DOMException('…', 'NotAllowedError'));
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
  voice: null,
  video: 'video/mp4',
  face: null,
});

function aPlayer() {
  const [one, two] = [new Still(), new Still()];
  const played = playedParts({
    takes: [take('one', 9000), take('none', 1000), take('two', 4000)],
    parts: [
      { take: 'one', from: 2000, length: 3000 },
      { take: 'none', from: 0, length: 1000 },
      { take: 'two', from: 0, length: 4000 },
    ],
  });
  const pictures = new PlayedPictures(
    played,
    new Map([
      ['one', one],
      ['two', two],
    ]),
  );
  const state = new Store<Playing>({ time: 0, isPlaying: false });
  const speed = new Store<Speed>(1);
  let news = 0;
  pictures.changed.subscribe(() => news++);
  const stop = pictures.follow({ state, speed });
  return { one, two, pictures, state, speed, stop, news: () => news };
}

describe('the moving pictures of an explanation', () => {
  it('stand where the time is, and tell when they are there', () => {
    const { one, pictures, state, news } = aPlayer();
    expect(one.currentTime).toBe(2);
    state.patch({ time: 500 });
    state.patch({ time: 900 });
    // It is sought once at a time; the last place counts.
    expect(one.currentTime).toBe(2);
    const before = news();
    one.sought();
    expect(one.currentTime).toBe(2.9);
    expect(news()).toBe(before + 1);
    expect(pictures.now).toBe(one);
    one.readyState = 1;
    expect(pictures.now).toBeUndefined();
  });

  it('play in step, as fast as all else, and hand over from take to take', () => {
    const { one, two, pictures, state, speed } = aPlayer();
    one.sought();
    speed.set(2);
    state.set({ time: 0, isPlaying: true });
    expect([one.paused, one.playbackRate]).toEqual([false, 2]);
    one.goOn(1.1);
    state.patch({ time: 1000 });
    // A tenth of a second is no reason to stumble.
    expect(one.currentTime).toBeCloseTo(3.1);
    one.goOn(1);
    state.patch({ time: 1500 });
    expect(one.currentTime).toBe(3.5);
    state.patch({ time: 3500 });
    expect([one.paused, pictures.now]).toEqual([true, undefined]);
    state.patch({ time: 4000 });
    expect([two.paused, two.currentTime, pictures.now]).toEqual([false, 0, two]);
    state.set({ time: 4000, isPlaying: false });
    expect(two.paused).toBe(true);
  });

  it('stand at their end where they are shorter than their takes, and do not begin again', () => {
    const { one, state } = aPlayer();
    one.sought();
    one.duration = 3;
    state.set({ time: 500, isPlaying: true });
    expect(one.paused).toBe(false);
    one.sought();
    state.patch({ time: 1200 });
    expect([one.paused, one.currentTime]).toEqual([true, 3]);
  });

  it('are put on picture by picture where the browser does not let them play', () => {
    const { one, state } = aPlayer();
    one.sought();
    one.refuses = true;
    state.set({ time: 100, isPlaying: true });
    expect(one.currentTime).toBe(2.1);
    one.sought();
    state.patch({ time: 200 });
    expect(one.currentTime).toBe(2.2);
  });

  it('are let go of with what they follow', () => {
    const { one, state, stop, news } = aPlayer();
    one.sought();
    state.set({ time: 0, isPlaying: true });
    stop();
    expect(one.paused).toBe(true);
    const before = news();
    one.dispatchEvent(new Event('seeked'));
    state.patch({ time: 2000 });
    expect([news(), one.currentTime]).toEqual([before, 2]);
  });
});
