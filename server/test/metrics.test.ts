import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { TestClass } from './helpers/aClass.js';
import { aClass } from './helpers/aClass.js';
import { strokeBy } from './helpers/live.js';
import type { Client, TestServer } from './helpers/server.js';
import { signedIn, startServer } from './helpers/server.js';

const TOKEN = 'a-long-enough-token';

let server: TestServer;
let teacher: Client;
let room: TestClass;

beforeAll(async () => {
  server = await startServer({ DOODLA_METRICS_TOKEN: TOKEN });
  teacher = await signedIn(server);
  room = await aClass(server, teacher);
});
afterAll(async () => {
  room.live.close();
  await server.remove();
});

const asked = (token?: string) =>
  fetch(
    `${server.url}/metrics`,
    token === undefined ? {} : { headers: { authorization: `Bearer ${token}` } },
  );

/** Samples by name and labels, as the format says (Prometheus, "Exposition formats", text format 0.0.4). */
async function samples(): Promise<Map<string, number>> {
  const answer = await asked(TOKEN);
  expect(answer.headers.get('content-type')).toMatch(/^text\/plain;.*version=0\.0\.4/);
  const lines = (await answer.text()).split('\n').filter((line) => line !== '' && !line.startsWith('#'));
  return new Map(
    lines.map((line) => {
      const [, name, value] = /^([a-zA-Z_:][\w:]*(?:\{.*\})?) (\S+)$/.exec(line)!;
      return [name!, Number(value)];
    }),
  );
}

describe('figures for whoever watches', () => {
  it('say who is connected, which classes go on, and how long storing takes', async () => {
    const before = await samples();
    expect(before.get('doodla_connections{role="teacher"}')).toBe(1);
    expect(before.get('doodla_classes')).toBe(1);
    expect(before.get('doodla_logs_open')).toBeGreaterThanOrEqual(2);
    expect(before.get('doodla_reads_waiting')).toBe(0);
    expect(before.get('doodla_disk_free_bytes')).toBeGreaterThan(0);
    await room.live.submit(room.sitting, [{ do: 'add', mark: strokeBy(room.me, room.pages[0]!.id) }]);
    const after = await samples();
    const count = 'doodla_append_seconds_count';
    expect(after.get(count)! - before.get(count)!).toBe(1);
    expect(after.get('doodla_append_seconds_bucket{le="+Inf"}')).toBe(after.get(count));
    expect(after.get('process_resident_memory_bytes')).toBeGreaterThan(0);
  });

  it('are for those alone who have the token, and say nothing of people', async () => {
    expect((await asked()).status).toBe(401);
    expect((await asked(`${TOKEN}x`)).status).toBe(401);
    expect((await teacher.send('GET', '/metrics')).body.code).toBe('metrics-token');
    const text = await (await asked(TOKEN)).text();
    for (const word of ['Ada', 'school.example', room.sitting.id, room.me]) expect(text).not.toContain(word);
  });

  it('are not there where no token is set', async () => {
    const plain = await startServer();
    const bearer = { headers: { authorization: `Bearer ${TOKEN}` } };
    expect((await fetch(`${plain.url}/metrics`, bearer)).status).toBe(404);
    await plain.remove();
  });

  it('want a token that cannot be guessed', async () => {
    await expect(startServer({ DOODLA_METRICS_TOKEN: 'short' })).rejects.toThrow('DOODLA_METRICS_TOKEN');
  });
});
