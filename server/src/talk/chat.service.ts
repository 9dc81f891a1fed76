import { Injectable } from '@nestjs/common';
import { InjectRepository } from '@nestjs/typeorm';
import type { Actor, ChatMessage } from '@doodla/core';
import { CHAT_LIMITS, Refusal } from '@doodla/core';
import { Repository } from 'typeorm';
import { notFound, Problem } from '../http/problem.js';
import type { Sitting } from '../sittings/sitting.entity.js';
import { rulesOf, SittingsService } from '../sittings/sittings.service.js';
import { SaidWords } from './chatMessage.entity.js';

/** What is said to whole classes. */
@Injectable()
export class ChatService {
  constructor(
    @InjectRepository(SaidWords) private readonly said: Repository<SaidWords>,
    private readonly sittings: SittingsService,
  ) {}

  /** Keeps what somebody says; what is there already is left at that. Throws Problem. */
  async say(sitting: Sitting, actor: Actor, id: string, words: string): Promise<SaidWords> {
    const known = await this.said.findOneBy({ id });
    if (known) return ownIn(sitting, actor, known);
    if (words === '') throw new Problem(400, 'no-words', 'There are no words in this message.');
    this.assertMay(sitting, actor);
    if ((await this.said.countBy({ sittingId: sitting.id })) >= CHAT_LIMITS.messages)
      throw new Problem(
        409,
        'chat-full',
        '5000 messages were written in this class. Please start a new class to go on.',
      );
    const name = actor.role === 'teacher' ? null : ((await this.sittings.student(actor.id))?.name ?? '');
    const at = Date.now();
    const said = { id, sittingId: sitting.id, author: actor.id, name, words, at, removedAt: null };
    await this.said.createQueryBuilder().insert().values(said).orIgnore().execute();
    return ownIn(sitting, actor, await this.said.findOneByOrFail({ id }));
  }

  /** Takes a message away, or puts it back. Throws Problem. */
  async setRemoved(sittingId: string, id: string, removed: boolean): Promise<SaidWords> {
    const said = await this.said.findOneBy({ id, sittingId });
    if (!said) throw notFound('This message');
    const removedAt = removed ? (said.removedAt ?? Date.now()) : null;
    await this.said.update({ id }, { removedAt });
    return { ...said, removedAt };
  }

  /** The last messages that somebody may see, oldest first. */
  async last(sitting: Sitting, actor: Actor): Promise<ChatMessage[]> {
    const { id: sittingId } = sitting;
    const take = CHAT_LIMITS.atOnce;
    const said = await this.said.find({ where: { sittingId }, order: { at: 'DESC' }, take });
    return said.reverse().flatMap((one) => this.asSeenBy(actor, one, sitting) ?? []);
  }

  /** All messages of a class that were not taken away, oldest first. */
  all(sittingId: string): Promise<SaidWords[]> {
    return this.said.find({ where: { sittingId }, order: { at: 'ASC' } });
  }

  /** A message as somebody sees it; undefined where they do not: students see nothing of who is hidden. */
  asSeenBy(
    { id: me, role }: Pick<Actor, 'id' | 'role'>,
    { id, author, name, words, at, removedAt }: SaidWords,
    sitting: Sitting,
  ): ChatMessage | undefined {
    const { hidden, seeNames } = rulesOf(sitting);
    const isOwn = author === me;
    const removed = removedAt !== null;
    if (role === 'teacher') return { id, author, name, words, at, removed };
    if (hidden.includes(author) && !isOwn) return undefined;
    const seen = name === null || isOwn || seeNames ? name : '';
    return { id, author, name: seen, words: removed ? '' : words, at, removed };
  }

  private assertMay(sitting: Sitting, { id, role }: Actor): void {
    if (sitting.endedAt !== null) throw new Refusal('ended');
    if (role === 'teacher') return;
    const { chat, muted } = rulesOf(sitting);
    if (!chat)
      throw new Problem(
        403,
        'chat-off',
        'Your teacher has switched the class chat off. Your message was not sent.',
      );
    if (muted.includes(id))
      throw new Problem(
        403,
        'chat-muted',
        'Your teacher has switched your messages off. Your message was not sent.',
      );
  }
}

/** What was said under an id, if it was said here by the same one. Throws Refusal. */
function ownIn(sitting: Sitting, { id }: Actor, said: SaidWords): SaidWords {
  if (said.author !== id || said.sittingId !== sitting.id) throw new Refusal('already-there');
  return said;
}
