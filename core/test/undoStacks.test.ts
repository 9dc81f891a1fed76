import type { Change, UndoEntry } from '../src/index.js';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { UndoStacks } from '../src/client/index.js';

const step = (id: string, page = 'p1', ofPages = false): UndoEntry => ({
  id,
  pages: [page],
  ofPages,
  inverse: [{ do: 'remove', mark: id }],
});
const taken = (stacks: UndoStacks, which: 'undo' | 'redo', page = 'p1') => stacks.take(which, page)?.entry.id;

describe('what can be undone', () => {
  it('is of the page in sight, newest first', () => {
    const stacks = new UndoStacks();
    for (const entry of [step('a'), step('b', 'p2'), step('c')]) stacks.did(entry);
    expect(stacks.canUndo('p3')).toBe(false);
    expect(taken(stacks, 'undo')).toBe('c');
    expect(taken(stacks, 'undo')).toBe('a');
    expect(taken(stacks, 'undo')).toBeUndefined();
    expect(taken(stacks, 'undo', 'p2')).toBe('b');
  });

  it('may be a step of pages from wherever one is', () => {
    const stacks = new UndoStacks();
    for (const entry of [step('mark'), step('delete', 'p9', true)]) stacks.did(entry);
    expect(taken(stacks, 'undo')).toBe('delete');
  });

  it('goes to what can be redone and back, until something new is done', () => {
    const stacks = new UndoStacks();
    stacks.did(step('a'));
    stacks.took(stacks.take('undo', 'p1')!, 'undo-a', []);
    expect([stacks.canUndo('p1'), stacks.canRedo('p1')]).toEqual([false, true]);
    stacks.took(stacks.take('redo', 'p1')!, 'redo-a', []);
    expect([stacks.canUndo('p1'), stacks.canRedo('p1')]).toEqual([true, false]);
    stacks.took(stacks.take('undo', 'p1')!, 'undo-again', []);
    stacks.did(step('b'));
    expect(stacks.canRedo('p1')).toBe(false);
  });

  it('comes back where the server refuses to take it back', () => {
    const stacks = new UndoStacks();
    for (const entry of [step('a'), step('b')]) stacks.did(entry);
    stacks.took(stacks.take('undo', 'p1')!, 'undo-b', []);
    stacks.refused('undo-b');
    expect(stacks.canRedo('p1')).toBe(false);
    expect(taken(stacks, 'undo')).toBe('b');
    stacks.refused('a');
    expect(taken(stacks, 'undo')).toBeUndefined();
  });

  it('takes a certain step, if it is still there', () => {
    const stacks = new UndoStacks();
    for (const entry of [step('a'), step('b')]) stacks.did(entry);
    expect(stacks.takeStep('a')?.entry.id).toBe('a');
    expect(stacks.takeStep('a')).toBeUndefined();
  });

  it('begins with what the server says, and goes on with what waits to be sent', () => {
    const stacks = new UndoStacks();
    const waiting = (id: string, undoes?: string) => ({
      id,
      changes: [] as Change[],
      ...(undoes && { undoes }),
    });
    stacks.restore([step('a'), step('b')]);
    stacks.replay(waiting('b'), step('b'));
    stacks.replay(waiting('undo-b', 'b'), step('undo-b'));
    stacks.replay(waiting('c'), step('c'));
    expect(taken(stacks, 'undo')).toBe('c');
    expect(taken(stacks, 'undo')).toBe('a');
  });

  it('never has a step twice, whatever is undone, redone and refused', () => {
    const act = fc.constantFrom('did', 'undo', 'redo', 'refuse', 'store');
    fc.assert(
      fc.property(fc.array(fc.tuple(act, fc.constantFrom('p1', 'p2')), { maxLength: 60 }), (acts) => {
        const stacks = new UndoStacks();
        const open: string[] = [];
        acts.forEach(([what, page], i) => {
          const id = `op-${i}`;
          if (what === 'did') stacks.did(step(id, page));
          if (what === 'undo' || what === 'redo') {
            const taking = stacks.take(what, page);
            if (taking) stacks.took(taking, id, []);
            if (taking) open.push(id);
          }
          if (what === 'refuse' && open.length > 0) stacks.refused(open.pop()!);
          if (what === 'store' && open.length > 0) stacks.stored(open.shift()!);
        });
        const left: string[] = [];
        for (const page of ['p1', 'p2'])
          for (const which of ['undo', 'redo'] as const)
            for (let id = taken(stacks, which, page); id; id = taken(stacks, which, page)) left.push(id);
        expect(new Set(left).size).toBe(left.length);
      }),
    );
  });
});
