import { Injectable } from '@nestjs/common';
import { InjectRepository } from '@nestjs/typeorm';
import type { Poll, PollState, PollValue } from '@doodla/core';
import { isAnswerTo } from '@doodla/core';
import { In, IsNull, Repository } from 'typeorm';
import { notFound, Problem } from '../http/problem.js';
import { AskedPoll } from './poll.entity.js';
import { GivenAnswer } from './pollAnswer.entity.js';

const MOST_POLLS = 500;

/** What a class is asked, and its answers; those that are shown now are in memory too. */
@Injectable()
export class PollsService {
  private readonly shown = new Map<
    string,
    Promise<{ poll: AskedPoll; answers: Map<string, GivenAnswer> } | null>
  >();

  constructor(
    @InjectRepository(AskedPoll) private readonly polls: Repository<AskedPoll>,
    @InjectRepository(GivenAnswer) private readonly answers: Repository<GivenAnswer>,
  ) {}

  /** The poll of a class that is shown now. */
  async stateOf(sittingId: string): Promise<PollState | null> {
    const shown = await this.shownIn(sittingId);
    return shown && stateWith(shown.poll, [...shown.answers.values()]);
  }

  /** All that a class was asked, oldest first. */
  async all(sittingId: string): Promise<PollState[]> {
    const polls = await this.polls.find({ where: { sittingId }, order: { askedAt: 'ASC' } });
    const given = await this.answers.findBy({ pollId: In(polls.map(({ id }) => id)) });
    return polls.map((poll) =>
      stateWith(
        poll,
        given.filter(({ pollId }) => pollId === poll.id),
      ),
    );
  }

  /** Asks a class something; what was shown before is put away. Throws Problem. */
  async ask(sittingId: string, body: Poll): Promise<void> {
    if ((await this.polls.countBy({ sittingId })) >= MOST_POLLS)
      throw new Problem(
        409,
        'too-many-polls',
        'This class has been asked 500 times. Please start a new class.',
      );
    if (await this.polls.existsBy({ id: body.id })) return;
    await this.putAway(sittingId);
    await this.polls.insert({
      id: body.id,
      sittingId,
      body,
      askedAt: Date.now(),
      closedAt: null,
      putAwayAt: null,
    });
    this.shown.delete(sittingId);
  }

  /** Takes an answer in, in the place of an earlier one of the same student. Throws Problem. */
  async answer(sittingId: string, pollId: string, studentId: string, value: PollValue): Promise<void> {
    const shown = await this.shownIn(sittingId);
    if (shown?.poll.id !== pollId || shown.poll.closedAt !== null)
      throw new Problem(409, 'poll-closed', 'This question is closed. Your answer was not taken.');
    if (!isAnswerTo(shown.poll.body, value))
      throw new Problem(400, 'no-answer', 'That is no answer to this question. Please try again.');
    const given = { pollId, studentId, value, at: Date.now() };
    await this.answers.upsert(given, ['pollId', 'studentId']);
    shown.answers.set(studentId, given);
  }

  /** Closes or opens the poll that is shown, or puts it away. Throws Problem. */
  async change(
    sittingId: string,
    pollId: string,
    { open, away }: { open: boolean; away: boolean },
  ): Promise<void> {
    const shown = await this.shownIn(sittingId);
    if (shown?.poll.id !== pollId) throw notFound('This question');
    const closedAt = open && !away ? null : (shown.poll.closedAt ?? Date.now());
    await this.polls.update({ id: pollId }, { closedAt, ...(away && { putAwayAt: Date.now() }) });
    this.shown.delete(sittingId);
  }

  private async putAway(sittingId: string): Promise<void> {
    const now = Date.now();
    await this.polls.update({ sittingId, closedAt: IsNull() }, { closedAt: now });
    await this.polls.update({ sittingId, putAwayAt: IsNull() }, { putAwayAt: now });
  }

  private shownIn(sittingId: string) {
    let shown = this.shown.get(sittingId);
    if (!shown) {
      shown = this.read(sittingId);
      this.shown.set(sittingId, shown);
      // Whoever asked is told of a failure; the next one asks again.
      shown.catch(() => this.shown.delete(sittingId));
    }
    return shown;
  }

  private async read(sittingId: string) {
    const poll = await this.polls.findOne({
      where: { sittingId, putAwayAt: IsNull() },
      order: { askedAt: 'DESC' },
    });
    if (!poll) return null;
    const given = await this.answers.findBy({ pollId: poll.id });
    return { poll, answers: new Map(given.map((one) => [one.studentId, one])) };
  }
}

function stateWith({ body, closedAt }: AskedPoll, answers: readonly GivenAnswer[]): PollState {
  const given = [...answers].sort((a, b) => a.at - b.at);
  return {
    ...body,
    open: closedAt === null,
    answered: given.length,
    answers: given.map(({ studentId, value }) => ({ student: body.anonymous ? null : studentId, value })),
  };
}
