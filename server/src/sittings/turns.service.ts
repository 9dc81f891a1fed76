import { Injectable } from '@nestjs/common';
import { InjectRepository } from '@nestjs/typeorm';
import type { Turn } from '@doodla/core/replay';
import { Repository } from 'typeorm';
import { ClassTurn } from './turn.entity.js';

/** Turns that are told of one class; who turns more often than that gets the first ones. */
const MOST_TOLD = 20_000;

/** When classes came to which page. */
@Injectable()
export class TurnsService {
  constructor(@InjectRepository(ClassTurn) private readonly turns: Repository<ClassTurn>) {}

  async note(sittingId: string, pageId: string, at = Date.now()): Promise<void> {
    await this.turns.insert({ sittingId, pageId, at });
  }

  /** Oldest first. */
  async of(sittingId: string): Promise<Turn[]> {
    const turns = await this.turns.find({ where: { sittingId }, order: { id: 'ASC' }, take: MOST_TOLD });
    return turns.map(({ at, pageId }) => ({ at, page: pageId }));
  }
}
