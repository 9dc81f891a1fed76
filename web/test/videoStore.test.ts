import 'fake-indexeddb/auto';
import { IDBObjectStore } from 'fake-indexeddb';
import { nanoid } from 'nanoid';
import { afterEach, describe, expect, it, vi } from 'vitest';
import { VideoKeeper, videoStore } from '../src/sharing/videoStore';

const bytes = (text: string) => new TextEncoder().encode(text);
const aVideo = (log: string, length = 1) => ({
  log,
  length,
  name: 'Camera',
  after: 'p1',
  width: 1280,
  height: 720,
  types: { picture: 'video/webm', sound: 'audio/webm' },
});

afterEach(() => vi.restoreAllMocks());

describe('a video that is recorded', () => {
  it('is found with all that was kept of it once its window is gone, in order', async () => {
    const log = nanoid();
    const keeper = new VideoKeeper();
    keeper.add('picture', bytes('one '));
    keeper.add('sound', bytes('a '));
    keeper.keep(aVideo(log));
    keeper.add('picture', bytes('two '));
    keeper.add('sound', bytes('b '));
    keeper.keep(aVideo(log, 2));
    keeper.add('picture', bytes('never kept'));
    // Nobody is offered what is being recorded.
    expect(await videoStore.of(log)).toEqual([]);
    await keeper.end(false);
    const [left] = await videoStore.of(log);
    expect(left).toMatchObject(aVideo(log, 2));
    const { picture, sound } = await videoStore.read(left!);
    expect([await picture.text(), await sound!.text()]).toEqual(['one two ', 'a b ']);
    expect([picture.type, sound!.type]).toEqual(['video/webm', 'audio/webm']);
    await videoStore.forget(left!.id);
    expect(await videoStore.of(log)).toEqual([]);
    expect((await videoStore.read(left!)).picture.size).toBe(0);
  });

  it('is forgotten once it is elsewhere, and is nobody else’s', async () => {
    const [log, other] = [nanoid(), nanoid()];
    for (const one of [log, other]) {
      const keeper = new VideoKeeper();
      keeper.add('picture', bytes(one));
      keeper.keep(aVideo(one));
      await keeper.end(one === log);
    }
    expect(await videoStore.of(log)).toEqual([]);
    expect(await videoStore.of(other)).toHaveLength(1);
  });

  it('keeps later what there was no room for', async () => {
    const log = nanoid();
    const keeper = new VideoKeeper();
    keeper.add('picture', bytes('one '));
    const put = vi.spyOn(IDBObjectStore.prototype, 'put').mockImplementation(() => {
      throw new DOMException('…', 'QuotaExceededError');
    });
    keeper.keep(aVideo(log));
    await vi.waitFor(() => expect(put).toHaveBeenCalled());
    put.mockRestore();
    keeper.add('picture', bytes('two '));
    keeper.keep(aVideo(log, 2));
    await keeper.end(false);
    const [left] = await videoStore.of(log);
    expect(await (await videoStore.read(left!)).picture.text()).toBe('one two ');
  });
});
