import { Injectable } from '@nestjs/common';
import { InjectRepository } from '@nestjs/typeorm';
import type { GroupRequest } from '@doodla/core';
import { randomUUID } from 'node:crypto';
import { Repository } from 'typeorm';
import { notFound, Problem } from '../http/problem.js';
import { makeJoinCode, normaliseCode } from '../sittings/joinCode.js';
import { ClassGroup } from './group.entity.js';

const MOST_GROUPS = 200;

/** Classes as teachers have them all term: who is in them, and codes that stay. */
@Injectable()
export class GroupsService {
  constructor(@InjectRepository(ClassGroup) private readonly groups: Repository<ClassGroup>) {}

  of(teacherId: string): Promise<ClassGroup[]> {
    return this.groups.find({ where: { teacherId }, order: { createdAt: 'DESC' } });
  }

  find(id: string): Promise<ClassGroup | null> {
    return this.groups.findOneBy({ id });
  }

  /** Throws Problem where it is not the teacher's. */
  async own(teacherId: string, id: string): Promise<ClassGroup> {
    const group = await this.groups.findOneBy({ id, teacherId });
    if (!group) throw notFound('This group');
    return group;
  }

  /** Throws Problem where there are too many. */
  async add(teacherId: string, { title, names, keepsCode }: GroupRequest): Promise<ClassGroup> {
    if ((await this.groups.countBy({ teacherId })) >= MOST_GROUPS)
      throw new Problem(409, 'too-many-groups', 'There are 200 groups already. Please delete one first.');
    const code = keepsCode ? await this.freshCode() : null;
    const group = { id: randomUUID(), teacherId, title, names: [...names], code, createdAt: Date.now() };
    await this.groups.insert(group);
    return group;
  }

  /** A code that is kept stays the one that it is. Throws Problem. */
  async change(
    teacherId: string,
    id: string,
    { title, names, keepsCode }: GroupRequest,
  ): Promise<ClassGroup> {
    const group = await this.own(teacherId, id);
    const code = keepsCode ? (group.code ?? (await this.freshCode())) : null;
    const changed = { ...group, title, names: [...names], code };
    await this.groups.update({ id }, { title, names: changed.names, code });
    return changed;
  }

  /** Its sittings stay. Throws Problem. */
  async remove(teacherId: string, id: string): Promise<void> {
    await this.own(teacherId, id);
    await this.groups.delete({ id });
  }

  /** Whether a group keeps a code. */
  keeps(code: string): Promise<boolean> {
    return this.groups.existsBy({ code: normaliseCode(code) });
  }

  private async freshCode(): Promise<string> {
    for (;;) {
      const code = makeJoinCode();
      if (!(await this.keeps(code))) return code;
    }
  }
}
