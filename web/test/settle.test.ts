import type { Take } from '@doodla/core';
import { NotedTake, playedParts } from '@doodla/core/explain';
import { afterEach, describe, expect, it, vi } from 'vitest';
import { settle } from '../src/explain/settle';

const NO_VIDEOS = { video: new Map<string, never>(), face: new Map<string, never>() };

afterEach(() => vi.unstubAllGlobals());

describe('dropping what does not play', () => {
  it.each([
    ['a voice', 'video/mp4', 'voice', []],
    ['a video', 'video/mp4', 'moving picture', [['a', new Blob(['sound'])]]],
  ] as const)(
    'asks nothing of the server where %s that plays cannot be read here',
    async (_, video, why, heard) => {
      const fetched = vi.fn();
      vi.stubGlobal('fetch', fetched);
      const take: Take = { id: 'a', startedAt: 0, length: 9000, voice: 'audio/webm', video, face: null };
      const live = { page: 'p', panes: [] };
      const said = { name: 'Arches', parts: null, stops: [], chapters: [], captions: [], finished: true };
      const explanation = { ...said, id: 'e', createdAt: 0, takes: [take] };
      const material = {
        explanation,
        recorded: { operations: [], turns: [] },
        noted: new Map(),
        shown: new Map([['a', new NotedTake([{ t: 500, do: 'live', live }])]]),
        voices: new Map(),
        sounds: new Map<string, Blob>(heard),
        videos: NO_VIDEOS,
        films: NO_VIDEOS,
        lacksPictures: true,
        hold: () => undefined,
      };
      const played = playedParts({ takes: [take], parts: [{ take: 'a', from: 0, length: 1000 }] });
      const settling = settle({ kind: 'lesson', id: 'l' }, material, said, played, () => undefined);
      await expect(settling).rejects.toThrow(why);
      expect(fetched).not.toHaveBeenCalled();
    },
  );
});
