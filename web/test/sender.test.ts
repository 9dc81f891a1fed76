import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { Track } from '@doodla/core';
import { TRACKS } from '@doodla/core';
import type { Piece } from '../src/api/explanations';
import { RequestError } from '../src/api/http';
import type { KeptExplanation, KeptPiece, KeptTake } from '../src/explain/recordedStore';
import type { Receiver } from '../src/explain/sender';
import { Sender } from '../src/explain/sender';

const OWNER = 'teacher';

/** A browser's store, in memory. */
class Kept {
  readonly all = new Map<string, KeptExplanation>();
  readonly takes = new Map<string, KeptTake>();
  stored: KeptPiece[] = [];

  begin(finished = false): void {
    const said = { name: 'Arches', parts: null, stops: [], chapters: [], captions: [], finished };
    this.all.set('e', { id: 'e', log: { kind: 'lesson', id: 'l' }, owner: OWNER, ...said });
    this.take({});
  }
  take(set: Partial<KeptTake>): void {
    const take = {
      id: 't',
      explanation: 'e',
      startedAt: 1,
      length: 0,
      voice: 'audio/webm',
      video: 'video/mp4',
      face: null,
      keptAt: 0,
      over: false,
    };
    this.takes.set('t', { ...take, ...this.takes.get('t'), ...set });
  }
  add(track: Track, numbers: readonly number[]): void {
    for (const number of numbers)
      this.stored.push({ take: 't', track, number, bytes: Uint8Array.of(number) });
    this.take({ length: this.stored.length * 1000 });
  }
  explanations = (owner: string) =>
    Promise.resolve([...this.all.values()].filter((one) => one.owner === owner));
  takesOf = () => Promise.resolve([...this.takes.values()]);
  pieces = (take: string, track: Track, most: number) =>
    Promise.resolve(
      this.stored
        .filter((piece) => piece.take === take && piece.track === track)
        .sort((a, b) => a.number - b.number)
        .slice(0, most),
    );
  removePieces = (gone: readonly KeptPiece[]) => {
    this.stored = this.stored.filter((piece) => !gone.includes(piece));
    return Promise.resolve();
  };
  forget = (id: string) => {
    this.all.delete(id);
    this.takes.clear();
    this.stored = [];
    return Promise.resolve();
  };
}

/** The server, which keeps the first piece of each number, and may be out of reach. */
class Server implements Receiver {
  readonly pieces = new Map<string, number[]>();
  readonly said: boolean[] = [];
  length = 0;
  /** Explanations that are not taken. */
  refuses: (id: string) => boolean = () => false;
  /** What is thrown by the next requests. */
  failures: Error[] = [];

  private meet(): Promise<void> {
    const failure = this.failures.shift();
    return failure ? Promise.reject(failure) : Promise.resolve();
  }
  async putExplanation(_log: object, id: string, { finished }: { finished: boolean }): Promise<void> {
    if (this.refuses(id)) throw new RequestError(404, 'not-found', 'It is gone.');
    await this.meet();
    this.said.push(finished);
  }
  async putTake(_log: object, _explanation: string, { length }: { length: number }): Promise<void> {
    await this.meet();
    this.length = length;
  }
  async putPiece(_log: object, { track, number, bytes }: Piece): Promise<void> {
    const key = `${track} ${number}`;
    const isLost = this.failures[0]?.message === 'the answer is lost';
    if (!isLost) await this.meet();
    if (!this.pieces.has(key)) this.pieces.set(key, [...bytes]);
    if (isLost) await this.meet();
  }
  /** A track as it would be played. */
  track(name: Track): number[] {
    return [...this.pieces]
      .filter(([key]) => key.startsWith(name))
      .sort(([a], [b]) => Number(a.split(' ')[1]) - Number(b.split(' ')[1]))
      .flatMap(([, bytes]) => bytes);
  }
}

const upTo = (count: number) => Array.from({ length: count }, (_, i) => i);
const unreachable = () => new RequestError(0, 'unreachable', 'The server cannot be reached.');

function aSender() {
  const [kept, server, problems] = [new Kept(), new Server(), [] as string[]];
  const sender = new Sender(OWNER, (problem) => problems.push(problem), server, kept);
  return { kept, server, problems, sender };
}

describe('what was recorded', () => {
  it('goes to the server some seconds at a time, and at the end to its last piece', async () => {
    const { kept, server, sender } = aSender();
    kept.begin();
    kept.add('voice', upTo(7));
    await sender.settled();
    expect(server.track('voice')).toEqual(upTo(5));
    expect(server.said).toEqual([false]);
    kept.take({ over: true });
    kept.all.set('e', { ...kept.all.get('e')!, finished: true });
    await sender.settled();
    expect(server.track('voice')).toEqual(upTo(7));
    expect(server.said.at(-1)).toBe(true);
    expect(server.length).toBe(7000);
    expect(kept.all.size + kept.stored.length).toBe(0);
    sender.close();
  });

  it('is nobody’s to see before all of it is there', async () => {
    const { kept, server, sender } = aSender();
    kept.begin(true);
    kept.take({ over: true });
    kept.add('voice', upTo(12));
    server.failures = [new Error('…'), ...[]];
    server.failures[0] = unreachable();
    await sender.settled();
    expect(server.said).toEqual([]);
    await sender.settled();
    expect(server.said).toEqual([false, true]);
    expect(server.track('voice')).toEqual(upTo(12));
    sender.close();
  });

  it('stays here where the server refuses it, which is told once', async () => {
    const { kept, server, problems, sender } = aSender();
    kept.begin();
    kept.add('voice', upTo(5));
    const refusal = new RequestError(
      409,
      'explanations-too-large',
      'The explanations here are as large as they may be.',
    );
    server.failures = [refusal];
    await sender.settled();
    server.failures = [refusal];
    await sender.settled();
    expect(problems).toEqual([refusal.message]);
    expect(kept.stored).toHaveLength(5);
    sender.close();
  });

  it('of one explanation arrives, whatever is refused of another', async () => {
    const { kept, server, sender } = aSender();
    kept.begin(true);
    kept.take({ over: true });
    kept.all.set('gone', { ...kept.all.get('e')!, id: 'gone' });
    kept.all.set('e', kept.all.get('e')!);
    server.refuses = (id) => id === 'e';
    await sender.settled();
    expect(server.said).toContain(true);
    expect([...kept.all.keys()]).not.toContain('gone');
    sender.close();
  });

  it('of another teacher is left alone', async () => {
    const { kept, server, sender } = aSender();
    kept.begin(true);
    kept.all.set('e', { ...kept.all.get('e')!, owner: 'somebody else' });
    await sender.settled();
    expect(server.said).toEqual([]);
    expect(kept.all.size).toBe(1);
    sender.close();
  });

  const anyEvent = fc.oneof(
    fc.record({ do: fc.constant('record' as const), count: fc.integer({ min: 1, max: 8 }) }),
    fc.record({ do: fc.constant('send' as const) }),
    fc.record({ do: fc.constant('fail' as const), lost: fc.boolean(), after: fc.nat(3) }),
    fc.record({ do: fc.constant('reload' as const) }),
  );
  it('arrives whole and in order, whatever fails on the way', async () => {
    await fc.assert(
      fc.asyncProperty(fc.array(anyEvent, { maxLength: 25 }), async (events) => {
        const { kept, server, sender: first } = aSender();
        let sender = first;
        const count = { voice: 0, notes: 0, video: 0, face: 0 };
        const record = (track: Track, more: number) => {
          kept.add(
            track,
            upTo(more).map((i) => count[track] + i),
          );
          count[track] += more;
        };
        kept.begin();
        for (const event of events) {
          if (event.do === 'record') record(TRACKS[event.count % TRACKS.length]!, event.count);
          else if (event.do === 'send') await sender.settled();
          else if (event.do === 'fail') {
            const failure = event.lost
              ? Object.assign(unreachable(), { message: 'the answer is lost' })
              : unreachable();
            server.failures = [failure];
            await sender.settled();
            server.failures = [];
          } else {
            sender.close();
            sender = new Sender(OWNER, () => undefined, server, kept);
          }
        }
        kept.take({ over: true });
        kept.all.set('e', { ...kept.all.get('e')!, finished: true });
        await sender.settled();
        await sender.settled();
        expect(server.track('voice')).toEqual(upTo(count.voice));
        expect(server.track('notes')).toEqual(upTo(count.notes));
        expect(server.said.at(-1)).toBe(true);
        sender.close();
      }),
    );
  });
});
