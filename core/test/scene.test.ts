import { describe, expect, it } from 'vitest';
import type { Focus, Timer } from '../src/index.js';
import {
  EMPTY_SCENE,
  isMark,
  isScenePart,
  playedTo,
  timerElapsed,
  timerLeft,
  timerText,
} from '../src/index.js';
import { patchOver } from './helpers/marks.js';

const box = { page: 'p1', shared: true, x: 10, y: 20, width: 300, height: 200 };
const timer: Timer = {
  kind: 'countdown',
  length: 180_000,
  before: 0,
  startedAt: 1_000_000,
  sound: true,
  large: false,
};

describe('a scene from outside', () => {
  it.each<[string, Focus]>([
    ['spotlight', { kind: 'spotlight', shape: 'round', dark: 0.7, ...box }],
    ['free spotlight', { kind: 'spotlight', shape: 'free', dark: 1, ...box, outline: [0, 0, 1, 0, 1, 1] }],
    ['cover', { kind: 'cover', ...box }],
    ['magnifier', { kind: 'magnifier', factor: 8, ...box }],
    ['enlarged region', { kind: 'enlarged', ...box }],
  ])('may hold a %s', (_, focus) => {
    expect(isScenePart({ focus })).toBe(true);
  });

  it('may be empty, or any part of one', () => {
    expect(isScenePart(EMPTY_SCENE)).toBe(true);
    expect(isScenePart({ timer, split: { page: 'p2', at: 0.3 }, uncovered: ['m1'] })).toBe(true);
    expect(isScenePart({ playing: { page: 'p', playing: true, position: 2.5, at: 5 } })).toBe(true);
  });

  it.each([
    ['an unknown field', { volume: 3 }],
    ['a darkness out of range', { focus: { kind: 'spotlight', shape: 'round', dark: 0, ...box } }],
    ['a factor out of range', { focus: { kind: 'magnifier', factor: 9, ...box } }],
    ['an unknown kind', { focus: { kind: 'curtain', ...box } }],
    ['a kind that every object has', { focus: { kind: 'constructor', ...box } }],
    ['a field too many', { focus: { kind: 'cover', ...box, onclick: 'x' } }],
    ['a place that is no number', { focus: { kind: 'cover', ...box, x: NaN } }],
    ['half an outline', { focus: { kind: 'spotlight', shape: 'free', dark: 1, ...box, outline: [0, 0, 1] } }],
    ['a countdown without end', { timer: { ...timer, length: Infinity } }],
    ['a divider at the edge', { split: { page: 'p', at: 0 } }],
    ['ids that are none', { pointers: [{ id: 1 }] }],
    ['nothing', null],
  ])('is refused with %s', (_, value) => {
    expect(isScenePart(value)).toBe(false);
  });
});

describe('time', () => {
  it('runs by the server’s clock, stands while held, and does not run below nothing', () => {
    expect(timerElapsed(timer, 1_060_000)).toBe(60_000);
    expect(timerLeft(timer, 1_060_000)).toBe(120_000);
    expect(timerLeft({ ...timer, before: 60_000, startedAt: null }, 9_000_000)).toBe(120_000);
    expect(timerLeft(timer, 9_000_000)).toBe(0);
    // A clock that is a little behind shows the whole time, not more.
    expect(timerLeft(timer, 999_000)).toBe(180_000);
  });

  it('is read in minutes and seconds, with hours where there are some', () => {
    expect(timerText(timer, 1_000_000)).toBe('3:00');
    expect(timerText(timer, 1_000_001)).toBe('3:00');
    expect(timerText(timer, 1_001_000)).toBe('2:59');
    expect(timerText(timer, 1_180_000)).toBe('0:00');
    const watch: Timer = { ...timer, kind: 'stopwatch', length: 0 };
    expect(timerText(watch, 1_000_999)).toBe('0:00');
    expect(timerText(watch, 1_000_000 + 3_723_000)).toBe('1:02:03');
  });

  it('of a recording goes on only while it plays', () => {
    expect(playedTo({ page: 'p', playing: true, position: 4, at: 1000 }, 3500)).toBe(6.5);
    expect(playedTo({ page: 'p', playing: false, position: 4, at: 1000 }, 3500)).toBe(4);
  });
});

describe('a patch', () => {
  it('is a mark with a box and a colour, and nothing else', () => {
    expect(isMark(patchOver('p'))).toBe(true);
    expect(isMark({ ...patchOver('p'), text: 'x' })).toBe(false);
  });
});
