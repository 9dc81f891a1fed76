import { describe, expect, it } from 'vitest';
import { TokenBucket } from '../dist/live/tokenBucket.js';
import { undoableOf } from '../dist/live/undoable.js';
import { makeJoinCode, normaliseCode } from '../dist/sittings/joinCode.js';

const own = (id: string, undoes: string | null = null) => ({ id, undoes, inverse: [] });
const ids = (...operations: ReturnType<typeof own>[]) => undoableOf(operations).map(({ id }) => id);

describe('what is left to undo', () => {
  it('is everything that was not undone, oldest first', () => {
    expect(ids(own('a'), own('b'), own('c'))).toEqual(['a', 'b', 'c']);
    expect(ids(own('a'), own('b'), own('u', 'b'))).toEqual(['a']);
  });

  it('has a redo in the place of what it brought back', () => {
    expect(ids(own('a'), own('u', 'a'), own('r', 'u'))).toEqual(['r']);
    expect(ids(own('a'), own('u', 'a'), own('r', 'u'), own('v', 'r'))).toEqual([]);
  });
});

describe('the limit of messages', () => {
  it('lets a burst through and then stops', () => {
    const bucket = new TokenBucket(5, 0.001);
    expect(Array.from({ length: 7 }, () => bucket.take())).toEqual([
      true,
      true,
      true,
      true,
      true,
      false,
      false,
    ]);
  });
});

describe('join codes', () => {
  it('have six signs, none that is mistaken for another, and are read however they are typed', () => {
    const codes = Array.from({ length: 500 }, makeJoinCode);
    for (const code of codes) expect(code).toMatch(/^[^01258AEIOUBLSZ]{6}$/);
    expect(new Set(codes).size).toBeGreaterThan(490);
    expect(normaliseCode(' cdf-ghj ')).toBe('CDFGHJ');
  });
});
