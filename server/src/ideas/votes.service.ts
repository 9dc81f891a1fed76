import { Injectable } from '@nestjs/common';
import { InjectRepository } from '@nestjs/typeorm';
import type { VotesReply } from '@doodla/core';
import { LRUCache } from 'lru-cache';
import { Repository } from 'typeorm';
import { Problem } from '../http/problem.js';
import { LogsService } from '../live/logs.service.js';
import { SittingsService } from '../sittings/sittings.service.js';
import { IdeaVote } from './ideaVote.entity.js';

/** Who has voted for each note of a page, by note. */
type Ballot = Map<string, Set<string>>;

/** Pages whose votes are held in memory. */
const MOST_BALLOTS = 1000;

/** Votes for the notes of a class; of pages that are voted on, they are in memory too. */
@Injectable()
export class VotesService {
  private readonly ballots = new LRUCache<string, Promise<Ballot>>({ max: MOST_BALLOTS });

  constructor(
    @InjectRepository(IdeaVote) private readonly votes: Repository<IdeaVote>,
    private readonly sittings: SittingsService,
    private readonly logs: LogsService,
  ) {}

  /** Gives a note a student's vote, or takes it back. Throws Problem. */
  async vote(sittingId: string, pageId: string, student: string, markId: string, up: boolean): Promise<void> {
    const sitting = await this.sittings.find(sittingId);
    const most = sitting?.endedAt === null ? (sitting.ideas?.[pageId]?.votes ?? 0) : 0;
    const marks = most > 0 ? await (await this.logs.open(sittingId)).marksOn(pageId) : undefined;
    if (marks?.get(markId)?.kind !== 'note')
      throw new Problem(409, 'no-voting', 'There is nothing to vote on here any more.');
    const ballot = await this.ballotOf(sittingId, pageId);
    const voters = ballot.get(markId) ?? new Set<string>();
    if (voters.has(student) === up) return;
    if (up && this.given(ballot, student, marks) >= most)
      throw new Problem(
        409,
        'no-votes-left',
        'You have given all your votes. Take one back to give it to another note.',
      );
    // Counted before it is kept, so that two that come at once do not both pass.
    if (up) ballot.set(markId, voters.add(student));
    else voters.delete(student);
    try {
      if (up) await this.votes.insert({ sittingId, pageId, markId, studentId: student });
      else await this.votes.delete({ sittingId, markId, studentId: student });
    } catch (error) {
      this.ballots.delete(key(sittingId, pageId));
      throw error;
    }
  }

  /** How often each note of a page was voted for. */
  async counts(sittingId: string, pageId: string): Promise<Map<string, number>> {
    const ballot = await this.ballotOf(sittingId, pageId);
    return new Map([...ballot].flatMap(([note, { size }]) => (size > 0 ? [[note, size]] : [])));
  }

  /** How votes stand for somebody: a student's own, and those of all where they are to be seen. */
  async standFor(
    sittingId: string,
    pageId: string,
    { student, seesAll }: { student: string | undefined; seesAll: boolean },
  ): Promise<VotesReply> {
    // Nothing is read, and held, for pages that somebody has made up.
    if (!(await this.sittings.find(sittingId))?.ideas?.[pageId]) return { mine: [], counts: null };
    const ballot = await this.ballotOf(sittingId, pageId);
    const mine = [...ballot].flatMap(([note, voters]) => (student && voters.has(student) ? [note] : []));
    const counts = seesAll ? Object.fromEntries(await this.counts(sittingId, pageId)) : null;
    return { mine, counts };
  }

  /** A vote for a note that is gone is free again. */
  private given(ballot: Ballot, student: string, marks: ReadonlyMap<string, unknown>): number {
    return [...ballot].filter(([note, voters]) => voters.has(student) && marks.has(note)).length;
  }

  private ballotOf(sittingId: string, pageId: string): Promise<Ballot> {
    const known = key(sittingId, pageId);
    let ballot = this.ballots.get(known);
    if (!ballot) {
      ballot = this.read(sittingId, pageId);
      this.ballots.set(known, ballot);
      // Whoever asked is told of a failure; the next one asks again.
      ballot.catch(() => this.ballots.delete(known));
    }
    return ballot;
  }

  private async read(sittingId: string, pageId: string): Promise<Ballot> {
    const ballot: Ballot = new Map();
    for (const { markId, studentId } of await this.votes.findBy({ sittingId, pageId }))
      ballot.set(markId, (ballot.get(markId) ?? new Set()).add(studentId));
    return ballot;
  }
}

const key = (sittingId: string, pageId: string) => `${sittingId} ${pageId}`;
