import type { LogRef, Page } from '@doodla/core';
import { LiveClient } from './live.js';
import { pdfWith } from './pdfs.js';
import type { Client, TestServer } from './server.js';

export interface TestClass {
  lesson: LogRef;
  sitting: LogRef;
  code: string;
  pages: Page[];
  /** The teacher's live connection, in the class and with both logs open. */
  live: LiveClient;
  /** The teacher's id. */
  me: string;
}

/** A class on a new lesson of two pages. */
export async function aClass(server: TestServer, teacher: Client, title = 'Today'): Promise<TestClass> {
  const { lesson: made } = await teacher.upload('lesson.pdf', await pdfWith([300, 200], [200, 300]));
  const lesson: LogRef = { kind: 'lesson', id: made!.id };
  const { body } = await teacher.send<{ id: string; code: string }>(
    'POST',
    `/api/lessons/${made!.id}/sittings`,
    { title },
  );
  const sitting: LogRef = { kind: 'sitting', id: body.id };
  const live = await LiveClient.connect(server.url, { cookie: teacher.cookie });
  const reply = await live.open(lesson);
  await live.open(sitting);
  await live.enter(sitting);
  return { lesson, sitting, code: body.code, pages: reply.pages!, live, me: reply.actor.id };
}
