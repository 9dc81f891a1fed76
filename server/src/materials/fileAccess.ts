import type { LogRef } from '@doodla/core';
import { Injectable } from '@nestjs/common';
import { InjectRepository } from '@nestjs/typeorm';
import { Repository } from 'typeorm';
import { notFound } from '../http/problem.js';
import { TeamsService } from '../lessons/teams.service.js';
import { AccessService } from '../live/access.service.js';
import type { Visitor } from '../people/visitor.js';
import { StoredPicture } from '../pictures/picture.entity.js';
import { SittingsService } from '../sittings/sittings.service.js';
import { Material } from './material.entity.js';

/** Who may see which stored files. */
@Injectable()
export class FileAccess {
  constructor(
    @InjectRepository(Material) private readonly materials: Repository<Material>,
    @InjectRepository(StoredPicture) private readonly pictures: Repository<StoredPicture>,
    private readonly sittings: SittingsService,
    private readonly access: AccessService,
    private readonly teams: TeamsService,
  ) {}

  /** A document, web page or recording: its teacher's own, or used in the visitor's class. Throws Problem. */
  async material(visitor: Visitor, id: string): Promise<Material> {
    const material = await this.materials.findOneBy({ id });
    if (!material || !(await this.maySee(visitor, material))) throw notFound('This document');
    return material;
  }

  /** A picture of a lesson or class that the visitor may open. Throws Problem. */
  async picture(visitor: Visitor, id: string): Promise<StoredPicture> {
    const picture = await this.pictures.findOneBy({ id });
    if (!picture) throw notFound('This picture');
    const { lessonId, sittingId } = picture;
    const log = sittingId === null ? { kind: 'lesson', id: lessonId } : { kind: 'sitting', id: sittingId };
    await this.access.to(log as LogRef, visitor);
    return picture;
  }

  private async maySee(visitor: Visitor, { id }: Material): Promise<boolean> {
    if (visitor.role === 'teacher') return this.teams.sees(visitor.teacher.id, id);
    return 'sitting' in visitor && this.sittings.usesMaterial(visitor.sitting, id);
  }
}
