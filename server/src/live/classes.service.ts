import { Injectable } from '@nestjs/common';
import type { ClassState } from '@doodla/core';
import { notFound } from '../http/problem.js';
import { SittingsService } from '../sittings/sittings.service.js';

/** Tells everybody in a class how things stand: page, pens, who is here. */
@Injectable()
export class ClassesService {
  /** Connections per student, by sitting. Not stored: after a restart everybody connects anew. */
  private readonly here = new Map<string, Map<string, number>>();
  /** Shown screens and who may show them, as told by whoever keeps them. */
  private readonly screens = new Map<string, Pick<ClassState, 'screen' | 'presenters'>>();
  private listener: (state: ClassState) => void = () => undefined;

  constructor(private readonly sittings: SittingsService) {}

  /** Sets who passes a changed state on. */
  onChange(listener: (state: ClassState) => void): void {
    this.listener = listener;
  }

  async state(sittingId: string): Promise<ClassState> {
    const sitting = await this.sittings.find(sittingId);
    if (!sitting) throw notFound('This class');
    const here = this.here.get(sittingId);
    const { screen, presenters } = this.screens.get(sittingId) ?? { screen: null, presenters: [] };
    const people = await this.sittings.studentsOf(sittingId);
    return {
      sitting: sitting.id,
      lesson: sitting.lessonId,
      title: sitting.title,
      page: sitting.pageId,
      pensUp: sitting.pensUp,
      ended: sitting.endedAt !== null,
      screen,
      presenters,
      people: people.map(({ id, name, colour }) => ({ id, name, colour, here: (here?.get(id) ?? 0) > 0 })),
    };
  }

  setScreen(sittingId: string, screen: Pick<ClassState, 'screen' | 'presenters'>): void {
    this.screens.set(sittingId, screen);
  }

  async announce(sittingId: string): Promise<void> {
    this.listener(await this.state(sittingId));
  }

  async arrive(sittingId: string, student: string): Promise<void> {
    this.count(sittingId, student, 1);
    await this.announce(sittingId);
  }

  async leave(sittingId: string, student: string): Promise<void> {
    this.count(sittingId, student, -1);
    await this.announce(sittingId);
  }

  async turn(sittingId: string, page: string): Promise<void> {
    await this.sittings.turn(sittingId, page);
    await this.announce(sittingId);
  }

  async setPens(sittingId: string, up: boolean): Promise<void> {
    await this.sittings.setPens(sittingId, up);
    await this.announce(sittingId);
  }

  async end(sittingId: string): Promise<void> {
    await this.sittings.end(sittingId);
    await this.announce(sittingId);
  }

  private count(sittingId: string, student: string, by: number): void {
    const here = this.here.get(sittingId) ?? new Map<string, number>();
    this.here.set(sittingId, here.set(student, Math.max(0, (here.get(student) ?? 0) + by)));
  }
}
