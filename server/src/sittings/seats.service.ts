import { Injectable, Logger } from '@nestjs/common';
import { InjectRepository } from '@nestjs/typeorm';
import { studentColour } from '@doodla/core';
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

/** Somebody with the name of one who is here waits for the teacher to say whether it is the same person. */
interface Ask {
  /** Known to the whole class. */
  id: string;
  sitting: string;
  student: Student;
  at: number;
  granted: boolean;
}

/** Gives students their places in a class, and gives them back. */
@Injectable()
export class SeatsService {
  private readonly logger = new Logger('Seats');
  private readonly joins = new Map<string, TokenBucket>();
  /** By a secret that only those know who asked. */
  private readonly asks = new Map<string, Ask>();

  constructor(
    @InjectRepository(Student) private readonly students: Repository<Student>,
    private readonly classes: ClassesService,
  ) {}

  /**
   * Gives a student a place: the one that the device had under this name, that of one of the same name who is
   * away, or a new one. Where somebody of that name is here, returns what the teacher is asked. Throws Problem.
   */
  async join(sitting: Sitting, name: string, device: string | undefined): Promise<Student | { ask: string }> {
    if (!this.joinsOf(sitting.id).take())
      throw new Problem(
        429,
        'too-many-coming',
        'Too many are coming in at once. Please try again in a moment.',
      );
    const lapsed = LessThan(Date.now() - SEAT_MS);
    await this.students.delete({ sittingId: sitting.id, enteredAt: IsNull(), joinedAt: lapsed });
    const present = await this.students.find({
      where: { sittingId: sitting.id },
      order: { joinedAt: 'ASC' },
    });
    const same = present.find((student) => sameName(student.name, name));
    if (same && same.id === device) return same;
    if (sitting.locked)
      throw new Problem(403, 'door-locked', 'Nobody else is let in just now. Please ask your teacher.');
    if (same) return this.isAway(same) ? same : { ask: await this.ask(same) };
    if (present.length >= MAX_STUDENTS)
      throw new Problem(409, 'full', 'This class is full. Please tell your teacher.');
    return this.admit(sitting, name, present.length);
  }

  /** A new place beside so many others. */
  async admit(sitting: Sitting, name: string, others: number): Promise<Student> {
    const student: Student = {
      id: randomUUID(),
      sittingId: sitting.id,
      name,
      colour: studentColour(others),
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
    if (!asked.granted) return undefined;
    this.asks.delete(secret);
    return asked.student;
  }

  /** The teacher lets somebody in who asked, or does not. */
  async answer(sitting: string, ask: string, grant: boolean): Promise<void> {
    for (const [secret, asked] of this.asks) {
      if (asked.id !== ask || asked.sitting !== sitting) continue;
      asked.granted = grant;
      if (!grant) this.asks.delete(secret);
    }
    await this.tellOf(sitting);
  }

  /** Somebody who has just got a place counts as here until they have had time to come. */
  private isAway({ id, sittingId, enteredAt }: Student): boolean {
    return enteredAt !== null && !this.classes.hereIn(sittingId).has(id);
  }

  private async ask(student: Student): Promise<string> {
    this.forgetOld();
    const secret = randomUUID();
    const { sittingId: sitting } = student;
    this.asks.set(secret, { id: randomUUID(), sitting, student, at: Date.now(), granted: false });
    await this.tellOf(sitting);
    setTimeout(() => {
      this.forgetOld();
      this.tellOf(sitting).catch((error: unknown) =>
        logFailure(this.logger, 'Nobody could be told that a wish to come in has lapsed', error),
      );
    }, SEAT_MS + 1).unref();
    return secret;
  }

  private async tellOf(sitting: string): Promise<void> {
    const open = [...this.asks.values()].filter((ask) => ask.sitting === sitting && !ask.granted);
    this.classes.setAsks(
      sitting,
      open.map(({ id, student }) => ({ id, name: student.name })),
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

function sameName(a: string, b: string): boolean {
  return a.localeCompare(b, undefined, { sensitivity: 'accent' }) === 0;
}
