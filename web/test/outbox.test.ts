import type { Operation } from '@doodla/core';
import 'fake-indexeddb/auto';
import { deleteDB } from 'idb';
import { randomUUID } from 'node:crypto';
import { afterEach, describe, expect, it, vi } from 'vitest';
import { BrowserOutbox } from '../src/live/outbox';

const waiting = (id: string, page = 'p1') => ({
  operation: { id, changes: [{ do: 'remove', mark: `mark of ${id}` }] } satisfies Operation,
  pages: [page],
});

const failed = vi.fn();
const outbox = (owner: string) => new BrowserOutbox(owner, failed);
const idsIn = async (box: BrowserOutbox) => (await box.load()).map(({ operation }) => operation.id);

afterEach(() => {
  vi.restoreAllMocks();
  failed.mockClear();
});

describe('what waits in the browser', () => {
  it('is there after a reload, in its order, with its pages', async () => {
    const owner = randomUUID();
    const box = outbox(owner);
    for (const [i, id] of ['c', 'a', 'b'].entries()) box.add(waiting(id, `p${i}`));
    await box.settled();
    expect(await outbox(owner).load()).toEqual([waiting('c', 'p0'), waiting('a', 'p1'), waiting('b', 'p2')]);
    expect(failed).not.toHaveBeenCalled();
  });

  it('goes one by one as the server has it, also when removed before it was written', async () => {
    const box = outbox(randomUUID());
    for (const id of ['a', 'b', 'c']) box.add(waiting(id));
    box.remove('b');
    box.remove('never there');
    await box.settled();
    expect(await idsIn(box)).toEqual(['a', 'c']);
  });

  it('is one person’s alone on a shared computer', async () => {
    const [wren, nash] = [outbox(`log wren ${randomUUID()}`), outbox(`log nash ${randomUUID()}`)];
    wren.add(waiting('same id'));
    nash.add(waiting('same id'));
    nash.remove('same id');
    await Promise.all([wren.settled(), nash.settled()]);
    expect(await idsIn(wren)).toEqual(['same id']);
    expect(await idsIn(nash)).toEqual([]);
  });

  it('lets go where another tab takes the store in hand, and goes on afterwards', async () => {
    const box = outbox(randomUUID());
    box.add(waiting('before'));
    await box.settled();
    await deleteDB('doodla');
    box.add(waiting('after'));
    await box.settled();
    expect(failed).not.toHaveBeenCalled();
    expect(await idsIn(box)).toEqual(['after']);
  });

  it('says so where the browser keeps nothing, and goes on', async () => {
    const box = outbox(randomUUID());
    const put = vi.spyOn(IDBObjectStore.prototype, 'add').mockImplementation(() => {
      throw new DOMException('The disk is full.', 'QuotaExceededError');
    });
    box.add(waiting('lost'));
    await box.settled();
    expect(failed).toHaveBeenCalledOnce();
    expect(failed.mock.calls[0]![0]).toMatchObject({ name: 'QuotaExceededError' });
    put.mockRestore();
    box.add(waiting('kept'));
    await box.settled();
    expect(await idsIn(box)).toEqual(['kept']);
  });
});
