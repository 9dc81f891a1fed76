import { Signal, Store } from '@doodla/core/client';
import type { Mark } from '@doodla/core';
import { describe, expect, it } from 'vitest';
import { aPerson } from '../../core/test/helpers/classes';
import { aStroke } from '../../core/test/helpers/marks';
import { presenceOf, Writing } from '../src/roster/presence';

describe('who writes now', () => {
  it('is who is heard drawing or has put a mark, for four seconds', () => {
    let now = 0;
    let drawing = new Set<string>();
    const changed = new Store(0);
    const added = new Signal<Mark>();
    const ink = { changed, drawing: () => drawing };
    const writing = new Writing({ ink, added } as never, () => now);
    expect([...writing.authors]).toEqual([]);
    drawing = new Set(['wren']);
    changed.set(1);
    now = 3000;
    added.tell(aStroke({ author: 'tove' }));
    expect([...writing.authors]).toEqual(['wren', 'tove']);
    now = 4500;
    expect([...writing.authors]).toEqual(['tove']);
    writing.close();
    added.tell(aStroke({ author: 'odo' }));
    expect([...writing.authors]).toEqual(['tove']);
  });

  it.each([
    [{ here: true, away: false }, 'here'],
    [{ here: true, away: true }, 'away'],
    [{ here: false, away: false }, 'offline'],
  ] as const)('who is %o is %s, and is writing while ink of theirs is heard', (set, presence) => {
    expect(presenceOf(aPerson(set), new Set())).toBe(presence);
    expect(presenceOf(aPerson(set), new Set(['wren']))).toBe(set.here ? 'writing' : 'offline');
  });
});
