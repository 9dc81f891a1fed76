import './helpers/withStorage';
import type { MarkOf } from '@doodla/core';
import { markBounds } from '@doodla/core';
import type { HandSample, WrittenText } from '@doodla/core/handwriting';
import { describe, expect, it, vi } from 'vitest';
import { aShape, aStroke } from '../../core/test/helpers/marks';
import { keepHand, ownHand } from '../src/desk/ownHand';
import type { WritingOffer } from '../src/desk/shapeOffer';
import { asWritten, takeWord, typeWriting } from '../src/desk/typeWriting';
import { freshStorage } from './helpers/fakeStorage';
import { TestDesk } from './helpers/testDesk';

const ink = (id: string, set: Partial<MarkOf<'stroke'>> = {}) =>
  aStroke({ id, points: [100, 100, 0.5, 0, 180, 120, 0.5, 20], ...set });

/** What a line is read as, whose strokes are the first ones; small letters 20 high, on a base line at 120. */
const line = (words: readonly (readonly string[])[], strokes: readonly number[]): WrittenText => ({
  base: 120,
  xHeight: 20,
  left: 100,
  right: 400,
  strokes,
  words: words.map((readings) => ({ readings, strokes })),
});
const reads =
  (...lines: WrittenText[]) =>
  () =>
    Promise.resolve(lines);

const textsOn = (desk: TestDesk) =>
  [...desk.target.state.marks.values()].filter((mark): mark is MarkOf<'text'> => mark.kind === 'text');

describe('typing handwriting out', () => {
  it('puts text of its size and colour in its place, in one step that gives the ink back', async () => {
    const style = { nature: 'pen', colour: '#0072b2', width: 3, opacity: 1 } as const;
    const drawn = [ink('a', { style, space: 'table:2' }), ink('b', { style })];
    const desk = new TestDesk([...drawn, aShape({ id: 'other' })]);
    await typeWriting(desk, drawn, reads(line([['red', 'rod'], ['fox']], [0, 1])));
    expect(desk.done).toHaveLength(1);
    const [text] = textsOn(desk);
    expect(text).toMatchObject({ text: 'red fox', x: 100, space: 'table:2' });
    expect(text!.style.colour).toBe('#0072b2');
    // A small x of the page's font is as high as one that was written: 20 of 0.508.
    expect(text!.style.size).toBeCloseTo(20 / 0.508, 1);
    expect(markBounds(text!).y).toBeGreaterThan(60);
    expect(desk.mark('a')).toBeUndefined();
    expect(desk.mark('other')).toBeDefined();
    asWritten(desk, desk.shapeOffer.get() as WritingOffer);
    expect(textsOn(desk)).toEqual([]);
    expect(desk.mark('a')).toEqual(drawn[0]);
    expect(desk.shapeOffer.get()).toBeUndefined();
  });

  it('is no wider than what was written, and each line is a text of its own', async () => {
    const drawn = [ink('a'), ink('b')];
    const desk = new TestDesk(drawn);
    const long = ['considerably', 'longer', 'than', 'written'].map((word) => [word]);
    await typeWriting(desk, drawn, reads(line(long, [0]), { ...line([['below']], [1]), base: 200 }));
    const [first, second] = textsOn(desk);
    expect(first!.style.size).toBeLessThan(30);
    expect(first!.width).toBeLessThan(300 * 1.1 + 30);
    expect(second!.y).toBeGreaterThan(first!.y + 60);
  });

  it('takes another reading of a word, and goes on offering', async () => {
    const drawn = [ink('a')];
    const desk = new TestDesk(drawn);
    await typeWriting(
      desk,
      drawn,
      reads(
        line(
          [
            ['red', 'rod'],
            ['fax', 'fox'],
          ],
          [0],
        ),
      ),
    );
    takeWord(desk, desk.shapeOffer.get() as WritingOffer, 0, 1, 'fox');
    takeWord(desk, desk.shapeOffer.get() as WritingOffer, 0, 0, 'rod');
    expect(textsOn(desk)[0]!.text).toBe('rod fox');
    expect((desk.shapeOffer.get() as WritingOffer).lines[0]!.text).toEqual(['rod', 'fox']);
  });

  it('says so where there is nothing to read, nothing is read or the reader cannot be fetched', async () => {
    const drawn = [ink('a')];
    const desk = new TestDesk(drawn);
    await typeWriting(desk, [aShape({})], reads());
    await typeWriting(desk, drawn, reads());
    await typeWriting(desk, drawn, () => Promise.reject(new Error('offline')));
    expect(desk.problems).toHaveLength(3);
    expect(new Set(desk.problems).size).toBe(3);
    expect(desk.done).toEqual([]);
  });

  it('leaves ink alone that was wiped meanwhile, and what was not read', async () => {
    const drawn = [ink('a'), ink('b')];
    const desk = new TestDesk(drawn);
    await typeWriting(desk, drawn, () => {
      desk.target.perform([{ do: 'remove', mark: 'a' }]);
      return Promise.resolve([line([['gone']], [0])]);
    });
    expect(textsOn(desk)).toEqual([]);
    const other = new TestDesk(drawn);
    await typeWriting(other, drawn, reads(line([['one']], [0])));
    expect(other.mark('b')).toEqual(drawn[1]);
  });
});

describe('one’s own hand', () => {
  const samples: HandSample[] = [{ character: 'a', strokes: [[1, 2, 3, 4]] }];

  it('is kept in the browser for a student, and deleted when they say so', async () => {
    freshStorage();
    await keepHand(false, samples);
    expect(await ownHand(false)).toEqual(samples);
    await keepHand(false, []);
    expect(await ownHand(false)).toEqual([]);
  });

  it('is kept with a teacher’s preferences, and apart from a student’s on the same computer', async () => {
    freshStorage();
    const asked: string[] = [];
    let kept: unknown;
    vi.stubGlobal('fetch', (path: string, { method, body }: { method: string; body?: string }) => {
      asked.push(`${method} ${path}`);
      if (method === 'PUT') kept = (JSON.parse(body!) as { value: unknown }).value;
      return Promise.resolve(new Response(JSON.stringify({ value: kept }), { status: 200 }));
    });
    await keepHand(true, samples);
    expect(await ownHand(true)).toEqual(samples);
    expect(await ownHand(false)).toEqual([]);
    expect(asked).toEqual(['PUT /api/preferences/hand', 'GET /api/preferences/hand']);
    vi.stubGlobal('fetch', () => Promise.reject(new TypeError('no connection')));
    // What was kept here the last time will do.
    expect(await ownHand(true)).toEqual(samples);
    vi.unstubAllGlobals();
  });
});
