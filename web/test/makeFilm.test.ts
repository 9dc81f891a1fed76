import { expose } from 'comlink';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { makeFilm } from '../src/film/makeFilm';
import type { FilmHost, FilmPlan } from '../src/film/filmPlan';
import type { PageDesk } from '../src/room/pageDesk';

const desk = { room: {}, layers: [], pictures: {} } as unknown as PageDesk;
const plan = {
  played: [],
  noted: new Map(),
  sounds: new Map(),
  videos: { video: new Map(), face: new Map() },
} as unknown as FilmPlan;
let host: FilmHost;
let workers: number;

/** Makes a file at once, and keeps what it was given to tell its progress by. */
const remote = {
  film(_plan: FilmPlan, given: FilmHost) {
    host = given;
    return { blob: new Blob(['film']), ending: 'webm' };
  },
  sound() {
    throw new Error('NotSupported: 0x3');
  },
};

/** A worker in this thread. */
class ThisThread extends EventTarget {
  private readonly port: MessagePort;

  constructor() {
    super();
    workers += 1;
    const { port1, port2 } = new MessageChannel();
    expose(remote, port2);
    port1.addEventListener('message', ({ data, ports }: MessageEvent<unknown>) =>
      this.dispatchEvent(new MessageEvent('message', { data, ports: [...ports] })),
    );
    port1.start();
    this.port = port1;
  }

  postMessage(message: unknown, transfers: Transferable[]) {
    this.port.postMessage(message, transfers);
  }

  terminate() {
    // What is under way still arrives, as it may from a worker.
  }
}

describe('making a film', () => {
  beforeEach(() => {
    workers = 0;
    vi.stubGlobal('Worker', ThisThread);
    vi.stubGlobal('VideoEncoder', class {});
    vi.stubGlobal('AudioEncoder', class {});
  });
  afterEach(() => vi.unstubAllGlobals());

  it('says so where a voice or video that plays is not here, which would be missing without a word', async () => {
    const take = { id: 'a', startedAt: 0, length: 9000, voice: 'audio/webm', video: 'video/mp4', face: null };
    const played = [{ take, from: 0, length: 9000, start: 0, voice: { take, from: 0 } }];
    const { signal } = new AbortController();
    const options = { signal, onProgress: () => undefined };
    await expect(makeFilm(desk, 'film', { ...plan, played }, options)).rejects.toThrow('would be missing');
    expect(workers).toBe(0);
    const sounds = new Map([['a', new Blob(['sound'])]]);
    await expect(makeFilm(desk, 'film', { ...plan, played, sounds }, options)).resolves.toBeTruthy();
    // Nor may what moved be missing, where something did.
    const live = { page: 'p', panes: [] };
    const noted = new Map([['a', [{ t: 5, do: 'live' as const, live }]]]);
    const moved = { ...plan, played, sounds, noted };
    await expect(makeFilm(desk, 'film', moved, options)).rejects.toThrow('moving picture');
    const videos = { ...plan.videos, video: new Map([['a', new Blob(['video'])]]) };
    await expect(makeFilm(desk, 'film', { ...moved, videos }, options)).resolves.toBeTruthy();
  });

  it('tells no progress once the file is there', async () => {
    const told: number[] = [];
    const { signal } = new AbortController();
    const made = await makeFilm(desk, 'film', plan, { signal, onProgress: (share) => told.push(share) });
    expect(made.ending).toBe('webm');
    await Promise.resolve(host.onProgress(0.98));
    expect(told).toEqual([]);
  });

  it('says in a sentence that something went wrong inside', async () => {
    const { signal } = new AbortController();
    const options = { signal, onProgress: () => undefined };
    await expect(makeFilm(desk, 'sound', plan, options)).rejects.toThrow(
      'Something went wrong while it was made',
    );
  });

  it('begins nothing that was given up meanwhile', async () => {
    const ending = new AbortController();
    ending.abort(new DOMException('Cancelled', 'AbortError'));
    const options = { signal: ending.signal, onProgress: () => undefined };
    await expect(makeFilm(desk, 'film', plan, options)).rejects.toThrow('Cancelled');
    expect(workers).toBe(0);
  });
});
