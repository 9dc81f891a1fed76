import { FREE } from '@doodla/core';
import { expect, it } from 'vitest';
import { AnswersService } from '../src/live/answers.service.js';
import { LiveGateway } from '../src/live/live.gateway.js';
import type { LiveSocket } from '../src/live/liveSocket.js';
import { newBudget } from '../src/live/liveSocket.js';
import { SoleLeases } from '../src/processes/leases.js';
import { LogsService } from '../src/live/logs.service.js';
import { strokeBy } from './helpers/live.js';
import { aStore } from './helpers/memoryStore.js';

const surface = { kind: 'blank', colour: '#ffffff', ruling: 'plain', spacing: 5 } as const;
const page = { id: 'p', order: 'a0', title: '', width: 9, height: 9, surface, removed: false };

it('what one browser does is stored in its order, though looking something up takes longer for the first', async () => {
  const logs = new LogsService(aStore(), new SoleLeases());
  await logs.append('log', 'ada', { id: 'o0', changes: [{ do: 'addPage', page }] });
  const classes = { onRules: () => undefined };
  const gateway = new LiveGateway(
    {} as never,
    new AnswersService(logs),
    logs,
    classes as never,
    { onLeft: () => undefined } as never,
    new SoleLeases(),
    { ofLesson: () => Promise.resolve('school') } as never,
  );
  const told = { emit: () => true };
  gateway.afterInit({
    on: () => undefined,
    local: { to: () => told },
    sockets: { adapter: { rooms: new Map() } },
  } as never);

  let looks = 0;
  const situation = async () => {
    looks += 1;
    if (looks === 1) for (let i = 0; i < 5; i++) await new Promise((resolve) => setImmediate(resolve));
    return FREE;
  };
  const access = { actor: { id: 'ada', role: 'teacher', tables: [] }, writes: true, situation };
  const data = { open: new Map([['log', access]]), budget: newBudget() };
  const socket = { data } as unknown as LiveSocket;
  const log = { kind: 'lesson', id: 'log' } as const;
  const submit = (id: string, change: object) =>
    gateway.submit(socket, { log, operation: { id, changes: [change] } } as never);
  const results = await Promise.allSettled([
    submit('o1', { do: 'add', mark: strokeBy('ada', 'p', { id: 'm' }) }),
    submit('o2', { do: 'patch', mark: 'm', set: { order: 'a7' } }),
    submit('o3', { do: 'patch', mark: 'gone', set: { order: 'a1' } }),
    submit('o4', { do: 'remove', mark: 'm' }),
  ]);
  // What is refused holds up nothing.
  expect(results.map((one) => (one.status === 'fulfilled' ? one.value.seq : 'refused'))).toEqual([
    2,
    3,
    'refused',
    4,
  ]);
  logs.onModuleDestroy();
});
