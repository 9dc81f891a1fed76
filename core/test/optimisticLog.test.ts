import { describe, expect, it } from 'vitest';
import type { Mark, Operation } from '../src/index.js';
import { OptimisticLog } from '../src/index.js';
import { aPage, aStroke, aText } from './helpers/marks.js';

function logWith(...marks: Mark[]): OptimisticLog {
  const log = new OptimisticLog();
  log.loadPages([aPage()]);
  log.load(marks);
  return log;
}

describe('optimistic log', () => {
  const confirm = (log: OptimisticLog, seq: number, op: Operation) =>
    log.confirm({ seq, author: 'x', at: 0, operation: op });

  it('ends up like every other client, whatever the order of arrival', () => {
    const text = aText();
    const mine: Operation = { id: 'mine', changes: [{ do: 'patch', mark: text.id, set: { x: 1 } }] };
    const theirs: Operation = {
      id: 'theirs',
      changes: [{ do: 'patch', mark: text.id, set: { x: 2, text: 'theirs' } }],
    };
    const log = logWith(text);
    log.applyOwn(mine);
    expect(log.visible.marks.get(text.id)).toMatchObject({ x: 1 });
    confirm(log, 1, theirs);
    expect(log.visible.marks.get(text.id)).toMatchObject({ x: 1, text: 'theirs' });
    confirm(log, 2, mine);
    expect(log.visible.marks.get(text.id)).toMatchObject({ x: 1, text: 'theirs' });
    expect(log.pending).toEqual([]);
  });

  it('takes a refused operation back and keeps those after it', () => {
    const [first, second] = [aStroke(), aStroke()];
    const log = logWith();
    log.applyOwn({ id: 'one', changes: [{ do: 'add', mark: first }] });
    log.applyOwn({ id: 'two', changes: [{ do: 'add', mark: second }] });
    expect([...log.drop('one').marks]).toEqual([first.id]);
    expect([...log.visible.marks.keys()]).toEqual([second.id]);
    expect(log.drop('unknown').marks.size).toBe(0);
  });

  it('keeps waiting operations on top of what arrives later', () => {
    const [waiting, arriving] = [aStroke(), aText()];
    const log = logWith();
    log.applyOwn({ id: 'one', changes: [{ do: 'add', mark: waiting }] });
    log.applyOwn({ id: 'two', changes: [{ do: 'patch', mark: arriving.id, set: { x: 1 } }] });
    log.load([arriving]);
    expect(log.visible.marks.get(arriving.id)).toMatchObject({ x: 1, text: arriving.text });
    log.load([], [arriving.id]);
    expect([...log.visible.marks.keys()]).toEqual([waiting.id]);
    log.loadPages([aPage({ id: 'page-2' })]);
    expect([...log.visible.pages.keys()]).toEqual(['page-2']);
  });

  it('leaves no mark behind of an own undo of which the server has made nothing', () => {
    const mine = aStroke();
    const log = logWith(mine);
    confirm(log, 1, { id: 'gone', changes: [{ do: 'remove', mark: mine.id }] });
    log.applyOwn({ id: 'undo', undoes: 'gone', changes: [{ do: 'add', mark: mine }] });
    expect(log.visible.marks.size).toBe(1);
    confirm(log, 2, { id: 'undo', undoes: 'gone', changes: [] });
    expect(log.visible.marks.size).toBe(0);
  });
});
