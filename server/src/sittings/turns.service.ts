import { Injectable } from '@nestjs/common';
import { InjectRepository } from '@nestjs/typeorm';
import type { ClassTurn as ToldTurn } from '@doodla/core';
import { Repository } from 'typeorm';
import { notFound } from '../http/problem.js';
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
  async of(sittingId: string): Promise<ToldTurn[]> {
    const turns = await this.turns.find({ where: { sittingId }, order: { id: 'ASC' }, take: MOST_TOLD });
    return turns.map(({ id, at, pageId, name }) => ({ id, at, page: pageId, name }));
  }

  /** Names the chapter that begins with a turn; an empty name is that of its page. Throws Problem where there is none. */
  async name(sittingId: string, id: number, name: string): Promise<void> {
    const { affected } = await this.turns.update({ id, sittingId }, { name: name.trim() || null });
    if (affected === 0) throw notFound('This chapter');
  }
}
