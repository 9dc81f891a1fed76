import type { Take } from '@doodla/core';
import { playedParts } from '@doodla/core/explain';
import { afterEach, describe, expect, it, vi } from 'vitest';
import { settle } from '../src/explain/settle';

afterEach(() => vi.unstubAllGlobals());

describe('dropping what does not play', () => {
  it('asks nothing of the server where a voice that plays cannot be read here, which would be lost', async () => {
    const fetched = vi.fn();
    vi.stubGlobal('fetch', fetched);
    const take: Take = { id: 'a', startedAt: 0, length: 9000, voice: 'audio/webm' };
    const said = { name: 'Arches', parts: null, stops: [], chapters: [], captions: [], finished: true };
    const explanation = { ...said, id: 'e', createdAt: 0, takes: [take] };
    const material = {
      explanation,
      recorded: { operations: [], turns: [] },
      noted: new Map(),
      shown: new Map(),
      voices: new Map(),
      sounds: new Map(),
      hold: () => undefined,
    };
    const played = playedParts({ takes: [take], parts: [{ take: 'a', from: 0, length: 1000 }] });
    const settling = settle({ kind: 'lesson', id: 'l' }, material, said, played, () => undefined);
    await expect(settling).rejects.toThrow('voice');
    expect(fetched).not.toHaveBeenCalled();
  });
});
