import { Injectable } from '@nestjs/common';
import type { Asking, CodeReply, DoorRequest } from '@doodla/core';
import { isSameName } from '@doodla/core';
import { createHash, timingSafeEqual } from 'node:crypto';
import { GroupsService } from '../groups/groups.service.js';
import { Problem } from '../http/problem.js';
import { ClassesService } from '../live/classes.service.js';
import { hashPassword, passwordMatches } from '../people/password.js';
import type { Comer } from './seats.service.js';
import { SeatsService } from './seats.service.js';
import type { Sitting } from './sitting.entity.js';
import { SittingsService } from './sittings.service.js';
import type { Student } from './student.entity.js';

/** Says who is let into a class of those who have its code. */
@Injectable()
export class DoorService {
  /** Digests of passwords that were right, by their stored hash: a whole class comes with the same one at once. */
  private readonly right = new Map<string, Buffer>();

  constructor(
    private readonly sittings: SittingsService,
    private readonly seats: SeatsService,
    private readonly groups: GroupsService,
    private readonly classes: ClassesService,
  ) {}

  /** Changes what is given of a door. Returns the join code. Throws Problem. */
  async set(
    { id, code }: Sitting,
    teacherId: string,
    { locked, nodding, password, group }: DoorRequest,
  ): Promise<string> {
    const taught = group ? await this.groups.own(teacherId, group) : null;
    const passwordHash = password ? await hashPassword(password) : null;
    if (password && passwordHash) this.right.set(passwordHash, digestOf(password));
    await this.sittings.setDoor(id, {
      ...(locked !== undefined && { locked }),
      ...(nodding !== undefined && { nodding }),
      ...(password !== undefined && { passwordHash }),
    });
    const codes = group === undefined ? new Map<string, string>() : await this.sittings.teach(id, taught);
    for (const changed of new Set([id, ...codes.keys()])) await this.classes.announce(changed);
    return codes.get(id) ?? code;
  }

  /** What one needs to come in. Throws Problem where a password is wrong. */
  async look(sitting: Sitting, password: string | undefined): Promise<CodeReply> {
    const { title, passwordHash } = sitting;
    if (passwordHash !== null && !password) return { title, wantsPassword: true, names: [] };
    await this.checkPassword(sitting, password);
    const [listed, here] = [await this.namesOf(sitting), this.classes.hereIn(sitting.id)];
    const present = (await this.sittings.studentsOf(sitting.id)).filter(({ id }) => here.has(id));
    const names = listed.filter((name) => !present.some((student) => isSameName(student.name, name)));
    return { title, wantsPassword: false, names };
  }

  /** Lets somebody in, or asks the teacher. Throws Problem. */
  async join(
    sitting: Sitting,
    { name, device, password }: Omit<Comer, 'listed'> & { password?: string | undefined },
  ): Promise<Student | Asking> {
    // Whoever has been let in before is not asked again.
    const before = device === undefined ? null : await this.sittings.student(device);
    if (before?.sittingId !== sitting.id) await this.checkPassword(sitting, password);
    return this.seats.join(sitting, { name, device, listed: await this.namesOf(sitting) });
  }

  private async namesOf({ groupId }: Sitting): Promise<readonly string[]> {
    return (groupId === null ? null : await this.groups.find(groupId))?.names ?? [];
  }

  /** Throws Problem where it is not the password of a sitting that has one. */
  private async checkPassword({ passwordHash }: Sitting, password: string | undefined): Promise<void> {
    if (passwordHash === null) return;
    if (!password)
      throw new Problem(403, 'password-wanted', 'This class has a password. Please ask your teacher for it.');
    const digest = digestOf(password);
    const right = this.right.get(passwordHash);
    if (right ? !timingSafeEqual(right, digest) : !(await passwordMatches(passwordHash, password)))
      throw new Problem(
        403,
        'wrong-class-password',
        'That is not the password of this class. Please try again.',
      );
    this.right.set(passwordHash, digest);
  }
}

const digestOf = (password: string) => createHash('sha256').update(password).digest();
