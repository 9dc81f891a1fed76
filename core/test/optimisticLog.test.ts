import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { Change, LogState, Mark, Operation } from '../src/index.js';
import { applyChanges, OptimisticLog, stateOf } from '../src/index.js';
import { aPage, aStroke, aText } from './helpers/marks.js';

function logWith(...marks: Mark[]): OptimisticLog {
  const log = new OptimisticLog();
  log.loadPages([aPage()]);
  log.load(marks);
  return log;
}

/** In which order they are kept says nothing. */
const marksOf = (state: LogState) => [...state.marks.values()].sort((a, b) => (a.id < b.id ? -1 : 1));

describe('optimistic log', () => {
  const confirm = (log: OptimisticLog, seq: number, op: Operation) =>
    log.confirm({ seq, author: 'x', at: 0, operation: op });

  it('shows what one did oneself on top of what comes from others, until the server has it', () => {
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

  it('ends up like every other client, whatever is done, sent and taken in which order', () => {
    const marks = [aText({ id: 'a' }), aText({ id: 'b' }), aStroke({ id: 'c' })];
    const step = fc.record({
      client: fc.nat(2),
      what: fc.constantFrom('patch', 'remove', 'add', 'send', 'send', 'take', 'take', 'take'),
      mark: fc.constantFrom('a', 'b', 'c', 'new'),
      x: fc.nat(99),
    });
    fc.assert(
      fc.property(fc.array(step, { maxLength: 60 }), (steps) => {
        const clients = [0, 1, 2].map(() => ({
          log: logWith(...marks),
          unsent: [] as Operation[],
          taken: 0,
        }));
        const stored: Operation[] = [];
        const server = stateOf({ pages: [aPage()], marks });
        const send = ({ unsent }: (typeof clients)[number]) => {
          const operation = unsent.shift();
          if (!operation) return;
          applyChanges(server, operation.changes);
          stored.push(operation);
        };
        const take = (client: (typeof clients)[number]) => {
          const operation = stored[client.taken];
          if (operation) confirm(client.log, (client.taken += 1), operation);
        };
        steps.forEach(({ client: n, what, mark, x }, i) => {
          const client = clients[n]!;
          if (what === 'send') return send(client);
          if (what === 'take') return take(client);
          const change: Change =
            what === 'add'
              ? { do: 'add', mark: aText({ id: `new-${i}`, x }) }
              : what === 'remove'
                ? { do: 'remove', mark }
                : { do: 'patch', mark, set: { x } };
          const operation = { id: `o${i}`, changes: [change] };
          client.log.applyOwn(operation);
          client.unsent.push(operation);
        });
        for (const client of clients) while (client.unsent.length > 0) send(client);
        for (const client of clients) while (client.taken < stored.length) take(client);
        for (const { log } of clients) {
          expect(log.pending).toEqual([]);
          expect(marksOf(log.visible)).toEqual(marksOf(server));
        }
      }),
      { numRuns: 500 },
    );
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
