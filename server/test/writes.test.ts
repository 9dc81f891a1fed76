import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { LessonsService } from '../src/lessons/lessons.service.js';
import { LogsService } from '../src/live/logs.service.js';
import { SittingsService } from '../src/sittings/sittings.service.js';
import { Database } from '../src/storage/database.js';
import { DataSource } from 'typeorm';
import type { TestClass } from './helpers/aClass.js';
import { aClass } from './helpers/aClass.js';
import type { TestServer } from './helpers/server.js';
import { signedIn, startServer } from './helpers/server.js';

let server: TestServer;
let room: TestClass;

beforeAll(async () => {
  server = await startServer();
  room = await aClass(server, await signedIn(server));
});
afterAll(async () => {
  room.live.close();
  await server.remove();
});

const source = () => server.app.get(DataSource);
const count = async (table: string) =>
  (await source().query<{ n: number }[]>(`SELECT count(*) AS n FROM ${table}`))[0]!.n;

describe('writes that belong together', () => {
  it('are all there, or none', async () => {
    const writes = server.app.get(Database);
    const put = (name: string) =>
      [
        'INSERT INTO preference (teacher_id, name, value) SELECT id, ?, ? FROM teacher',
        [name, '{}'],
      ] as const;
    await writes.together(put('one'), put('two'));
    expect(await count('preference')).toBe(2);
    await expect(writes.together(put('three'), put('one'))).rejects.toThrow(/unique/i);
    expect(await count('preference')).toBe(2);
  });

  it('of a new lesson: without its row there are neither pages nor a document of its', async () => {
    const lessons = server.app.get(LessonsService);
    const before = [await count('lesson'), await count('log_page')];
    // No such teacher: the lesson's row cannot be written, which comes after its pages.
    await expect(lessons.createBlank('nobody', null)).rejects.toThrow(/foreign key/i);
    expect([await count('lesson'), await count('log_page')]).toEqual(before);
  });

  it('of a lesson that is deleted: its classes end with it', async () => {
    const lessons = server.app.get(LessonsService);
    const sittings = server.app.get(SittingsService);
    const lesson = (await lessons.find(room.lesson.id))!;
    expect(await lessons.remove(lesson)).toEqual([room.sitting.id]);
    expect((await lessons.find(lesson.id))!.deletedAt).not.toBeNull();
    expect(await sittings.find(room.sitting.id)).toMatchObject({ pensUp: false, scene: null });
    expect((await sittings.find(room.sitting.id))!.endedAt).not.toBeNull();
    expect((await server.app.get(LogsService).open(room.sitting.id)).pages.size).toBeGreaterThan(0);
  });
});
