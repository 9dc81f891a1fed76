import { Injectable } from '@nestjs/common';
import { InjectRepository } from '@nestjs/typeorm';
import type { NoteStepsReply, NotedMessage, NotesReply } from '@doodla/core';
import { NotesError, SharedNotes } from '@doodla/core/notes';
import { LRUCache } from 'lru-cache';
import { Repository } from 'typeorm';
import { Problem } from '../http/problem.js';
import { ClassNotes } from './classNotes.entity.js';

const SENTENCES = {
  'notes-bad': 'This could not be written into the notes. Please open them again.',
  'notes-full': 'The notes of this class are full. Please shorten them to write more.',
} as const;

/** Notes of classes that are held in memory. */
const MOST_OPEN = 1000;

interface Open {
  notes: SharedNotes;
  /** Steps are taken in one after the other, each stored before the next. */
  queue: Promise<unknown>;
}

/** What classes note down, kept as it is written. */
@Injectable()
export class NotesService {
  private readonly open = new LRUCache<string, Promise<Open>>({ max: MOST_OPEN });
  private readonly listeners: ((sittingId: string) => void)[] = [];

  constructor(@InjectRepository(ClassNotes) private readonly kept: Repository<ClassNotes>) {}

  /** Tells of classes whose notes have changed and are stored. */
  onKept(listener: (sittingId: string) => void): void {
    this.listeners.push(listener);
  }

  /** The notes of a class; empty where nobody has written any. */
  async of(sittingId: string): Promise<NotesReply & { isEmpty: boolean }> {
    const { notes } = await this.opened(sittingId);
    const { doc, version } = notes.kept();
    return { doc, version, isEmpty: notes.isEmpty };
  }

  /** Takes steps in and keeps them, or says what came before them. Throws Problem. */
  async take(
    sittingId: string,
    version: number,
    steps: readonly object[],
    client: string,
  ): Promise<NoteStepsReply> {
    const open = await this.opened(sittingId);
    const reply = open.queue.then(() => this.takeNext(sittingId, open.notes, { version, steps, client }));
    // Whoever sent the steps hears of a failure.
    open.queue = reply.catch(() => undefined);
    return reply;
  }

  private async takeNext(
    sittingId: string,
    notes: SharedNotes,
    { version, steps, client }: { version: number; steps: readonly object[]; client: string },
  ): Promise<NoteStepsReply> {
    try {
      if (!notes.take(version, steps, client))
        return { taken: false, missed: missedOf(sittingId, notes, version) };
    } catch (error) {
      if (error instanceof NotesError) throw new Problem(400, error.code, SENTENCES[error.code]);
      throw error;
    }
    try {
      const { doc, steps: last, version: now } = notes.kept();
      await this.kept.upsert({ sittingId, body: { doc, steps: last }, version: now, changedAt: Date.now() }, [
        'sittingId',
      ]);
    } catch (error) {
      // What is stored is right, not what is in memory.
      this.open.delete(sittingId);
      throw error;
    }
    for (const listener of this.listeners) listener(sittingId);
    return { taken: true };
  }

  private opened(sittingId: string): Promise<Open> {
    let open = this.open.get(sittingId);
    if (!open) {
      open = this.read(sittingId);
      this.open.set(sittingId, open);
      // Whoever asked hears of a failure; the next one reads them anew.
      open.catch(() => this.open.delete(sittingId));
    }
    return open;
  }

  private async read(sittingId: string): Promise<Open> {
    const row = await this.kept.findOneBy({ sittingId });
    const notes = row ? SharedNotes.of({ ...row.body, version: row.version }) : SharedNotes.empty();
    return { notes, queue: Promise.resolve() };
  }
}

function missedOf(sitting: string, notes: SharedNotes, version: number): NotedMessage | null {
  const missed = notes.since(version);
  if (!missed) return null;
  const [steps, clients] = [missed.map(({ step }) => step), missed.map(({ client }) => client)];
  return { sitting, version, steps, clients };
}
