import { Injectable } from '@nestjs/common';
import { InjectRepository } from '@nestjs/typeorm';
import type { DeviceKind } from '@doodla/core';
import { randomUUID } from 'node:crypto';
import { IsNull, MoreThanOrEqual, Not, Repository } from 'typeorm';
import { Problem } from '../http/problem.js';
import { Leases } from '../processes/leases.js';
import { makeJoinCode, normaliseCode } from '../sittings/joinCode.js';
import { LessonsService } from '../lessons/lessons.service.js';
import { SittingsService } from '../sittings/sittings.service.js';
import { Device } from './device.entity.js';

/** How long a code waits for its device. */
const CODE_MS = 15 * 60 * 1000;
/** How long a companion may bring pages into a lesson. */
const LESSON_MS = 12 * 60 * 60 * 1000;
/** Most devices of one class or lesson at once. */
const MAX_DEVICES = 12;

/** The class or the lesson that a device is let into. */
export type DeviceHome = { sittingId: string } | { lessonId: string };

const LET_IN = { removedAt: IsNull(), enteredAt: Not(IsNull()) };
/** Those of a lesson are there for a day's work, those of a class as long as it goes on. */
const fresh = (home: DeviceHome, now: number) =>
  'lessonId' in home ? { createdAt: MoreThanOrEqual(now - LESSON_MS) } : {};
const homeOf = ({ sittingId, lessonId }: Device): DeviceHome =>
  sittingId === null ? { lessonId: lessonId! } : { sittingId };

/** Displays, writing pads and companions: lets them in by a code that is good once, and out again. */
@Injectable()
export class DevicesService {
  /** Removed or not, in memory, since every message of a device asks. */
  private readonly known = new Map<string, Device>();
  private readonly removedListeners: ((device: string) => void)[] = [];

  constructor(
    @InjectRepository(Device) private readonly devices: Repository<Device>,
    private readonly sittings: SittingsService,
    private readonly lessons: LessonsService,
    private readonly leases: Leases,
  ) {
    leases.onLeft(() => this.known.clear());
  }

  /** Calls back when a device is thrown out. */
  onRemoved(listener: (device: string) => void): void {
    this.removedListeners.push(listener);
  }

  /** A code for one more device. Throws Problem where there are too many. */
  async invite(home: DeviceHome, kind: DeviceKind, now = Date.now()): Promise<Device> {
    if (!(await this.isOpen(home)))
      throw new Problem(
        409,
        'ended-devices',
        'This class has ended. Open it again to connect a display or pad.',
      );
    const here = await this.devices.countBy({ ...home, ...LET_IN, ...fresh(home, now) });
    if (here >= MAX_DEVICES)
      throw new Problem(
        409,
        'too-many-devices',
        'Too many displays and pads are connected. Take one out first.',
      );
    const device: Device = {
      id: randomUUID(),
      sittingId: null,
      lessonId: null,
      ...home,
      kind,
      code: await this.freeCode(now),
      createdAt: now,
      enteredAt: null,
      removedAt: null,
    };
    await this.devices.insert(device);
    return device;
  }

  /** Lets the device in that brings a code. Throws Problem that says what to do. */
  async enter(code: string, now = Date.now()): Promise<Device> {
    const device = await this.withCode(code);
    if (!device)
      throw new Problem(
        404,
        'wrong-device-code',
        'There is no such code. Please look at the teacher’s screen again.',
      );
    if (device.enteredAt !== null)
      throw new Problem(
        409,
        'used-code',
        'This code has been used already. Please ask for a new one on the teacher’s screen.',
      );
    const isOld = device.removedAt !== null || now - device.createdAt > CODE_MS;
    if (isOld || !(await this.isOpen(homeOf(device))))
      throw new Problem(
        410,
        'old-code',
        'This code has ended. Please ask for a new one on the teacher’s screen.',
      );
    await this.devices.update({ id: device.id }, { enteredAt: now });
    return { ...device, enteredAt: now };
  }

  /** The devices of a class or lesson that are let in, oldest first. */
  listed(home: DeviceHome, now = Date.now()): Promise<Device[]> {
    return this.devices.find({
      where: { ...home, ...LET_IN, ...fresh(home, now) },
      order: { createdAt: 'ASC' },
    });
  }

  /** The device, if it is still let in and its class goes on, or its lesson is there and it came today. */
  async present(id: string, now = Date.now()): Promise<Device | undefined> {
    const device = this.known.get(id) ?? (await this.devices.findOneBy({ id }));
    if (!device) return undefined;
    if (this.leases.isHeld(device.sittingId ?? device.lessonId!)) this.known.set(id, device);
    const isOld = device.lessonId !== null && now - device.createdAt > LESSON_MS;
    const isOut = device.removedAt !== null || isOld || !(await this.isOpen(homeOf(device)));
    return isOut ? undefined : device;
  }

  async remove(home: DeviceHome, id: string): Promise<void> {
    await this.devices.update({ id, ...home }, { removedAt: Date.now() });
    this.known.delete(id);
    for (const listener of this.removedListeners) listener(id);
  }

  /** The class or lesson that a code leads to, used or not. */
  async codeLeadsTo(code: string): Promise<string | undefined> {
    const device = await this.withCode(code);
    return device?.sittingId ?? device?.lessonId ?? undefined;
  }

  private withCode(code: string): Promise<Device | null> {
    return this.devices.findOne({ where: { code: normaliseCode(code) }, order: { createdAt: 'DESC' } });
  }

  private async isOpen(home: DeviceHome): Promise<boolean> {
    if ('lessonId' in home) return (await this.lessons.find(home.lessonId))?.deletedAt === null;
    return (await this.sittings.find(home.sittingId))?.endedAt === null;
  }

  private async freeCode(now: number): Promise<string> {
    for (;;) {
      const code = makeJoinCode();
      const taken = await this.devices.findOneBy({ code });
      if (!taken || now - taken.createdAt > 2 * CODE_MS) return code;
    }
  }
}
