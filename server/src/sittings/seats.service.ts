import { Injectable, Logger } from '@nestjs/common';
import { InjectRepository } from '@nestjs/typeorm';
import type { Ask, Asking } from '@doodla/core';
import { isSameName, seatLook } from '@doodla/core';
import { randomUUID } from 'node:crypto';
import { IsNull, LessThan, Repository } from 'typeorm';
import { logFailure } from '../http/failures.js';
import { Problem } from '../http/problem.js';
import { ClassesService } from '../live/classes.service.js';
import { TokenBucket } from '../live/tokenBucket.js';
import type { Sitting } from './sitting.entity.js';
import { Student } from './student.entity.js';

/** Most students in one sitting. */
const MAX_STUDENTS = 200;
/** How long a seat is kept for somebody who has joined but not come, and how long somebody may wait for a nod. */
const SEAT_MS = 2 * 60_000;

/** Somebody who waits for the teacher to say whether they are let in. */
interface Waiting extends Ask {
  sitting: string;
  /** The place that they get; a new one where there is none yet. */
  student: Student | undefined;
  /** When they last asked, milliseconds since 1970-01-01 UTC. */
  at: number;
  granted: boolean;
}

/** Who wants to come in, and with what. */
export interface Comer {
  name: string;
  /** The place that their device has had. */
  device: string | undefined;
  /** Names that are expected; empty where any name will do. */
  listed: readonly string[];
}

/** Gives students their places in a class, and gives them back. */
@Injectable()
export class SeatsService {
  private readonly logger = new Logger('Seats');
  private readonly joins = new Map<string, TokenBucket>();
  /** The seat that is being given. */
  private admitting: Promise<unknown> = Promise.resolve();
  /** By a secret that only those know who asked. */
  private readonly asks = new Map<string, Waiting>();

  constructor(
    @InjectRepository(Student) private readonly students: Repository<Student>,
    private readonly classes: ClassesService,
  ) {}

  /**
   * Gives a student a place: the one that the device had under this name, that of one of the same name who is
   * away, or a new one. Where the teacher is asked first, returns that. Throws Problem.
   */
  async join(sitting: Sitting, { name, device, listed }: Comer): Promise<Student | Asking> {
    if (!this.joinsOf(sitting.id).take())
      throw new Problem(
        429,
        'too-many-coming',
        'Too many are coming in at once. Please try again in a moment.',
      );
    const lapsed = LessThan(Date.now() - SEAT_MS);
    await this.students.delete({ sittingId: sitting.id, enteredAt: IsNull(), joinedAt: lapsed });
    const present = await this.presentIn(sitting.id);
    const same = present.find((student) => isSameName(student.name, name));
    if (same && same.id === device) return same;
    if (sitting.locked)
      throw new Problem(403, 'door-locked', 'Nobody else is let in just now. Please ask your teacher.');
    if (same && !this.isAway(same)) return this.ask(sitting.id, name, 'same-name', same);
    if (!same && present.length >= MAX_STUDENTS) throw isFull();
    const isListed = listed.length === 0 || listed.some((known) => isSameName(known, name));
    if (!isListed) return this.ask(sitting.id, name, 'not-listed', same);
    if (sitting.nodding) return this.ask(sitting.id, name, 'new', same);
    return same ?? this.admit(sitting.id, name);
  }

  /** A new place: the first seat that is free. Throws Problem where there is none. */
  admit(sittingId: string, name: string): Promise<Student> {
    // One after the other: a class that comes at once would sit on one seat.
    const seated = this.admitting.then(() => this.seat(sittingId, name));
    this.admitting = seated.catch(() => undefined); // Whoever asked for it hears of its failure.
    return seated;
  }

  private async seat(sittingId: string, name: string): Promise<Student> {
    const present = await this.presentIn(sittingId);
    const same = present.find((student) => isSameName(student.name, name));
    if (same) return same;
    if (present.length >= MAX_STUDENTS) throw isFull();
    const taken = new Set(present.map(({ seat }) => seat));
    let seat = 0;
    while (taken.has(seat)) seat += 1;
    const student: Student = {
      id: randomUUID(),
      sittingId,
      name,
      colour: seatLook(seat).colour,
      seat,
      joinedAt: Date.now(),
      enteredAt: null,
    };
    await this.students.insert(student);
    return student;
  }

  /** The place that was asked for once the teacher has nodded, undefined before. Throws Problem when it is refused. */
  granted(secret: string): Student | undefined {
    this.forgetOld();
    const asked = this.asks.get(secret);
    if (!asked)
      throw new Problem(
        404,
        'not-let-in',
        'You were not let in under this name. Please add a letter or a number.',
      );
    // Whoever goes on asking goes on waiting.
    asked.at = Date.now();
    if (!asked.granted) return undefined;
    this.asks.delete(secret);
    return asked.student;
  }

  /** What somebody waits for who goes on asking. */
  waits(secret: string): Asking {
    return { ask: secret, why: this.asks.get(secret)?.why ?? 'new' };
  }

  /** The teacher lets somebody in who asked, or does not. Throws Problem where the class is full. */
  async answer(sitting: string, ask: string, grant: boolean): Promise<void> {
    for (const [secret, asked] of this.asks) {
      if (asked.id !== ask || asked.sitting !== sitting) continue;
      if (grant) asked.student ??= await this.admit(sitting, asked.name);
      asked.granted = grant;
      if (!grant) this.asks.delete(secret);
    }
    await this.tellOf(sitting);
  }

  /** Somebody who has just got a place counts as here until they have had time to come. */
  private isAway({ id, sittingId, enteredAt }: Student): boolean {
    return enteredAt !== null && !this.classes.hereIn(sittingId).has(id);
  }

  private async ask(
    sitting: string,
    name: string,
    why: Ask['why'],
    student: Student | undefined,
  ): Promise<Asking> {
    this.forgetOld();
    const secret = randomUUID();
    const waiting = { id: randomUUID(), name, why, sitting, student, at: Date.now(), granted: false };
    this.asks.set(secret, waiting);
    await this.tellOf(sitting);
    this.forgetLater(secret, sitting);
    return { ask: secret, why };
  }

  /** Tells that somebody no longer waits, once they have not asked for long. */
  private forgetLater(secret: string, sitting: string): void {
    setTimeout(() => {
      this.forgetOld();
      if (this.asks.has(secret)) return this.forgetLater(secret, sitting);
      this.tellOf(sitting).catch((error: unknown) =>
        logFailure(this.logger, 'Nobody could be told that a wish to come in has lapsed', error),
      );
    }, SEAT_MS + 1).unref();
  }

  private presentIn(sittingId: string): Promise<Student[]> {
    return this.students.find({ where: { sittingId }, order: { joinedAt: 'ASC' } });
  }

  private async tellOf(sitting: string): Promise<void> {
    const open = [...this.asks.values()].filter((ask) => ask.sitting === sitting && !ask.granted);
    this.classes.setAsks(
      sitting,
      open.map(({ id, name, why }) => ({ id, name, why })),
    );
    await this.classes.announce(sitting);
  }

  private forgetOld(): void {
    for (const [secret, { at }] of this.asks) if (Date.now() - at > SEAT_MS) this.asks.delete(secret);
  }

  private joinsOf(sittingId: string): TokenBucket {
    let joins = this.joins.get(sittingId);
    // A large class comes at once; two a second after that.
    if (!joins) this.joins.set(sittingId, (joins = new TokenBucket(80, 2)));
    return joins;
  }
}

function isFull(): Problem {
  return new Problem(409, 'full', 'This class is full. Please tell your teacher.');
}
