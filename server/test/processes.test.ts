import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { CAN_SHARE, Installation, Line } from './helpers/processes.js';
import type { ServerProcess } from './helpers/processes.js';
import type { Client } from './helpers/server.js';
import type { Place } from './helpers/writingClass.js';
import { firstTeacher, openClass, writingThrough } from './helpers/writingClass.js';

describe.skipIf(!CAN_SHARE)('two processes', () => {
  let school: Installation;
  let one: ServerProcess;
  let other: ServerProcess;
  let front: Line;
  let teacher: Client;
  let place: Place;
  beforeAll(async () => {
    school = await Installation.create();
    [one, other] = [await school.start(), await school.start()];
    front = await Line.to(one.port, other.port);
    teacher = await firstTeacher(one.url);
    place = await openClass(one.url, teacher);
  });
  afterAll(async () => {
    front.close();
    await school.remove();
  });

  it('show one class as one, whichever of them somebody comes to', async () => {
    const waited = await writingThrough({ url: front.url, place, database: school.database }, () =>
      Promise.resolve(),
    );
    expect(waited).toBeLessThan(10_000);
  });
});
