import type { NestExpressApplication } from '@nestjs/platform-express';
import type { Page } from '@doodla/core';
import { orderedPages } from '@doodla/core';
import { ExplanationsService } from '@doodla/server/explanations/explanations.service';
import { PiecesService } from '@doodla/server/explanations/pieces.service';
import { GroupsService } from '@doodla/server/groups/groups.service';
import { LessonsService } from '@doodla/server/lessons/lessons.service';
import { LogsService } from '@doodla/server/live/logs.service';
import { MaterialsService } from '@doodla/server/materials/materials.service';
import { PeopleService } from '@doodla/server/people/people.service';
import type { Teacher } from '@doodla/server/people/teacher.entity';
import { SeatsService } from '@doodla/server/sittings/seats.service';
import { SittingsService } from '@doodla/server/sittings/sittings.service';
import { TurnsService } from '@doodla/server/sittings/turns.service';
import { FileStore } from '@doodla/server/storage/fileStore';
import { WebPagesService } from '@doodla/server/webpages/webPages.service';
import { createHash, randomUUID } from 'node:crypto';
import { readFile, writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { pastExplanation } from './explained.js';
import { pastClassMarks, TURNED_AFTER_MS } from './pastClass.js';

export const DEMO_TEACHER = {
  name: 'Tamsin Orrell',
  email: 'demo@quillmere.example',
  password: 'bridges-and-beams',
};
export const DEMO_CODE = 'FGHJ34';
const STUDENTS = ['Ilka', 'Bram', 'Sunniva', 'Odo', 'Tolvey', 'Maelle'];
const material = (name: string) => fileURLToPath(new URL(`../material/${name}`, import.meta.url));

/** Fills an empty installation, and sees to it that there is a class to join. */
export async function seedDemo(app: NestExpressApplication): Promise<void> {
  const people = app.get(PeopleService);
  if (await people.needsSetUp()) await seedLessons(app, await people.setUp(DEMO_TEACHER));
  await openClass(app);
}

async function seedLessons(app: NestExpressApplication, teacher: Teacher): Promise<void> {
  const worksheet = await bringIn(app, teacher, 'bridges-worksheet.pdf', 'Bridges: worksheet');
  await seedPastClass(app, teacher, worksheet);
  await seedGroups(app, teacher);
  const deck = await bringIn(app, teacher, 'how-bridges-work.pdf', 'Standing up to load: how bridges work');
  await bringArticleIn(app, teacher, deck);
}

async function bringIn(
  app: NestExpressApplication,
  teacher: Teacher,
  file: string,
  title: string,
): Promise<string> {
  const path = join(app.get(FileStore).incoming, randomUUID());
  const bytes = await readFile(material(file));
  await writeFile(path, bytes);
  const sha256 = createHash('sha256').update(bytes).digest('hex');
  const upload = { path, sha256, size: bytes.length, name: file };
  const read = await app.get(MaterialsService).take(upload, '', { owner: teacher.id });
  return (await app.get(LessonsService).createFromPdf(teacher.id, title, read)).id;
}

/** The story of a footbridge as the last page of a lesson. */
async function bringArticleIn(app: NestExpressApplication, teacher: Teacher, lesson: string): Promise<void> {
  const { signal } = new AbortController();
  const file = material('footbridge.html');
  const { material: article } = await app
    .get(WebPagesService)
    .fromFile(teacher.id, file, 'footbridge.html', signal);
  const lessons = app.get(LessonsService);
  await lessons.insertWebPage(await lessons.place(teacher.id, lesson), article);
}

/** The classes that the demo's teacher has all term. */
async function seedGroups(app: NestExpressApplication, teacher: Teacher): Promise<void> {
  const groups = app.get(GroupsService);
  await groups.add(teacher.id, { title: '8 Linnet', names: STUDENTS, keepsCode: false });
  const heron = ['Wren', 'Tove', 'Ida Holm', 'Odo Vale', 'Nash', 'Runa', 'Ivo', 'Sanna'];
  await groups.add(teacher.id, { title: '8 Heron', names: heron, keepsCode: true });
}

async function seedPastClass(app: NestExpressApplication, teacher: Teacher, lesson: string): Promise<void> {
  const sittings = app.get(SittingsService);
  const logs = app.get(LogsService);
  const openedAt = Date.now() - 24 * 3600 * 1000;
  const sitting = await sittings.open(lesson, '8 Linnet, bridges, first lesson', { at: openedAt });
  const students = [];
  for (const name of STUDENTS) students.push(await app.get(SeatsService).admit(sitting.id, name));
  const pages: Page[] = orderedPages((await logs.open(lesson)).pages.values());
  const marks = pastClassMarks(pages, { id: teacher.id, colour: '#d55e00' }, students, openedAt);
  for (const { at, mark } of marks) {
    await logs.append(
      sitting.id,
      mark.author,
      { id: randomUUID(), changes: [{ do: 'add', mark }] },
      { at: openedAt + at },
    );
  }
  await seedExplanation(app, sitting.id, openedAt, pages);
  await app.get(TurnsService).note(sitting.id, pages[1]!.id, openedAt + TURNED_AFTER_MS);
  await sittings.end(sitting.id, { drop: false });
}

/** What was explained in the past class, to be played, put into other forms and given on. */
async function seedExplanation(
  app: NestExpressApplication,
  sitting: string,
  openedAt: number,
  pages: readonly Page[],
): Promise<void> {
  const log = { kind: 'sitting', id: sitting } as const;
  const [explanation, id] = [randomUUID(), randomUUID()];
  const { take, notes, said } = pastExplanation(id, openedAt, pages);
  const explanations = app.get(ExplanationsService);
  await explanations.put(log, explanation, said);
  await explanations.putTake(log, explanation, take);
  await app.get(PiecesService).put(log, { take: id, track: 'notes', number: 0 }, Buffer.from(notes));
}

/** The class that visitors of the demo join always has the same code. */
async function openClass(app: NestExpressApplication): Promise<void> {
  const sittings = app.get(SittingsService);
  const open = await sittings.byCode(DEMO_CODE).catch(() => undefined);
  if (open) return;
  const teacher = await app.get(PeopleService).firstTeacher();
  const [lesson] = teacher ? await app.get(LessonsService).list(teacher.id) : [];
  if (!lesson) return;
  const sitting = await sittings.open(lesson.id, '8 Heron, today', { code: DEMO_CODE });
  await sittings.setPens(sitting.id, true);
}
