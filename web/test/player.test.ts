import { describe, expect, it } from 'vitest';
import type { LoggedOperation } from '@doodla/core';
import { Replay } from '@doodla/core/replay';
import { aStroke, aText } from '../../core/test/helpers/marks';
import { Player } from '../src/replay/player';
import { playTime } from '../src/replay/playTime';
import { playedStops } from '../src/replay/useStops';

/** Frames that come when they are called for, so long after each other. */
function aScreen() {
  let [now, count] = [1000, 0];
  const waiting = new Map<number, (now: number) => void>();
  return {
    frames: {
      request: (work: (now: number) => void) => {
        waiting.set(++count, work);
        return count;
      },
      cancel: (frame: number) => void waiting.delete(frame),
    },
    /** Lets a frame come. */
    frame(after: number) {
      now += after;
      const works = [...waiting.values()];
      waiting.clear();
      for (const work of works) work(now);
    },
    isWaiting: () => waiting.size > 0,
  };
}

/** A stroke of 400 ms that ends at 1 s, a text at 2 s and another at 3 s. */
function aPlayer() {
  const points = [0, 0, 0.5, 0, 9, 9, 0.5, 200, 20, 20, 0.5, 400];
  const operations = [aStroke({ points }), aText(), aText()].map((mark, i): LoggedOperation => {
    const seq = i + 1;
    return {
      seq,
      author: 'ada',
      at: seq * 1000,
      operation: { id: `op-${seq}`, changes: [{ do: 'add', mark }] },
    };
  });
  const screen = aScreen();
  const choice = { page: 'page-1', counts: () => true, leads: () => true, longestPause: 2000 };
  const player = new Player(new Replay({ operations, turns: [] }, choice), screen.frames);
  return {
    player,
    screen,
    time: () => player.state.get().time,
    isPlaying: () => player.state.get().isPlaying,
  };
}

describe('a player', () => {
  it('plays as fast as it is told, and stops at the end', () => {
    const { player, screen, time, isPlaying } = aPlayer();
    expect(player.replay.length).toBe(2400);
    player.play();
    screen.frame(16);
    screen.frame(100);
    expect(time()).toBe(100);
    player.speed.set(4);
    screen.frame(100);
    expect(time()).toBe(500);
    screen.frame(1000);
    expect(time()).toBe(2400);
    expect(isPlaying()).toBe(false);
    expect(screen.isWaiting()).toBe(false);
  });

  it('begins anew at its end', () => {
    const { player, screen, time } = aPlayer();
    player.seek(9999);
    expect(time()).toBe(2400);
    player.play();
    screen.frame(16);
    screen.frame(50);
    expect(time()).toBe(50);
  });

  it('pauses where it is', () => {
    const { player, screen, time } = aPlayer();
    player.toggle();
    screen.frame(16);
    screen.frame(70);
    player.toggle();
    expect(screen.isWaiting()).toBe(false);
    player.toggle();
    screen.frame(5000);
    expect(time()).toBe(70);
  });

  it('plays one step and stops; a second time at once; placed things are there at once', () => {
    const { player, screen, time, isPlaying } = aPlayer();
    player.next();
    screen.frame(16);
    screen.frame(100);
    expect(time()).toBe(100);
    screen.frame(900);
    expect([time(), isPlaying()]).toEqual([400, false]);
    player.previous();
    expect(time()).toBe(0);
    player.next();
    player.next();
    expect([time(), isPlaying()]).toEqual([400, false]);
    player.next();
    expect(time()).toBe(1400);
    player.next();
    player.next();
    expect(time()).toBe(2400);
    player.previous();
    expect(time()).toBe(1400);
  });

  it('goes on from where it is taken while it plays', () => {
    const { player, screen, time, isPlaying } = aPlayer();
    player.next();
    screen.frame(16);
    player.seek(1000);
    screen.frame(100);
    expect([time(), isPlaying()]).toEqual([1100, true]);
  });
});

describe('a stop', () => {
  it('holds what plays until whoever watches goes on, and the step that is played too', () => {
    const { player, screen, time, isPlaying } = aPlayer();
    player.waitAt([900, 300]);
    player.play();
    screen.frame(16);
    screen.frame(5000);
    expect([time(), isPlaying(), player.heldAt.get()]).toEqual([300, false, 300]);
    player.next();
    expect(player.heldAt.get()).toBeUndefined();
    screen.frame(16);
    screen.frame(50);
    expect(time()).toBe(350);
    player.play();
    screen.frame(16);
    screen.frame(5000);
    expect([time(), player.heldAt.get()]).toEqual([900, 900]);
    player.seek(950);
    expect(player.heldAt.get()).toBeUndefined();
    player.play();
    screen.frame(16);
    screen.frame(5000);
    expect([time(), player.heldAt.get()]).toEqual([2400, undefined]);
  });

  it('is of what is played where its page is seen then', () => {
    const { player } = aPlayer();
    const stop = (id: string, at: number, page = 'page-1') => ({ id, at, page, text: '', seconds: null });
    const stops = [stop('late', 2500), stop('early', 800), stop('after', 9000), stop('other', 800, 'page-2')];
    expect(playedStops(player.replay, stops).map(({ id, time }) => [id, time])).toEqual([
      ['early', 200],
      ['late', 1900],
    ]);
  });
});

describe('a time', () => {
  it('is told in minutes, and hours where there are some', () => {
    expect([0, 999, 65_000, 3_599_000, 3_600_000, 36_061_000].map(playTime)).toEqual([
      '0:00',
      '0:00',
      '1:05',
      '59:59',
      '1:00:00',
      '10:01:01',
    ]);
  });
});
