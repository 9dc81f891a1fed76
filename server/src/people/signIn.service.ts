import { Injectable } from '@nestjs/common';
import { InjectRepository } from '@nestjs/typeorm';
import type { SignInReply } from '@doodla/core';
import { INSTALLATION } from '@doodla/core';
import { randomUUID } from 'node:crypto';
import type { RateLimiterAbstract, RateLimiterRes } from 'rate-limiter-flexible';
import { Repository } from 'typeorm';
import { Problem } from '../http/problem.js';
import { Limiters } from '../processes/limiters.js';
import { School } from '../schools/school.entity.js';
import { schoolClosed } from '../schools/schools.service.js';
import type { Operator } from './operator.entity.js';
import { OperatorsService } from './operators.service.js';
import { hashPassword, passwordMatches } from './password.js';
import type { SignInDto } from './people.dto.js';
import { Teacher } from './teacher.entity.js';

const ATTEMPTS = 10;
/** Most places of one address that a password is tried for: each takes a while. */
const MOST_PLACES = 8;

/** Somebody whose password is right, or whom one has to ask which of their places they want. */
export type SignedIn = { teacher: Teacher } | { operator: Operator } | SignInReply;

/** A place that somebody may have: as a teacher of a school, or looking after the installation. */
type Place =
  | { school: School; teacher: Teacher; passwordHash: string }
  | { school: null; operator: Operator; passwordHash: string };

/** Signing in by address and password. */
@Injectable()
export class SignInService {
  /** Ten wrong passwords for one address from one place, in a quarter of an hour. */
  private readonly attempts: RateLimiterAbstract;
  /** Checked for unknown addresses, so that the answer takes as long as for known ones. */
  private readonly decoyHash = hashPassword(randomUUID());

  constructor(
    @InjectRepository(Teacher) private readonly teachers: Repository<Teacher>,
    @InjectRepository(School) private readonly schools: Repository<School>,
    private readonly operators: OperatorsService,
    limiters: Limiters,
  ) {
    this.attempts = limiters.of('passwords', ATTEMPTS, 900);
  }

  /** Checks a password; `from` is the client's address, for limiting attempts. Throws Problem. */
  async signIn({ email, password, school }: SignInDto, from: string): Promise<SignedIn> {
    const key = `${from} ${email.toLowerCase()}`;
    await this.count(key);
    const places = await this.placesOf(email.toLowerCase(), school);
    const matching: Place[] = [];
    for (const place of places) if (await passwordMatches(place.passwordHash, password)) matching.push(place);
    if (places.length === 0) await passwordMatches(await this.decoyHash, password);
    if (matching.length === 0) throw wrongSignIn();
    await this.attempts.delete(key);
    const open = matching.filter((place) => place.school?.closedAt == null);
    if (open.length === 0) throw schoolClosed();
    if (open.length > 1) return { schools: open.map(told) };
    const [place] = open;
    return place!.school ? { teacher: place!.teacher } : { operator: place!.operator };
  }

  /** Counted before it is known whether it is wrong, so that many at once are no way round the limit. Throws Problem. */
  private async count(key: string): Promise<void> {
    const spent = await this.attempts.consume(key).catch((refused: RateLimiterRes) => refused);
    if (spent.consumedPoints <= ATTEMPTS) return;
    const minutes = Math.ceil(spent.msBeforeNext / 60_000);
    throw new Problem(
      429,
      'too-many-passwords',
      `Too many wrong passwords. Please wait ${minutes} minutes and try again.`,
      { minutes },
    );
  }

  /** The places of an address; of one school alone, or of the installation, where that is wanted. */
  private async placesOf(email: string, wanted: string | undefined): Promise<Place[]> {
    const school = wanted === undefined ? null : await this.schoolOf(wanted);
    const teachers =
      wanted !== undefined && !school
        ? []
        : await this.teachers.find({
            where: { email, ...(school && { schoolId: school.id }) },
            order: { createdAt: 'ASC' },
            take: MOST_PLACES,
          });
    const places: Place[] = [];
    for (const teacher of teachers) {
      const its = school ?? (await this.schools.findOneBy({ id: teacher.schoolId }));
      if (its) places.push({ school: its, teacher, passwordHash: teacher.passwordHash });
    }
    if (wanted !== undefined && wanted !== INSTALLATION) return places;
    const operator = await this.operators.byEmail(email);
    if (operator) places.push({ school: null, operator, passwordHash: operator.passwordHash });
    return places;
  }

  private schoolOf(wanted: string): Promise<School | null> {
    return this.schools.findOneBy([{ id: wanted }, { slug: wanted.toLowerCase() }]);
  }
}

const told = ({ school }: Place) => ({ id: school?.id ?? INSTALLATION, name: school?.name ?? '' });

const wrongSignIn = () =>
  new Problem(
    401,
    'wrong-sign-in',
    'That e-mail address and password do not go together. Check both and try again.',
  );
