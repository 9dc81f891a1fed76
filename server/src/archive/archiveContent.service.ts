import { Injectable } from '@nestjs/common';
import { InjectRepository } from '@nestjs/typeorm';
import type { Mark, Page } from '@doodla/core';
import { orderedPages } from '@doodla/core';
import type {
  ArchivedClass,
  ArchivedFile,
  ArchivedPage,
  ArchivedPoll,
  ArchiveHead,
} from '@doodla/core/archive';
import { ARCHIVE } from '@doodla/core/archive';
import { In, Repository } from 'typeorm';
import type { Lesson } from '../lessons/lesson.entity.js';
import { IdeaVote } from '../ideas/ideaVote.entity.js';
import { LogsService } from '../live/logs.service.js';
import { Material } from '../materials/material.entity.js';
import type { Teacher } from '../people/teacher.entity.js';
import { StoredPicture } from '../pictures/picture.entity.js';
import { AskedPoll } from '../polls/poll.entity.js';
import { GivenAnswer } from '../polls/pollAnswer.entity.js';
import { Sitting } from '../sittings/sitting.entity.js';
import { Student } from '../sittings/student.entity.js';
import { SaidWords } from '../talk/chatMessage.entity.js';
import { NotesService } from '../talk/notes.service.js';

/** A page of an archive and the file that it becomes. */
export interface PageFile {
  path: string;
  content: ArchivedPage;
}

/** Everything of a lesson that goes into its archive, page by page. */
@Injectable()
export class ArchiveContentService {
  constructor(
    private readonly logs: LogsService,
    private readonly notes: NotesService,
    @InjectRepository(Material) private readonly materials: Repository<Material>,
    @InjectRepository(StoredPicture) private readonly pictures: Repository<StoredPicture>,
    @InjectRepository(Sitting) private readonly sittings: Repository<Sitting>,
    @InjectRepository(Student) private readonly students: Repository<Student>,
    @InjectRepository(SaidWords) private readonly said: Repository<SaidWords>,
    @InjectRepository(AskedPoll) private readonly polls: Repository<AskedPoll>,
    @InjectRepository(GivenAnswer) private readonly answers: Repository<GivenAnswer>,
    @InjectRepository(IdeaVote) private readonly votes: Repository<IdeaVote>,
  ) {}

  /**
   * Hands each page to `take`, and returns what an archive says is in it. Classes whose marks were dropped are left out, and
   * so are pages that were taken out.
   */
  async of(
    { lesson, teacher, withClasses }: { lesson: Lesson; teacher: Teacher; withClasses: boolean },
    take: (page: PageFile) => Promise<void>,
  ): Promise<ArchiveHead> {
    const used = new UsedFiles();
    const pages = await this.pagesOf(lesson.id, 'pages', null, used, take);
    const classes: ArchivedClass[] = [];
    for (const [i, sitting] of (withClasses ? await this.classesOf(lesson) : []).entries())
      classes.push(await this.classOf(sitting, `classes/${i + 1}`, used, take));
    return {
      ...ARCHIVE,
      madeAt: Date.now(),
      title: lesson.title,
      tags: lesson.tags ?? [],
      teacher: { id: teacher.id, name: teacher.name },
      pages,
      classes,
      files: await this.filesOf(used),
    };
  }

  /** How many pages an archive holds, those of each class counted. */
  async pageCount(lesson: Lesson, withClasses: boolean): Promise<number> {
    const classes = withClasses ? await this.classesOf(lesson) : [];
    const logs = [lesson.id, ...classes.map(({ id }) => id)];
    let count = 0;
    for (const log of logs) count += orderedPages((await this.logs.open(log)).pages.values()).length;
    return count;
  }

  private async classesOf({ id }: Lesson): Promise<Sitting[]> {
    const all = await this.sittings.find({ where: { lessonId: id }, order: { openedAt: 'ASC' } });
    return all.filter(({ droppedAt }) => droppedAt === null);
  }

  private async pagesOf(
    log: string,
    folder: string,
    sitting: string | null,
    used: UsedFiles,
    take: (page: PageFile) => Promise<void>,
  ): Promise<string[]> {
    const open = await this.logs.open(log);
    const paths: string[] = [];
    for (const [i, page] of orderedPages(open.pages.values()).entries()) {
      const marks = [...(await open.marksOn(page.id)).values()];
      const path = `${folder}/${String(i + 1).padStart(3, '0')}.json`;
      used.add(page, marks, sitting);
      paths.push(path);
      await take({ path, content: { page, marks } });
    }
    return paths;
  }

  private async classOf(
    sitting: Sitting,
    folder: string,
    used: UsedFiles,
    take: (page: PageFile) => Promise<void>,
  ): Promise<ArchivedClass> {
    const { id, title, openedAt, endedAt, pageId, rules, ways, tables, ideas } = sitting;
    const students = await this.students.find({ where: { sittingId: id }, order: { joinedAt: 'ASC' } });
    const said = await this.said.find({ where: { sittingId: id }, order: { at: 'ASC' } });
    const { doc, isEmpty } = await this.notes.of(id);
    const votes = await this.votes.find({ where: { sittingId: id } });
    return {
      id,
      title,
      openedAt,
      endedAt,
      page: pageId,
      rules,
      ways,
      tables,
      ideas,
      students: students.map(({ id: student, name, colour, seat, joinedAt }) => ({
        id: student,
        name,
        colour,
        seat,
        joinedAt,
      })),
      chat: said.flatMap(({ author, name, words, at, removedAt }) =>
        removedAt === null ? [{ author, name, words, at }] : [],
      ),
      notes: isEmpty ? null : doc,
      polls: await this.pollsOf(id),
      votes: votes.map(({ markId, pageId: page, studentId }) => ({ mark: markId, page, student: studentId })),
      pages: await this.pagesOf(id, folder, id, used, take),
    };
  }

  /** What was asked; who answered without a name has none here either. */
  private async pollsOf(sittingId: string): Promise<ArchivedPoll[]> {
    const polls = await this.polls.find({ where: { sittingId }, order: { askedAt: 'ASC' } });
    const given = await this.answers.findBy({ pollId: In(polls.map(({ id }) => id)) });
    return polls.map(({ id, body, askedAt, closedAt }) => ({
      poll: body,
      askedAt,
      closedAt,
      answers: given
        .filter(({ pollId }) => pollId === id)
        .map(({ studentId, value, at }, i) =>
          body.anonymous
            ? { student: `nobody-${i + 1}`, value, at: askedAt }
            : { student: studentId, value, at },
        ),
    }));
  }

  private async filesOf(used: UsedFiles): Promise<ArchivedFile[]> {
    const materials = await this.materials.findBy({ id: In([...used.materials.keys()]) });
    const pictures = await this.pictures.findBy({ id: In([...used.pictures.keys()]) });
    return [
      ...materials.map((material): ArchivedFile => {
        const { id, kind, sha256, name, pageCount, notes, createdAt } = material;
        const type = typeOf(material);
        const path = `files/${id}.${ENDINGS[type] ?? 'bin'}`;
        const own = used.materials.get(id) ?? null;
        return { id, kind, path, sha256, name, type, pageCount, notes, class: own, author: null, createdAt };
      }),
      ...pictures.map(({ id, type, sha256, author, createdAt }): ArchivedFile => ({
        id,
        kind: 'picture',
        path: `files/${id}.${type}`,
        sha256,
        name: '',
        type: `image/${type}`,
        pageCount: 1,
        notes: null,
        class: used.pictures.get(id) ?? null,
        author,
        createdAt,
      })),
    ];
  }
}

const ENDINGS: Readonly<Record<string, string>> = {
  'application/pdf': 'pdf',
  'text/html': 'html',
  'video/mp4': 'mp4',
  'audio/mp4': 'm4a',
  'video/webm': 'webm',
  'video/ogg': 'ogv',
  'audio/ogg': 'ogg',
  'audio/wave': 'wav',
  'audio/flac': 'flac',
  'audio/mpeg': 'mp3',
};

function typeOf({ kind, mime }: Material): string {
  return mime ?? (kind === 'web' ? 'text/html' : 'application/pdf');
}

/** The files that pages show, and the class that alone shows each; null for what the lesson shows. */
class UsedFiles {
  readonly materials = new Map<string, string | null>();
  readonly pictures = new Map<string, string | null>();

  add({ surface }: Page, marks: readonly Mark[], sitting: string | null): void {
    if (surface.kind === 'pdf' || surface.kind === 'web' || surface.kind === 'media')
      note(this.materials, surface.material, sitting);
    if (surface.kind === 'picture') note(this.pictures, surface.material, sitting);
    if (surface.kind === 'view')
      for (const { material } of surface.pictures) note(this.pictures, material, sitting);
    for (const mark of marks) if (mark.kind === 'picture') note(this.pictures, mark.material, sitting);
  }
}

function note(files: Map<string, string | null>, id: string, sitting: string | null): void {
  if (!files.has(id) || sitting === null) files.set(id, sitting);
}
