import { Injectable } from '@nestjs/common';
import { InjectRepository } from '@nestjs/typeorm';
import type { LogRef, ReplayStop, StopPlace } from '@doodla/core';
import { MOST_STOPS } from '@doodla/core';
import { randomUUID } from 'node:crypto';
import { Repository } from 'typeorm';
import { notFound, Problem } from '../http/problem.js';
import { StoredStop } from './replayStop.entity.js';

/** Where playing lessons and classes again waits. */
@Injectable()
export class StopsService {
  constructor(@InjectRepository(StoredStop) private readonly stops: Repository<StoredStop>) {}

  /** The stops of a log, in the order of their times. */
  async of(log: LogRef): Promise<ReplayStop[]> {
    const found = await this.stops.find({ where: ownerOf(log), order: { at: 'ASC' } });
    return found.map(({ id, at, page, text, seconds }) => ({ id, at, page, text, seconds }));
  }

  /** Throws Problem where there are as many as there may be. */
  async add(log: LogRef, place: StopPlace): Promise<ReplayStop> {
    if ((await this.stops.countBy(ownerOf(log))) >= MOST_STOPS)
      throw new Problem(
        409,
        'too-many-stops',
        'There are as many stops as there may be. Please take one away before you put another.',
      );
    const stop = { id: randomUUID(), ...place };
    await this.stops.insert({ ...stop, lessonId: null, sittingId: null, ...ownerOf(log) });
    return stop;
  }

  /** Throws Problem where there is no such stop. */
  async change(log: LogRef, id: string, place: StopPlace): Promise<void> {
    const { affected } = await this.stops.update({ id, ...ownerOf(log) }, place);
    if (affected === 0) throw notFound('This stop');
  }

  /** Leaves what is gone already. */
  async remove(log: LogRef, id: string): Promise<void> {
    await this.stops.delete({ id, ...ownerOf(log) });
  }
}

function ownerOf({ kind, id }: LogRef): { lessonId: string } | { sittingId: string } {
  return kind === 'lesson' ? { lessonId: id } : { sittingId: id };
}
