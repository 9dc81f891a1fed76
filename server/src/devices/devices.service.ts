import { Injectable } from '@nestjs/common';
import { InjectRepository } from '@nestjs/typeorm';
import type { DeviceKind } from '@doodla/core';
import { randomUUID } from 'node:crypto';
import { IsNull, Not, Repository } from 'typeorm';
import { Problem } from '../http/problem.js';
import { makeJoinCode, normaliseCode } from '../sittings/joinCode.js';
import { SittingsService } from '../sittings/sittings.service.js';
import { Device } from './device.entity.js';

/** How long a code waits for its device. */
const CODE_MS = 15 * 60 * 1000;
/** Most displays and pads of one class at once. */
const MAX_DEVICES = 12;

/** Displays and writing pads: lets them in by a code that is good once, and out again. */
@Injectable()
export class DevicesService {
  /** Removed or not, in memory, since every message of a device asks. */
  private readonly known = new Map<string, Device>();
  private readonly removedListeners: ((device: string) => void)[] = [];

  constructor(
    @InjectRepository(Device) private readonly devices: Repository<Device>,
    private readonly sittings: SittingsService,
  ) {}

  /** Calls back when a device is thrown out. */
  onRemoved(listener: (device: string) => void): void {
    this.removedListeners.push(listener);
  }

  /** A code for one more device. Throws Problem where there are too many. */
  async invite(sittingId: string, kind: DeviceKind, now = Date.now()): Promise<Device> {
    const sitting = await this.sittings.find(sittingId);
    if (!sitting || sitting.endedAt !== null)
      throw new Problem(
        409,
        'ended-devices',
        'This class has ended. Open it again to connect a display or pad.',
      );
    const here = await this.devices.countBy({ sittingId, removedAt: IsNull(), enteredAt: Not(IsNull()) });
    if (here >= MAX_DEVICES)
      throw new Problem(
        409,
        'too-many-devices',
        'Too many displays and pads are connected. Take one out first.',
      );
    const device: Device = {
      id: randomUUID(),
      sittingId,
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
    const device = await this.devices.findOne({
      where: { code: normaliseCode(code) },
      order: { createdAt: 'DESC' },
    });
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
    const sitting = await this.sittings.find(device.sittingId);
    if (device.removedAt !== null || now - device.createdAt > CODE_MS || sitting?.endedAt !== null)
      throw new Problem(
        410,
        'old-code',
        'This code has ended. Please ask for a new one on the teacher’s screen.',
      );
    await this.devices.update({ id: device.id }, { enteredAt: now });
    return { ...device, enteredAt: now };
  }

  /** The devices of a sitting that are let in, oldest first. */
  listed(sittingId: string): Promise<Device[]> {
    return this.devices.find({
      where: { sittingId, removedAt: IsNull(), enteredAt: Not(IsNull()) },
      order: { createdAt: 'ASC' },
    });
  }

  /** The device, if it is still let in and its class goes on. */
  async present(id: string): Promise<Device | undefined> {
    const device = this.known.get(id) ?? (await this.devices.findOneBy({ id }));
    if (!device) return undefined;
    this.known.set(id, device);
    const sitting = await this.sittings.find(device.sittingId);
    return device.removedAt === null && sitting?.endedAt === null ? device : undefined;
  }

  async remove(sittingId: string, id: string): Promise<void> {
    await this.devices.update({ id, sittingId }, { removedAt: Date.now() });
    this.known.delete(id);
    for (const listener of this.removedListeners) listener(id);
  }

  private async freeCode(now: number): Promise<string> {
    for (;;) {
      const code = makeJoinCode();
      const taken = await this.devices.findOneBy({ code });
      if (!taken || now - taken.createdAt > 2 * CODE_MS) return code;
    }
  }
}
