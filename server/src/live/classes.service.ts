import { Injectable } from '@nestjs/common';
import type { ClassChange, ClassState, Scene } from '@doodla/core';
import { classChange, EMPTY_SCENE } from '@doodla/core';
import { DevicesService } from '../devices/devices.service.js';
import { notFound } from '../http/problem.js';
import { SittingsService } from '../sittings/sittings.service.js';

/** Tells everybody in a class how things stand: page, pens, who is here. */
@Injectable()
export class ClassesService {
  /** Connections per student or device, by sitting. Not stored: after a restart everybody connects anew. */
  private readonly here = new Map<string, Map<string, number>>();
  /** Shown screens and who may show them, as told by whoever keeps them. */
  private readonly screens = new Map<string, Pick<ClassState, 'screen' | 'presenters'>>();
  /** What is set up, by sitting, where a hand still moves it and it is not stored yet. */
  private readonly moving = new Map<string, Scene>();
  /** Who waits to be let in again, as told by whoever keeps them. */
  private readonly asks = new Map<string, ClassState['asks']>();
  /** What was told last of each class; after it, only what changes is told. */
  private readonly told = new Map<string, ClassState>();
  /** Looking at a class, one after the other. */
  private readonly looks = new Map<string, Promise<ClassState>>();
  private listener: (change: ClassChange) => void = () => undefined;

  constructor(
    private readonly sittings: SittingsService,
    private readonly devices: DevicesService,
  ) {}

  /** Sets who passes changes on. */
  onChange(listener: (change: ClassChange) => void): void {
    this.listener = listener;
  }

  /** How things stand, which is what has been told last. Throws Problem where the class is gone. */
  state(sittingId: string): Promise<ClassState> {
    const before = this.looks.get(sittingId) ?? Promise.resolve();
    const look = before.then(
      () => this.look(sittingId),
      // Whoever looked before has been told why they could not.
      () => this.look(sittingId),
    );
    this.looks.set(sittingId, look);
    const done = () => {
      if (this.looks.get(sittingId) === look) this.looks.delete(sittingId);
    };
    // A failure is told to whoever asked, by `look` itself.
    look.then(done, done);
    return look;
  }

  private async look(sittingId: string): Promise<ClassState> {
    const before = this.told.get(sittingId);
    const after = { ...(await this.read(sittingId)), version: (before?.version ?? 0) + 1 };
    const change = before && classChange(before, after);
    if (before && !change) return { ...before, now: after.now };
    this.told.set(sittingId, after);
    if (change) this.listener(change);
    return after;
  }

  private async read(sittingId: string): Promise<Omit<ClassState, 'version'>> {
    const sitting = await this.sittings.find(sittingId);
    if (!sitting) throw notFound('This class');
    const here = this.here.get(sittingId);
    const { screen, presenters } = this.screens.get(sittingId) ?? { screen: null, presenters: [] };
    const people = await this.sittings.studentsOf(sittingId);
    const devices = await this.devices.listed(sittingId);
    const isHere = (id: string) => (here?.get(id) ?? 0) > 0;
    return {
      sitting: sitting.id,
      lesson: sitting.lessonId,
      title: sitting.title,
      page: sitting.pageId,
      pensUp: sitting.pensUp,
      ended: sitting.endedAt !== null,
      locked: sitting.locked,
      screen,
      presenters,
      people: people.map(({ id, name, colour }) => ({ id, name, colour, here: isHere(id) })),
      asks: this.asks.get(sittingId) ?? [],
      scene: this.sceneOf(sitting),
      devices: devices.map(({ id, kind }) => ({ id, kind, here: isHere(id) })),
      now: Date.now(),
    };
  }

  setScreen(sittingId: string, screen: Pick<ClassState, 'screen' | 'presenters'>): void {
    this.screens.set(sittingId, screen);
  }

  setAsks(sittingId: string, asks: ClassState['asks']): void {
    this.asks.set(sittingId, asks);
  }

  /** Tells everybody in a class what has changed. */
  async announce(sittingId: string): Promise<void> {
    await this.state(sittingId);
  }

  /** Changes what is set up for a class; kept and told to all unless a hand still moves it. */
  async setScene(sittingId: string, set: Partial<Scene>, moving: boolean): Promise<void> {
    const sitting = await this.sittings.find(sittingId);
    if (!sitting || sitting.endedAt !== null) return;
    const scene = { ...this.sceneOf(sitting), ...set };
    if (moving) {
      this.moving.set(sittingId, scene);
      return;
    }
    this.moving.delete(sittingId);
    await this.sittings.setScene(sittingId, scene);
    await this.announce(sittingId);
  }

  /** Whether a student may point. */
  async mayPoint(sittingId: string, student: string): Promise<boolean> {
    const sitting = await this.sittings.find(sittingId);
    return sitting !== null && this.sceneOf(sitting).pointers.includes(student);
  }

  private sceneOf(sitting: { id: string; scene: Scene | null }): Scene {
    return this.moving.get(sitting.id) ?? { ...EMPTY_SCENE, ...sitting.scene };
  }

  /** Who is connected to a class. */
  hereIn(sittingId: string): ReadonlySet<string> {
    const counts = this.here.get(sittingId) ?? new Map<string, number>();
    return new Set([...counts].flatMap(([id, count]) => (count > 0 ? [id] : [])));
  }

  /** Nobody else is let in, or again. */
  async setLocked(sittingId: string, locked: boolean): Promise<void> {
    await this.sittings.setLocked(sittingId, locked);
    await this.announce(sittingId);
  }

  /** Notes a connection of a student or device. Throws Problem where the class is gone. */
  async arrive(sittingId: string, who: string): Promise<void> {
    await this.sittings.seat(who);
    this.count(sittingId, who, 1);
    await this.announce(sittingId);
  }

  async leave(sittingId: string, who: string): Promise<void> {
    this.count(sittingId, who, -1);
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

  /** Ends a class; its marks are kept under a title, or dropped. */
  async end(sittingId: string, how: { title?: string | undefined; drop: boolean }): Promise<void> {
    await this.sittings.end(sittingId, how);
    await this.announce(sittingId);
  }

  /** Lets an ended or dropped class go on. */
  async reopen(sittingId: string): Promise<void> {
    await this.sittings.reopen(sittingId);
    await this.announce(sittingId);
  }

  private count(sittingId: string, who: string, by: number): void {
    const here = this.here.get(sittingId) ?? new Map<string, number>();
    this.here.set(sittingId, here.set(who, Math.max(0, (here.get(who) ?? 0) + by)));
  }
}
