import type { Focus, Scene } from '@doodla/core';
import { EMPTY_SCENE } from '@doodla/core';
import type { LiveStroke, LogChange, Pointing } from '@doodla/core/client';
import { Signal, Store } from '@doodla/core/client';
import type { Noted, NotedLive } from '@doodla/core/explain';
import { readNoted } from '@doodla/core/explain';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import type { FaceCamera } from '../src/explain/faceCamera';
import type { LiveSource } from '../src/explain/liveSource';
import type { MendPlace } from '../src/explain/mended';
import type { Microphone } from '../src/media/microphone';
import type { KeptExplanation, KeptPiece, KeptTake } from '../src/explain/recordedStore';
import type { RecordedDesk } from '../src/explain/recorder';
import type { RecordingWish } from '../src/explain/recorder';
import { Recorder } from '../src/explain/recorder';

beforeEach(() =>
  vi.useFakeTimers({
    toFake: ['setTimeout', 'setInterval', 'clearTimeout', 'clearInterval', 'performance', 'Date'],
  }),
);
afterEach(() => vi.useRealTimers());

/** A class that is taught, as far as recording looks at it. */
function aClass() {
  const pageId = new Store<string | undefined>('one');
  const scene = new Store<Scene>(EMPTY_SCENE);
  const pending: { id: string; changes: never[] }[] = [];
  const touched = new Signal<LogChange>();
  const points = new Map<string, Pointing>();
  const wisps: LiveStroke[] = [];
  const [pointed, inked] = [new Store(0), new Store(0)];
  const problems: string[] = [];
  const told: object[] = [];
  const desk: RecordedDesk = {
    pageId,
    space: 'class',
    room: {
      sitting: 'sitting',
      colourOf: () => '#123456',
      target: { pending, touched },
      pointers: { changed: pointed, onPage: () => [...points] },
      ink: { changed: inked, onPage: () => wisps },
      classroom: { scene },
      tellProblem: (problem) => void problems.push(problem),
      connection: {
        request: <T>(_event: string, message: object) => {
          told.push(message);
          return Promise.resolve({} as T);
        },
      },
    },
  };
  return {
    desk,
    problems,
    told,
    pageId,
    scene,
    operate(id: string) {
      pending.push({ id, changes: [] });
      touched.tell({ marks: [], pages: [] } as unknown as LogChange);
    },
    point(who: string, x: number, y: number) {
      points.set(who, { page: 'one', trail: [{ x, y, at: 0 }] });
      pointed.set(pointed.get() + 1);
    },
    rest(who: string) {
      points.delete(who);
      pointed.set(pointed.get() + 1);
    },
    wisp(stroke: LiveStroke) {
      wisps.splice(0, wisps.length, stroke);
      inked.set(inked.get() + 1);
    },
  };
}

/** What a browser keeps, with room or without. */
function aStore() {
  const kept = {
    isFull: false,
    takes: new Map<string, KeptTake>(),
    pieces: [] as KeptPiece[],
    said: undefined as KeptExplanation | undefined,
    puts: 0,
    put(take: KeptTake, pieces: readonly KeptPiece[]): Promise<void> {
      kept.puts++;
      if (kept.isFull) return Promise.reject(new DOMException('…', 'QuotaExceededError'));
      kept.takes.set(take.id, take);
      kept.pieces.push(...pieces);
      return Promise.resolve();
    },
    putExplanation(explanation: KeptExplanation): Promise<void> {
      kept.said = explanation;
      return Promise.resolve();
    },
    takesOf: () => Promise.resolve([...kept.takes.values()]),
    noted(): Noted[] {
      const text = new TextDecoder();
      const notes = kept.pieces.filter(({ track }) => track === 'notes');
      return readNoted(notes.map(({ bytes }) => text.decode(bytes)).join(''));
    },
  };
  return kept;
}

function aRecorder(
  choice = { pointing: true, focus: true },
  mend?: MendPlace,
  more: Pick<RecordingWish, 'face' | 'live'> & { microphone?: Microphone } = {},
) {
  const [at, kept] = [aClass(), aStore()];
  const said = { name: 'Arches', parts: null, stops: [], chapters: [], captions: [], finished: false };
  const explanation: KeptExplanation = {
    id: 'e',
    log: { kind: 'sitting', id: 'sitting' },
    owner: 'ada',
    mend,
    ...said,
  };
  const begun = { explanation, length: 0, clockAhead: 5000 };
  const sender = { wake: vi.fn() };
  const recorder = new Recorder(at.desk, { microphone: undefined, ...choice, ...more }, begun, sender, kept);
  return { ...at, kept, sender, recorder };
}
/** What a browser records with, told by hand what it has heard. */
class ByHand {
  static last: ByHand;
  static isTypeSupported = () => true;
  state = 'recording';
  mimeType = 'audio/webm';
  onstart = () => undefined;
  onstop = () => undefined;
  ondataavailable: (heard: { data: Blob }) => void = () => undefined;

  constructor() {
    ByHand.last = this;
  }

  start() {
    queueMicrotask(() => this.onstart());
  }

  stop() {
    this.state = 'inactive';
    this.onstop();
  }

  async hear() {
    this.ondataavailable({ data: new Blob(['sound']) });
    for (let i = 0; i < 20; i++) await Promise.resolve();
    await pass(0);
  }
}

/** Sound that goes from nowhere to nowhere. */
class NoSound {
  static connected = 0;
  readonly stream = {};
  resume = () => Promise.resolve();
  close = () => Promise.resolve();
  createMediaStreamSource = () => ({
    connect: () => void NoSound.connected++,
    disconnect: () => void NoSound.connected--,
  });
}

const pass = (ms: number) => vi.advanceTimersByTimeAsync(ms);

describe('a recording', () => {
  it('begins after three seconds, in the server’s time, and tells the class as long as it lasts', async () => {
    const { recorder, kept, told } = aRecorder();
    recorder.countDown();
    expect(recorder.phase.get()).toEqual({ is: 'counting', left: 3 });
    await pass(2500);
    expect(recorder.phase.get()).toEqual({ is: 'counting', left: 1 });
    expect(told).toEqual([]);
    await pass(500);
    expect(told).toEqual([{ sitting: 'sitting', on: true }]);
    const begun = Date.now();
    await pass(45_000);
    expect(told.length).toBeGreaterThan(2);
    await recorder.pause();
    expect(told.at(-1)).toEqual({ sitting: 'sitting', on: false });
    const [take] = [...kept.takes.values()];
    expect(take).toMatchObject({ startedAt: begun + 5000, length: 45_000, over: true, voice: null });
    expect(recorder.length).toBe(45_000);
    recorder.close();
  });

  it('is in takes that a pause parts, and finished only by whoever finishes it', async () => {
    const { recorder, kept } = aRecorder();
    await recorder.goOn();
    await pass(2000);
    await recorder.pause();
    await pass(9000);
    await recorder.goOn();
    await pass(3000);
    expect(recorder.length).toBe(5000);
    expect(kept.said).toBeUndefined();
    await recorder.finish();
    expect(kept.said?.finished).toBe(true);
    expect([...kept.takes.values()].map(({ length }) => length)).toEqual([2000, 3000]);
    expect(recorder.phase.get().is).toBe('over');
  });

  it('goes on in another take where the machine stood still: sound and drawing would be out of step', async () => {
    vi.stubGlobal('MediaRecorder', ByHand);
    const microphone = { stream: {}, hearing: new Store('sound'), close: () => undefined };
    const { recorder, kept } = aRecorder(undefined, undefined, {
      microphone: microphone as unknown as Microphone,
    });
    await recorder.goOn();
    for (let second = 0; second < 5; second++) {
      await pass(second === 3 ? 2500 : 1000);
      await ByHand.last.hear();
    }
    expect(kept.takes.size).toBe(1);
    await pass(9000);
    await ByHand.last.hear();
    expect(recorder.phase.get().is).toBe('recording');
    await pass(1000);
    await ByHand.last.hear();
    await recorder.finish();
    expect([...kept.takes.values()].map(({ length }) => length)).toEqual([15_500, 1000]);
    vi.unstubAllGlobals();
  });

  it('is kept once a second where sound comes, also while it does not, and sent when there is enough', async () => {
    vi.stubGlobal('MediaRecorder', ByHand);
    const microphone = { stream: {}, hearing: new Store('sound'), close: () => undefined };
    const { recorder, kept, sender, operate } = aRecorder(undefined, undefined, {
      microphone: microphone as unknown as Microphone,
    });
    await recorder.goOn();
    const atFirst = kept.puts;
    for (let second = 0; second < 9; second++) {
      await pass(1030);
      await ByHand.last.hear();
    }
    expect(kept.puts - atFirst).toBe(9);
    // Of nine pieces of sound, five go together; of each a note was made.
    expect(sender.wake).toHaveBeenCalledTimes(1);
    operate('late');
    await pass(1300);
    expect(kept.puts - atFirst).toBe(10);
    expect(kept.noted()).toContainEqual(expect.objectContaining({ do: 'op', op: 'late' }));
    recorder.putStop();
    await pass(0);
    expect(sender.wake).toHaveBeenCalledTimes(2);
    await recorder.pause();
    expect(sender.wake).toHaveBeenCalledTimes(3);
    recorder.close();
    const atLast = kept.puts;
    await pass(10_000);
    expect(kept.puts).toBe(atLast);
    vi.unstubAllGlobals();
  });

  it('is one take, however often it is told to go on, and none after it was let go of', async () => {
    const { recorder, kept } = aRecorder();
    await Promise.all([recorder.goOn(), recorder.goOn()]);
    await recorder.goOn();
    await pass(1000);
    await recorder.pause();
    expect(kept.takes.size).toBe(1);
    recorder.close();
    await recorder.goOn();
    await pass(2000);
    expect(kept.takes.size).toBe(1);
    expect(recorder.phase.get().is).toBe('over');
  });

  it('loses at most its last second', async () => {
    const { recorder, kept, operate } = aRecorder();
    await recorder.goOn();
    operate('a');
    await pass(7400);
    // The window is gone here: nothing more is asked of it.
    const [take] = [...kept.takes.values()];
    expect(take!.length).toBeGreaterThanOrEqual(6400);
    expect(take!.over).toBe(false);
    expect(kept.noted()).toContainEqual({ t: 0, do: 'op', op: 'a' });
    recorder.close();
  });

  it('notes pages, own operations, the pointer, wisps and what leads the eye, each when it was', async () => {
    const { recorder, kept, operate, point, rest, wisp, pageId, scene } = aRecorder();
    operate('earlier');
    await recorder.goOn();
    await pass(100);
    operate('a');
    point('wren', 10.4, 20);
    await pass(20);
    point('wren', 11, 20);
    await pass(60);
    point('wren', 12, 20);
    rest('wren');
    pageId.set('two');
    const focus: Focus = { kind: 'cover', page: 'two', shared: true, x: 0, y: 0, width: 9, height: 9 };
    scene.patch({ focus });
    const style = { colour: '#000000', width: 6, opacity: 0.9, nature: 'marker' as const };
    const points = [0, 0, 0.5, 0, 5, 5, 0.5, 80];
    wisp({ id: 'w', page: 'two', author: '', space: 'class', style, pressure: false, points, fade: 3000 });
    await pass(1000);
    scene.patch({ focus: null });
    await recorder.pause();
    const who = { who: 0, colour: '#123456', page: 'one' };
    expect(kept.noted()).toEqual([
      { t: 0, do: 'page', page: 'one' },
      { t: 0, do: 'focus', focus: null },
      { t: 0, do: 'uncovered', marks: [] },
      { t: 0, do: 'playing', playing: null },
      { t: 100, do: 'op', op: 'a' },
      { t: 100, do: 'point', ...who, x: 10, y: 20 },
      { t: 180, do: 'point', ...who, x: 12, y: 20 },
      { t: 180, do: 'rest', who: 0 },
      { t: 180, do: 'page', page: 'two' },
      { t: 180, do: 'focus', focus },
      { t: 180, do: 'wisp', page: 'two', style, points, fade: 3000 },
      { t: 1180, do: 'focus', focus: null },
    ]);
    recorder.close();
  });

  it('leaves out what is not wanted', async () => {
    const { recorder, kept, point, scene } = aRecorder({ pointing: false, focus: false });
    await recorder.goOn();
    point('wren', 1, 1);
    scene.patch({ focus: { kind: 'cover', page: 'one', shared: true, x: 0, y: 0, width: 9, height: 9 } });
    await recorder.pause();
    expect(kept.noted().map((one) => one.do)).toEqual(['page', 'uncovered', 'playing']);
    recorder.close();
  });

  it('notes when something moves under the marks, and begins a take where that is heard first', async () => {
    const changed = new Signal();
    const [now, sounds] = [new Store<NotedLive | null>(null), [] as MediaStreamTrack[]];
    const live = { now: now.get, watch: changed.subscribe, sounds, stamp: undefined };
    const { recorder, kept } = aRecorder({ pointing: false, focus: false }, undefined, {
      live: live as unknown as LiveSource,
    });
    const show = (next: NotedLive | null) => {
      now.set(next);
      changed.tell();
    };
    vi.stubGlobal('MediaRecorder', ByHand);
    vi.stubGlobal('AudioContext', NoSound);
    vi.stubGlobal('MediaStreamAudioDestinationNode', NoSound);
    vi.stubGlobal('MediaStream', NoSound);
    await recorder.goOn();
    show(null);
    await pass(300);
    show({ page: 'one', panes: [] });
    show({ page: 'one', panes: [] });
    await pass(300);
    show(null);
    await pass(600);
    expect(kept.noted().filter((one) => one.do === 'live')).toEqual([
      { t: 300, do: 'live', live: { page: 'one', panes: [] } },
      { t: 600, do: 'live', live: null },
    ]);
    expect([...kept.takes.values()].map(({ voice }) => voice)).toEqual([null]);
    sounds.push({} as MediaStreamTrack);
    await pass(2000);
    expect(NoSound.connected).toBe(1);
    await recorder.pause();
    // What is over hears nothing any more.
    expect(NoSound.connected).toBe(0);
    expect([...kept.takes.values()].map(({ voice }) => voice)).toEqual([null, 'audio/webm']);
    recorder.close();
    vi.unstubAllGlobals();
  });

  it('says that the camera is gone while it records, and goes on', async () => {
    let tell = () => undefined as void;
    const face = {
      stamp: undefined,
      close: () => undefined,
      onGone: (listener: () => void) => void (tell = listener),
    };
    const { recorder, problems } = aRecorder(undefined, undefined, { face: face as unknown as FaceCamera });
    tell();
    expect(problems).toEqual([]);
    await recorder.goOn();
    tell();
    expect(problems).toHaveLength(1);
    expect(problems[0]).toContain('camera');
    expect(recorder.phase.get().is).toBe('recording');
    recorder.close();
  });

  it('has stops where one puts them', async () => {
    const { recorder, kept } = aRecorder();
    recorder.putStop();
    await recorder.goOn();
    await pass(1500);
    recorder.putStop('Draw the outline now');
    await recorder.pause();
    const [take] = [...kept.takes.keys()];
    expect(kept.said?.stops).toMatchObject([
      { take, from: 1500, text: 'Draw the outline now', seconds: null },
    ]);
    recorder.close();
  });

  it('waits where there is no more room, says so once, and keeps everything once there is', async () => {
    const { recorder, kept, problems, operate } = aRecorder();
    await recorder.goOn();
    await pass(1000);
    kept.isFull = true;
    operate('late');
    await pass(3000);
    expect(problems).toHaveLength(1);
    expect(recorder.phase.get().is).toBe('paused');
    await recorder.finish();
    expect(problems).toHaveLength(2);
    expect(kept.said).toBeUndefined();
    kept.isFull = false;
    await pass(1000);
    expect(kept.noted()).toContainEqual(expect.objectContaining({ do: 'op', op: 'late' }));
    expect([...kept.takes.values()][0]).toMatchObject({ over: true });
    await recorder.finish();
    expect(kept.said?.finished).toBe(true);
  });

  it('of a part of another takes its place when it is finished', async () => {
    const before = { take: 'old', from: 0, length: 9000 };
    const span = { from: 4000, to: Infinity };
    const { recorder, kept } = aRecorder(undefined, { parts: [before], span, what: 'all' });
    await recorder.goOn();
    await pass(2000);
    await recorder.finish();
    const [take] = [...kept.takes.keys()];
    expect(kept.said?.parts).toEqual([
      { take: 'old', from: 0, length: 4000 },
      { take, from: 0, length: 2000 },
    ]);
  });
});
