import type { OnModuleDestroy } from '@nestjs/common';
import { Injectable } from '@nestjs/common';
import type { Change } from '@doodla/core';
import { SharedNotes } from '@doodla/core/notes';
import type { ArchivedClass, ArchivedFile, ArchivedPage, ArchiveHead } from '@doodla/core/archive';
import { renamed } from '@doodla/core/archive';
import { randomUUID } from 'node:crypto';
import { readFile, rm } from 'node:fs/promises';
import { join } from 'node:path';
import { DataSource } from 'typeorm';
import { Problem } from '../http/problem.js';
import { IdeaVote } from '../ideas/ideaVote.entity.js';
import { Lesson } from '../lessons/lesson.entity.js';
import { LessonMaterial } from '../lessons/lessonMaterial.entity.js';
import { LogsService } from '../live/logs.service.js';
import type { Teacher } from '../people/teacher.entity.js';
import { StoredPicture } from '../pictures/picture.entity.js';
import { AskedPoll } from '../polls/poll.entity.js';
import { GivenAnswer } from '../polls/pollAnswer.entity.js';
import { LimitError } from '../reading/limitedProcess.js';
import { processScript } from '../reading/processScript.js';
import { ReaderPool } from '../reading/readerPool.js';
import { Sitting } from '../sittings/sitting.entity.js';
import { SittingMaterial } from '../sittings/sittingMaterial.entity.js';
import { Student } from '../sittings/student.entity.js';
import { FileStore } from '../storage/fileStore.js';
import { Database } from '../storage/database.js';
import { SaidWords } from '../talk/chatMessage.entity.js';
import { ClassNotes } from '../talk/classNotes.entity.js';
import type { KeptFile } from './archivedFiles.service.js';
import { ArchivedFilesService } from './archivedFiles.service.js';
import type { ArchiveAnswer, ArchiveFailure, ArchiveNote, ArchiveTask } from './archiveTask.js';

const LIMITS = { timeMs: 10 * 60_000, memoryMb: 1200 };
const AT_ONCE = 2;
/** All that an archive may unfold to, bytes. */
const MOST_BYTES = 4e9;
/** Marks that are stored in one operation. */
const MARKS_AT_ONCE = 4000;
/** Rows of a statement; SQLite takes 32,766 values. */
const ROWS_AT_ONCE = 500;
/** A code that nobody can type, for classes that have ended. */
const NO_CODE = '-';

interface ReadOptions {
  signal: AbortSignal;
  onProgress(note: ArchiveNote): void;
}

/** A row and the table that it goes into. */
type Row = [entity: new () => object, values: object];
/** Tables whose rows others name, which come after them. */
const NAMED_BY_OTHERS: readonly Row[0][] = [Lesson, Sitting, Student, AskedPoll];

/** Makes lessons of archives, with their classes; everything gets ids of its own. */
@Injectable()
export class ArchiveReadingService implements OnModuleDestroy {
  private readonly readers = new ReaderPool<ArchiveTask, ArchiveAnswer, ArchiveNote>(
    processScript('archive'),
    LIMITS,
    AT_ONCE,
  );

  constructor(
    private readonly files: FileStore,
    private readonly archived: ArchivedFilesService,
    private readonly logs: LogsService,
    private readonly database: Database,
    private readonly source: DataSource,
  ) {}

  onModuleDestroy(): void {
    this.readers.stop();
  }

  /** A new lesson as an archive has it. Throws Problem with what to do; then nothing of it is kept. */
  async read(
    path: string,
    teacher: Pick<Teacher, 'id'>,
    { signal, onProgress }: ReadOptions,
  ): Promise<Lesson> {
    const folder = join(this.files.incoming, randomUUID());
    const made: string[] = [];
    try {
      const task: ArchiveTask = { kind: 'unpack', path, folder, maxBytes: MOST_BYTES };
      const answer = await this.readers
        .run(task, { owner: teacher.id, signal, onNote: onProgress })
        .catch(throwProblem);
      const { head } = answer as Extract<ArchiveAnswer, { kind: 'unpacked' }>;
      const ids = this.newIds(head, teacher);
      const rows: Row[] = [];
      for (const file of head.files) {
        signal.throwIfAborted();
        const kept = await this.archived.keep(join(folder, file.path), file, teacher.id);
        ids.set(file.id, kept.id);
        rows.push(...rowsOfFile(kept, file, head, ids));
      }
      const lessonId = ids.get(HEAD_ID)!;
      await this.putPages(folder, head.pages, lessonId, teacher.id, ids, made);
      for (const taught of head.classes) {
        await this.putPages(folder, taught.pages, ids.get(taught.id)!, teacher.id, ids, made);
        rows.push(...rowsOfClass(taught, lessonId, head, ids));
      }
      const lesson = lessonOf(lessonId, head, teacher.id);
      await this.store([[Lesson, lesson], ...rows]);
      return lesson;
    } catch (error) {
      await this.logs.remove(made);
      throw error;
    } finally {
      await rm(folder, { recursive: true, force: true });
    }
  }

  private newIds(head: ArchiveHead, teacher: Pick<Teacher, 'id'>): Map<string, string> {
    const ids = new Map([
      [HEAD_ID, randomUUID()],
      [head.teacher.id, teacher.id],
    ]);
    for (const { id, students, polls } of head.classes) {
      ids.set(id, randomUUID());
      for (const student of students) ids.set(student.id, randomUUID());
      for (const { poll } of polls) ids.set(poll.id, randomUUID());
    }
    return ids;
  }

  private async putPages(
    folder: string,
    paths: readonly string[],
    log: string,
    teacher: string,
    ids: ReadonlyMap<string, string>,
    made: string[],
  ): Promise<void> {
    made.push(log);
    for (const path of paths) {
      const read = JSON.parse(await readFile(join(folder, path), 'utf8')) as ArchivedPage;
      const { page, marks } = renamed(read, ids);
      const changes: Change[] = [
        { do: 'addPage', page },
        ...marks.map((mark): Change => ({ do: 'add', mark })),
      ];
      for (let from = 0; from < changes.length; from += MARKS_AT_ONCE) {
        const part = changes.slice(from, from + MARKS_AT_ONCE);
        await this.logs.append(log, teacher, { id: randomUUID(), changes: part });
      }
    }
  }

  /** All rows or none. */
  private async store(rows: readonly Row[]): Promise<void> {
    const byTable = new Map<Row[0], Row[]>(NAMED_BY_OTHERS.map((entity) => [entity, []]));
    for (const row of rows) {
      const own = byTable.get(row[0]);
      if (own) own.push(row);
      else byTable.set(row[0], [row]);
    }
    const statements = [...byTable].flatMap(([entity, own]) => {
      const values = own.map(([, row]) => row);
      return Array.from({ length: Math.ceil(values.length / ROWS_AT_ONCE) }, (_, i) =>
        this.source
          .createQueryBuilder()
          .insert()
          .into(entity)
          .values(values.slice(i * ROWS_AT_ONCE, (i + 1) * ROWS_AT_ONCE)),
      );
    });
    await this.database.together(...statements);
  }
}

/** Under which the new lesson's id is noted among those of its parts. */
const HEAD_ID = 'the lesson itself';

function lessonOf(id: string, { title, tags }: ArchiveHead, teacherId: string): Lesson {
  const now = Date.now();
  return {
    id,
    teacherId,
    title,
    coverSha256: null,
    folderId: null,
    favourite: false,
    tags: tags.length > 0 ? [...tags] : null,
    archivedAt: null,
    createdAt: now,
    usedAt: now,
    deletedAt: null,
  };
}

/** A picture's own row, or what notes that a document is used. */
function rowsOfFile(
  { id, bytes }: KeptFile,
  file: ArchivedFile,
  head: ArchiveHead,
  ids: ReadonlyMap<string, string>,
): Row[] {
  const lessonId = ids.get(HEAD_ID)!;
  const sittingId = file.class === null ? null : (ids.get(file.class) ?? null);
  if (file.kind !== 'picture')
    return sittingId === null
      ? [[LessonMaterial, { lessonId, materialId: id }]]
      : [[SittingMaterial, { sittingId, materialId: id }]];
  const author = ids.get(file.author ?? '') ?? ids.get(head.teacher.id)!;
  const type = file.type === 'image/png' ? ('png' as const) : ('jpeg' as const);
  const { sha256, createdAt } = file;
  return [[StoredPicture, { id, lessonId, sittingId, author, type, sha256, bytes, createdAt }]];
}

function rowsOfClass(
  taught: ArchivedClass,
  lessonId: string,
  head: ArchiveHead,
  ids: ReadonlyMap<string, string>,
): Row[] {
  const own = renamed({ ...taught, chat: [], pages: [] }, ids);
  const sittingId = own.id;
  const nameless = (id: string) => ids.get(id) ?? id;
  return [
    [Sitting, sittingOf(own, lessonId, taught.title, head.madeAt)],
    ...own.students.map((student, i): Row => [
      Student,
      { ...student, name: taught.students[i]!.name, sittingId, enteredAt: student.joinedAt },
    ]),
    ...taught.chat.map(({ author, ...said }): Row => [
      SaidWords,
      { ...said, id: randomUUID(), sittingId, author: nameless(author), removedAt: null },
    ]),
    ...notesOf(taught, sittingId, head.madeAt),
    ...taught.polls.flatMap(({ poll, askedAt, closedAt, answers }): Row[] => {
      const pollId = ids.get(poll.id)!;
      const asked = { id: pollId, sittingId, body: { ...poll, id: pollId }, askedAt, closedAt };
      return [
        [AskedPoll, { ...asked, putAwayAt: closedAt ?? head.madeAt }],
        ...answers.map(({ student, value, at }): Row => [
          GivenAnswer,
          { pollId, studentId: nameless(student), value, at },
        ]),
      ];
    }),
    ...own.votes.map(({ mark, page, student }): Row => [
      IdeaVote,
      { sittingId, markId: mark, pageId: page, studentId: student },
    ]),
  ];
}

function sittingOf(
  { id, openedAt, endedAt, page, rules, ways, tables, ideas }: ArchivedClass,
  lessonId: string,
  title: string,
  madeAt: number,
): Sitting {
  return {
    id,
    lessonId,
    title,
    code: NO_CODE,
    pageId: page,
    pensUp: false,
    locked: false,
    nodding: false,
    passwordHash: null,
    groupId: null,
    rules,
    pens: null,
    keepUntil: null,
    coverSha256: null,
    ways,
    tables: tables && tables.map(({ id: table, students }) => ({ id: table, students: [...students] })),
    copy: null,
    ideas,
    openedAt,
    // A class that went on when the archive was made does not go on here.
    endedAt: endedAt ?? madeAt,
    scene: null,
    droppedAt: null,
  };
}

/** Notes as far as they are some. */
function notesOf({ notes }: ArchivedClass, sittingId: string, changedAt: number): Row[] {
  if (notes === null) return [];
  try {
    const { doc } = SharedNotes.of({ doc: notes, version: 0, steps: [] }).kept();
    return [[ClassNotes, { sittingId, body: { doc, steps: [] }, version: 1, changedAt }]];
  } catch {
    throw problemOf('broken');
  }
}

function throwProblem(error: unknown): never {
  if (error instanceof LimitError) throw problemOf('too-large');
  if (typeof error !== 'string') throw error;
  throw problemOf(error as ArchiveFailure);
}

function problemOf(failure: ArchiveFailure): Problem {
  switch (failure) {
    case 'none':
      return new Problem(
        415,
        'archive-none',
        'This file is no lesson archive. Please choose one that was handed out as a lesson archive.',
      );
    case 'newer':
      return new Problem(
        415,
        'archive-newer',
        'This archive was made by a later Doodla than this one. Please ask whoever looks after the server to bring it up to date.',
      );
    case 'too-large':
      return new Problem(
        413,
        'archive-too-large',
        'This archive holds more than a lesson can. Please hand the lesson out again with fewer classes or recordings.',
      );
    case 'broken':
      return new Problem(
        422,
        'archive-broken',
        'Something in this archive is damaged, so nothing of it was taken in. Please hand the lesson out again, or choose another copy of the file.',
      );
  }
}
