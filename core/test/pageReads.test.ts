import type { Mark } from '../src/index.js';
import { beforeEach, describe, expect, it } from 'vitest';
import { PageReads } from '../src/client/index.js';

const mark = (id: string) => ({ id }) as Mark;
let asked: string[];
let fail: (() => void)[];
let reads: PageReads;

beforeEach(() => {
  asked = [];
  fail = [];
  reads = new PageReads((page) => {
    asked.push(page);
    return new Promise((_, reject) => fail.push(() => reject(new Error('cut'))));
  });
});

describe('reading a log page by page', () => {
  it('begins once it is known what there is, the last wanted page first', () => {
    void reads.need('p1');
    void reads.need('p2');
    expect(asked).toEqual([]);
    reads.restart(['p1', 'p2']);
    expect(asked).toHaveLength(1);
    reads.finish(asked[0]!);
    expect(new Set(asked)).toEqual(new Set(['p1', 'p2']));
  });

  it('asks for nothing that is empty or here already', async () => {
    reads.restart(['p1']);
    await reads.need('p9');
    const need = reads.need('p1');
    reads.finish('p1');
    await need;
    await reads.need('p1');
    expect(asked).toEqual(['p1']);
    expect(reads.isComplete('p1')).toBe(true);
  });

  it('tells at the end which marks the server has no more', () => {
    reads.restart(['p1']);
    void reads.need('p1');
    expect(reads.take({ page: 'p2', read: 1, last: false }, [])).toBeUndefined();
    expect(reads.take({ page: 'p1', read: 1, last: false }, [mark('sent')])).toEqual({});
    reads.touched(['touched']);
    const { isUnseen } = reads.take({ page: 'p1', read: 1, last: true }, [])!;
    expect(['sent', 'touched', 'gone'].filter(isUnseen!)).toEqual(['gone']);
  });

  it('reads again after a break what was half read', async () => {
    reads.restart(['p1']);
    const need = reads.need('p1');
    fail[0]!();
    await Promise.resolve();
    reads.resume();
    expect(asked).toEqual(['p1', 'p1']);
    reads.finish('p1');
    await need;
  });

  it('takes no piece of a reading that was given up for one of the new reading', () => {
    reads.restart(['p1']);
    void reads.need('p1');
    expect(reads.take({ page: 'p1', read: 1, last: false }, [mark('first')])).toEqual({});
    // Other marks are to be seen: the log is opened anew, while the server still sends.
    reads.restart(['p1']);
    expect(reads.take({ page: 'p1', read: 1, last: true }, [mark('late')])).toBeUndefined();
    const { isUnseen } = reads.take({ page: 'p1', read: 2, last: true }, [mark('first'), mark('more')])!;
    expect(['first', 'late', 'more'].filter(isUnseen!)).toEqual(['late']);
  });

  it('reads all that was wanted anew when the log was opened afresh', async () => {
    reads.restart(['p1']);
    void reads.need('p1');
    reads.finish('p1');
    reads.restart(['p1', 'p2']);
    expect(asked).toEqual(['p1', 'p1']);
    const need = reads.need('p1');
    reads.restart([]);
    await need;
  });
});
