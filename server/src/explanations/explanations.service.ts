import { Injectable } from '@nestjs/common';
import { InjectRepository } from '@nestjs/typeorm';
import type { Explanation, ExplanationSettings, LogRef, Take } from '@doodla/core';
import { MOST_EXPLANATIONS, MOST_TAKES } from '@doodla/core';
import { In, IsNull, Not, Repository } from 'typeorm';
import { notFound, Problem } from '../http/problem.js';
import { StoredExplanation } from './explanation.entity.js';
import { StoredTake } from './take.entity.js';

/** Recorded explanations of lessons and classes, and the takes that they are made of. */
@Injectable()
export class ExplanationsService {
  constructor(
    @InjectRepository(StoredExplanation) private readonly explanations: Repository<StoredExplanation>,
    @InjectRepository(StoredTake) private readonly takes: Repository<StoredTake>,
  ) {}

  /** Those of a log, the last first; of those that are not finished only where they are asked for. */
  async of(log: LogRef, unfinishedToo: boolean): Promise<Explanation[]> {
    const found = await this.explanations.find({
      where: { ...ownerOf(log), droppedAt: IsNull(), ...(!unfinishedToo && { finished: true }) },
      order: { createdAt: 'DESC' },
    });
    const takes = await this.takes.find({
      where: { explanationId: In(found.map(({ id }) => id)) },
      order: { startedAt: 'ASC' },
    });
    return found.map(({ id, name, parts, stops, chapters, captions, finished, createdAt }) => {
      const own = takes.filter(({ explanationId }) => explanationId === id).map(takeOf);
      return { id, name, parts, stops, chapters, captions, finished, createdAt, takes: own };
    });
  }

  /** Keeps what is said of an explanation, which is there from then on. Throws Problem where there are too many. */
  async put(log: LogRef, id: string, said: ExplanationSettings): Promise<void> {
    const { name, parts, stops, chapters, captions, finished } = said;
    const set = { name, parts, stops, chapters, captions, finished };
    const { affected } = await this.explanations.update({ id, ...ownerOf(log) }, set);
    if (affected !== 0) return;
    if (await this.explanations.existsBy({ id })) throw notFound('This explanation');
    if ((await this.explanations.countBy(ownerOf(log))) >= MOST_EXPLANATIONS)
      throw new Problem(
        409,
        'too-many-explanations',
        'There are as many explanations here as there may be. Please drop one before you record another.',
      );
    const none = { lessonId: null, sittingId: null, droppedAt: null };
    await this.explanations.insert({ id, ...set, ...none, ...ownerOf(log), createdAt: Date.now() });
  }

  /** Drops an explanation; a day later it is gone. Leaves what is dropped already. */
  async drop(log: LogRef, id: string): Promise<void> {
    await this.explanations.update({ id, ...ownerOf(log) }, { droppedAt: Date.now() });
  }

  /** Brings a dropped explanation back. Throws Problem where it is gone. */
  async bringBack(log: LogRef, id: string): Promise<void> {
    const where = { id, ...ownerOf(log), droppedAt: Not(IsNull()) };
    const { affected } = await this.explanations.update(where, { droppedAt: null });
    if (affected === 0) throw notFound('This explanation');
  }

  /** Notes a take, or how long it has become. Throws Problem where there are too many. */
  async putTake(log: LogRef, explanation: string, { id, ...set }: Take): Promise<void> {
    await this.find(log, explanation);
    const { affected } = await this.takes.update({ id, explanationId: explanation }, set);
    if (affected !== 0) return;
    if (await this.takes.existsBy({ id })) throw notFound('This explanation');
    if ((await this.takes.countBy({ explanationId: explanation })) >= MOST_TAKES)
      throw new Problem(
        409,
        'too-many-takes',
        'This explanation has as many pieces as there may be. Please finish it and record another.',
      );
    await this.takes.insert({ id, explanationId: explanation, ...set });
  }

  /** Leaves what is gone already. Throws Problem where the take plays. */
  async dropTake(log: LogRef, explanation: string, id: string): Promise<void> {
    const { parts } = await this.find(log, explanation);
    if (!parts || parts.some(({ take, voice }) => take === id || voice?.take === id))
      throw new Problem(
        409,
        'take-plays',
        'This was not dropped, since it is a part of what plays. Please cut it out first.',
      );
    await this.takes.delete({ id, explanationId: explanation });
  }

  /** Throws Problem where a log has no such explanation. */
  async find(log: LogRef, id: string): Promise<StoredExplanation> {
    const found = await this.explanations.findOneBy({ id, ...ownerOf(log) });
    if (!found) throw notFound('This explanation');
    return found;
  }

  /** Whether there is an explanation that nobody has dropped. */
  isThere(id: string): Promise<boolean> {
    return this.explanations.existsBy({ id, droppedAt: IsNull() });
  }

  /** Throws Problem where an explanation has no such take. */
  async findTake(explanation: string, id: string): Promise<Take> {
    const found = await this.takes.findOneBy({ id, explanationId: explanation });
    if (!found) throw notFound('This explanation');
    return takeOf(found);
  }
}

function takeOf({ id, startedAt, length, voice, video, face }: StoredTake): Take {
  return { id, startedAt, length, voice, video, face };
}

function ownerOf({ kind, id }: LogRef): { lessonId: string } | { sittingId: string } {
  return kind === 'lesson' ? { lessonId: id } : { sittingId: id };
}
