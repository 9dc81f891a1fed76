import { Injectable } from '@nestjs/common';
import { InjectRepository } from '@nestjs/typeorm';
import type { LinkRequest, LogRef } from '@doodla/core';
import { LINK_LIMITS } from '@doodla/core';
import { randomBytes, randomUUID } from 'node:crypto';
import { IsNull, Not, Repository } from 'typeorm';
import { ExplanationsService } from '../explanations/explanations.service.js';
import { notFound, Problem } from '../http/problem.js';
import { LessonsService } from '../lessons/lessons.service.js';
import { hashPassword, passwordMatches } from '../people/password.js';
import { SchoolsService } from '../schools/schools.service.js';
import { SittingsService } from '../sittings/sittings.service.js';
import { SharedLink } from './link.entity.js';

/** Links that show pages to whoever has them; what they show is made when the link is, and stays as it was. */
@Injectable()
export class LinksService {
  constructor(
    @InjectRepository(SharedLink) private readonly links: Repository<SharedLink>,
    private readonly lessons: LessonsService,
    private readonly sittings: SittingsService,
    private readonly explanations: ExplanationsService,
    private readonly schools: SchoolsService,
  ) {}

  /** Makes a link that shows nothing yet. Throws Problem where lesson or class are not the teacher's. */
  async make(teacherId: string, lessonId: string, what: LinkRequest): Promise<SharedLink> {
    const { title, sitting, explanation, password, endsAt, mayDownload } = what;
    await this.lessons.own(teacherId, lessonId);
    if (sitting !== undefined && (await this.sittings.find(sitting))?.lessonId !== lessonId)
      throw notFound('This class');
    if (explanation !== undefined) await this.checkFinished({ lessonId, sittingId: sitting }, explanation);
    if ((await this.links.countBy({ lessonId })) >= LINK_LIMITS.perLesson)
      throw new Problem(
        409,
        'too-many-links',
        'There are 100 links to this lesson already. Please take some of them back first.',
      );
    const link: SharedLink = {
      id: randomUUID(),
      lessonId,
      sittingId: sitting ?? null,
      explanationId: explanation ?? null,
      title,
      token: randomBytes(16).toString('base64url'),
      passwordHash: password === undefined ? null : await hashPassword(password),
      endsAt: endsAt ?? null,
      mayDownload,
      sha256: null,
      createdAt: Date.now(),
    };
    await this.links.insert(link);
    return link;
  }

  /** Throws Problem where a lesson or class has no such explanation that is complete. */
  private async checkFinished(
    { lessonId, sittingId }: { lessonId: string; sittingId: string | undefined },
    id: string,
  ): Promise<void> {
    const log: LogRef =
      sittingId === undefined ? { kind: 'lesson', id: lessonId } : { kind: 'sitting', id: sittingId };
    const { finished, droppedAt } = await this.explanations.find(log, id);
    if (!finished || droppedAt !== null) throw notFound('This explanation');
  }

  /** A link of the teacher's. Throws Problem. */
  async own(teacherId: string, id: string): Promise<SharedLink> {
    const link = await this.links.findOneBy({ id });
    if (!link) throw notFound('This link');
    await this.lessons.own(teacherId, link.lessonId);
    return link;
  }

  /** Says what a link shows from now on. */
  async show({ id }: SharedLink, sha256: string): Promise<void> {
    await this.links.update({ id }, { sha256 });
  }

  /** The links to a lesson and its classes, the last first. */
  async of(teacherId: string, lessonId: string): Promise<SharedLink[]> {
    await this.lessons.own(teacherId, lessonId);
    return this.links.find({ where: { lessonId, sha256: Not(IsNull()) }, order: { createdAt: 'DESC' } });
  }

  async remove({ id }: SharedLink): Promise<void> {
    await this.links.delete({ id });
  }

  /** Takes all links to a class back, such as when something on its pages has to go. */
  async removeOf(sittingId: string): Promise<void> {
    await this.links.delete({ sittingId });
  }

  /** A link that shows something, by what it ends with. Throws Problem where it is over. */
  async at(token: string): Promise<SharedLink & { sha256: string }> {
    const link = await this.links.findOneBy({ token });
    const lesson = link && (await this.lessons.find(link.lessonId));
    const sitting = link?.sittingId == null ? undefined : await this.sittings.find(link.sittingId);
    const isDropped = link?.explanationId != null && !(await this.explanations.isThere(link.explanationId));
    const isAway = isDropped || !lesson || lesson.deletedAt !== null || (sitting?.droppedAt ?? null) !== null;
    const isOver = isAway || (link.endsAt !== null && link.endsAt < Date.now());
    if (isOver || link.sha256 === null)
      throw new Problem(
        404,
        'link-gone',
        'This link does not show anything any more. Please ask whoever gave it to you for a new one.',
      );
    await this.schools.checkOpen(link.lessonId);
    return { ...link, sha256: link.sha256 };
  }

  /** Throws Problem where a link asks for a password and this is another one. */
  async checkPassword({ passwordHash }: SharedLink, password: string | undefined): Promise<void> {
    if (passwordHash === null) return;
    if (password === undefined || !(await passwordMatches(passwordHash, password)))
      throw new Problem(403, 'wrong-link-password', 'That is not the password. Please try again.');
  }
}
