import { Injectable } from '@nestjs/common';
import { InjectRepository } from '@nestjs/typeorm';
import type {
  Actor,
  IdeaRules,
  PastSitting,
  PenState,
  Rules,
  Scene,
  ShownCopy,
  SittingSummary,
  StudentTable,
  Way,
  Ways,
} from '@doodla/core';
import { MOST_IDEA_PAGES, orderedPages, RULES_AT_FIRST, withIdeas } from '@doodla/core';
import { randomUUID } from 'node:crypto';
import { In, IsNull, Not, Repository } from 'typeorm';
import { GroupsService } from '../groups/groups.service.js';
import { Problem } from '../http/problem.js';
import { LessonMaterial } from '../lessons/lessonMaterial.entity.js';
import { LogsService, SERVER } from '../live/logs.service.js';
import type { Teacher } from '../people/teacher.entity.js';
import { Leases } from '../processes/leases.js';
import { Peers } from '../processes/peers.js';
import { SchoolsService } from '../schools/schools.service.js';
import type { Write } from '../storage/database.js';
import { Database } from '../storage/database.js';
import { makeJoinCode, normaliseCode } from './joinCode.js';
import { Sitting } from './sitting.entity.js';
import { SittingMaterial } from './sittingMaterial.entity.js';
import { Student } from './student.entity.js';
import { TurnsService } from './turns.service.js';

const DAY_MS = 24 * 3600 * 1000;
/** Ended classes that are told for the start page. */
const PAST_TOLD = 8;

interface OpenOptions {
  /** Tried first; where it is taken, another is made. */
  code?: string;
  /** The page to begin on. */
  page?: string | undefined;
  /** When it began, for a class of an earlier day; milliseconds since 1970-01-01 UTC. */
  at?: number;
}

@Injectable()
export class SittingsService {
  /** Sittings in memory, since every message of a class asks for its sitting. */
  private readonly known = new Map<string, Sitting>();
  /** Students who are known to have come. */
  private readonly seated = new Set<string>();
  /** Lessons of which a class is just being opened. */
  private readonly opening = new Set<string>();
  private readonly removed: ((student: string) => void)[] = [];
  private readonly changedElsewhere: ((sitting: string) => void)[] = [];

  constructor(
    @InjectRepository(Sitting) private readonly sittings: Repository<Sitting>,
    @InjectRepository(Student) private readonly students: Repository<Student>,
    @InjectRepository(LessonMaterial) private readonly links: Repository<LessonMaterial>,
    @InjectRepository(SittingMaterial) private readonly ownLinks: Repository<SittingMaterial>,
    private readonly groups: GroupsService,
    private readonly logs: LogsService,
    private readonly database: Database,
    private readonly schools: SchoolsService,
    private readonly turns: TurnsService,
    private readonly leases: Leases,
    private readonly peers: Peers,
  ) {
    leases.onLeft((lesson) => {
      for (const [id, { lessonId }] of this.known) if (lessonId === lesson) this.known.delete(id);
    });
    peers.on('sitting', (id) => {
      this.known.delete(id);
      for (const listener of this.changedElsewhere) listener(id);
    });
  }

  /** Calls back with a class that another process has changed. */
  onChangedElsewhere(listener: (sitting: string) => void): void {
    this.changedElsewhere.push(listener);
  }

  ofLesson(lessonId: string): Promise<Sitting[]> {
    return this.sittings.find({ where: { lessonId }, order: { openedAt: 'DESC' } });
  }

  /** What a teacher of a school is told of a class. */
  summary(sitting: Sitting, { schoolId }: Pick<Teacher, 'schoolId'>): SittingSummary {
    const { id, title, code, openedAt, endedAt, droppedAt, keepUntil } = sitting;
    const usual = endedAt === null ? null : endedAt + this.schools.limitsOf(schoolId).retentionDays * DAY_MS;
    const goneAt = usual === null ? null : Math.max(usual, keepUntil ?? 0);
    return { id, title, code, openedAt, endedAt, droppedAt, goneAt };
  }

  /** Keeps a class for so many days more than it would be. Returns until when. */
  async keepLonger(sitting: Sitting, teacher: Teacher, days: number): Promise<number> {
    const { goneAt } = this.summary(sitting, teacher);
    const until = Math.max(goneAt ?? 0, Date.now()) + days * DAY_MS;
    await this.sittings.update({ id: sitting.id }, { keepUntil: until });
    const known = this.known.get(sitting.id);
    if (known) known.keepUntil = until;
    return until;
  }

  async find(id: string): Promise<Sitting | null> {
    // What another process has in hand is changed there.
    const known = this.leases.isHeld(id) ? this.known.get(id) : undefined;
    if (known) return known;
    const sitting = await this.sittings.findOneBy({ id });
    if (sitting && this.leases.isHeld(id)) this.known.set(id, sitting);
    return sitting;
  }

  /** Says what a class looks like on the start page; null where nothing does any more. */
  async setCover(id: string, coverSha256: string | null): Promise<void> {
    await this.sittings.update({ id }, { coverSha256 });
    const known = this.known.get(id);
    if (known) known.coverSha256 = coverSha256;
  }

  async usesMaterial(sittingId: string, materialId: string): Promise<boolean> {
    const sitting = await this.find(sittingId);
    if (!sitting) return false;
    return (
      (await this.ownLinks.existsBy({ sittingId, materialId })) ||
      this.links.existsBy({ lessonId: sitting.lessonId, materialId })
    );
  }

  /**
   * Opens a class on a lesson that has none going on, on its first page or a given one, with pens down. It gets the
   * pages that the lesson has now; what either adds later is its own. Throws Problem.
   */
  async open(
    lessonId: string,
    title: string,
    { code, page, at: openedAt = Date.now() }: OpenOptions = {},
  ): Promise<Sitting> {
    const pages = orderedPages((await this.logs.open(lessonId)).pages.values());
    const first = pages.find(({ id }) => id === page) ?? pages[0];
    if (!first)
      throw new Problem(
        409,
        'no-pages',
        'This lesson has no pages yet. Please add one before you start the class.',
      );
    return this.aloneFor(lessonId, async () => {
      const id = randomUUID();
      const changes = pages.map((each) => ({ do: 'addPage', page: each }) as const);
      this.leases.expect(id, lessonId);
      await this.logs.append(id, SERVER, { id: randomUUID(), changes }, { at: openedAt });
      const sitting: Sitting = {
        id,
        lessonId,
        title,
        code: await this.freeCode(code),
        pageId: first.id,
        pensUp: false,
        locked: false,
        nodding: false,
        passwordHash: null,
        groupId: null,
        rules: null,
        pens: null,
        keepUntil: null,
        coverSha256: null,
        ways: null,
        tables: null,
        copy: null,
        ideas: null,
        openedAt,
        endedAt: null,
        scene: null,
        droppedAt: null,
      };
      await this.sittings.insert(sitting);
      await this.turns.note(id, first.id, openedAt);
      return sitting;
    });
  }

  /** Ends a class; its marks are kept under a title, or dropped, which can be taken back for a day. */
  async end(id: string, { title, drop }: { title?: string | undefined; drop: boolean }): Promise<void> {
    const now = Date.now();
    await this.change(id, {
      endedAt: now,
      pensUp: false,
      scene: null,
      droppedAt: drop ? now : null,
      ...(title !== undefined && { title }),
    });
  }

  /** Lets an ended or dropped class go on, with a new code if its own has been given away; an open one just does. */
  async reopen(id: string): Promise<void> {
    const { code, endedAt, lessonId } = await this.sittings.findOneByOrFail({ id });
    if (endedAt === null) return;
    await this.aloneFor(lessonId, async () => {
      await this.sittings.update({ id }, { endedAt: null, droppedAt: null, code: await this.freeCode(code) });
      this.known.delete(id);
    });
  }

  /** Brings a dropped class back; it stays ended. */
  async restore(id: string): Promise<void> {
    await this.sittings.update({ id }, { droppedAt: null });
    this.known.delete(id);
  }

  /** Drops an ended class. */
  async drop(id: string): Promise<void> {
    const now = Date.now();
    const { endedAt } = await this.sittings.findOneByOrFail({ id });
    await this.sittings.update({ id }, { droppedAt: now, endedAt: endedAt ?? now, pensUp: false });
    this.known.delete(id);
  }

  async rename(id: string, title: string): Promise<void> {
    await this.sittings.update({ id }, { title });
    this.known.delete(id);
  }

  /** Classes of a teacher that have not ended, last opened first. */
  openOf(teacherId: string): Promise<(Sitting & { lessonTitle: string })[]> {
    return this.database.all(
      `SELECT sitting.id, sitting.title, sitting.code, sitting.lesson_id AS "lessonId",
         sitting.opened_at AS "openedAt", lesson.title AS "lessonTitle"
       FROM sitting JOIN lesson ON lesson.id = sitting.lesson_id
       WHERE lesson.teacher_id = ? AND lesson.deleted_at IS NULL AND sitting.ended_at IS NULL
       ORDER BY sitting.opened_at DESC`,
      [teacherId],
    );
  }

  /** A teacher's last classes that have ended and are kept: the last one of each group, newest first. */
  pastOf(teacherId: string): Promise<PastSitting[]> {
    return this.database.all(
      `SELECT id, title, "lessonId", "openedAt", "lessonTitle", "groupTitle" FROM (
         SELECT sitting.id, sitting.title, sitting.lesson_id AS "lessonId", sitting.opened_at AS "openedAt",
           lesson.title AS "lessonTitle", class_group.title AS "groupTitle",
           row_number() OVER (PARTITION BY coalesce(group_id, sitting.id) ORDER BY sitting.opened_at DESC) AS n
         FROM sitting JOIN lesson ON lesson.id = lesson_id LEFT JOIN class_group ON class_group.id = group_id
         WHERE lesson.teacher_id = ? AND deleted_at IS NULL AND dropped_at IS NULL AND ended_at IS NOT NULL
       ) AS past WHERE n = 1 ORDER BY "openedAt" DESC LIMIT ${PAST_TOLD}`,
      [teacherId],
    );
  }

  async setScene(id: string, scene: Scene): Promise<void> {
    await this.change(id, { scene });
  }

  async turn(id: string, pageId: string): Promise<void> {
    const sitting = await this.find(id);
    if (!sitting || sitting.endedAt !== null) return;
    await this.change(id, { pageId });
    await this.turns.note(id, pageId);
  }

  async setDoor(
    id: string,
    door: Partial<Pick<Sitting, 'locked' | 'nodding' | 'passwordHash'>>,
  ): Promise<void> {
    await this.change(id, door);
  }

  /**
   * Says which group is taught, whose code it gets if that keeps one. Another open class with that code has been
   * forgotten, so it gets another; who is in it stays. Returns what codes have become.
   */
  async teach(id: string, group: { id: string; code: string | null } | null): Promise<Map<string, string>> {
    const codes = new Map<string, string>();
    if (group?.code) {
      const { code } = group;
      const others = await this.sittings.findBy({ code, endedAt: IsNull(), id: Not(id) });
      for (const other of others) {
        codes.set(other.id, await this.freeCode());
        await this.change(other.id, { code: codes.get(other.id)! });
      }
      codes.set(id, code);
    }
    const code = codes.get(id);
    await this.change(id, { groupId: group?.id ?? null, ...(code !== undefined && { code }) });
    return codes;
  }

  async setRules(id: string, set: Partial<Rules>): Promise<void> {
    const sitting = await this.find(id);
    if (sitting) await this.change(id, { rules: { ...rulesOf(sitting), ...set } });
  }

  /** Notes that a student has come, so that their seat stays theirs. */
  async seat(id: string): Promise<void> {
    if (this.seated.has(id)) return;
    this.seated.add(id);
    await this.students.update({ id, enteredAt: IsNull() }, { enteredAt: Date.now() });
  }

  /** Pens up or down for all, whatever was said of single students. */
  async setPens(id: string, pensUp: boolean): Promise<void> {
    await this.change(id, { pensUp, pens: null });
  }

  /** Pens up or down for single students. */
  async setPensOf(id: string, pens: Readonly<Record<string, PenState>>): Promise<void> {
    const sitting = await this.find(id);
    if (!sitting) return;
    const present = new Set((await this.studentsOf(id)).map((student) => student.id));
    const all = Object.entries({ ...sitting.pens, ...pens }).filter(([student]) => present.has(student));
    await this.change(id, { pens: Object.fromEntries(all) });
  }

  /** Hands pages to a class in other ways. */
  async setWays(id: string, set: Readonly<Record<string, Way>>): Promise<void> {
    const sitting = await this.find(id);
    const all = Object.entries({ ...sitting?.ways, ...set }).filter(([, way]) => way !== 'class');
    await this.change(id, { ways: Object.fromEntries(all) as Ways });
  }

  async setTables(id: string, tables: StudentTable[]): Promise<void> {
    await this.change(id, { tables });
  }

  async showCopy(id: string, copy: ShownCopy | null): Promise<void> {
    await this.change(id, { copy });
  }

  /** Collects ideas on pages, or no more. Throws Problem. */
  async setIdeas(id: string, set: Readonly<Record<string, IdeaRules | null>>): Promise<void> {
    const ideas = withIdeas((await this.find(id))?.ideas ?? {}, set);
    if (Object.keys(ideas).length > MOST_IDEA_PAGES)
      throw new Problem(
        409,
        'too-many-idea-pages',
        'Ideas are collected on 100 pages of this class. Please finish some of them first.',
      );
    await this.change(id, { ideas });
  }

  studentsOf(sittingId: string): Promise<Student[]> {
    return this.students.find({ where: { sittingId }, order: { joinedAt: 'ASC' } });
  }

  /** Somebody who is in a class, unless they were taken out. */
  student(id: string): Promise<Student | null> {
    return this.students.findOneBy({ id });
  }

  /** Calls back when a student is taken out. */
  onRemoved(listener: (student: string) => void): void {
    this.removed.push(listener);
  }

  /** Takes out everybody but those who are here. Returns how many. */
  async clearAway(sittingId: string, here: ReadonlySet<string>): Promise<number> {
    const away = (await this.studentsOf(sittingId)).filter(({ id }) => !here.has(id));
    await this.removeStudents(
      sittingId,
      away.map(({ id }) => id),
    );
    return away.length;
  }

  /** Ends all open classes of a lesson, which keep what they wrote, together with what else is written then. */
  async endAllOf(lessonId: string, beside: Write): Promise<string[]> {
    const open = await this.sittings.findBy({ lessonId, endedAt: IsNull() });
    const set = { endedAt: Date.now(), pensUp: false, scene: null };
    const where = { lessonId, endedAt: IsNull() };
    await this.database.together(beside, this.sittings.createQueryBuilder().update().set(set).where(where));
    for (const { id } of open) this.known.delete(id);
    return open.map(({ id }) => id);
  }

  /** Takes a student out of a class; their marks stay. */
  removeStudent(sittingId: string, id: string): Promise<void> {
    return this.removeStudents(sittingId, [id]);
  }

  private async removeStudents(sittingId: string, ids: readonly string[]): Promise<void> {
    await this.students.delete({ id: In(ids), sittingId });
    for (const id of ids) for (const listener of this.removed) listener(id);
  }

  /** The open sitting of a code, if there is one. */
  codeLeadsTo(code: string): Promise<Sitting | null> {
    return this.sittings.findOneBy({ code: normaliseCode(code), endedAt: IsNull() });
  }

  /** The open sitting of a code. Throws Problem where there is none. */
  async byCode(code: string): Promise<Sitting> {
    const sitting = await this.codeLeadsTo(code);
    if (!sitting) {
      if (await this.groups.keeps(code))
        throw new Problem(
          404,
          'not-begun',
          'Your class has not begun yet. Please wait for your teacher and try again.',
        );
      throw new Problem(
        404,
        'wrong-code',
        'There is no class with this code. Please check it with your teacher; it may have ended.',
      );
    }
    await this.schools.checkOpen(sitting.lessonId);
    return sitting;
  }

  /** Opens a class of a lesson that has none: students would stay in the first while their teacher is in the second. */
  private async aloneFor<T>(lessonId: string, opening: () => Promise<T>): Promise<T> {
    const isOpen = this.opening.has(lessonId);
    this.opening.add(lessonId);
    try {
      if (isOpen || (await this.sittings.existsBy({ lessonId, endedAt: IsNull() })))
        throw new Problem(
          409,
          'class-open',
          'A class of this lesson is still going on. Please go on with it, or end it first.',
        );
      return await opening();
    } finally {
      if (!isOpen) this.opening.delete(lessonId);
    }
  }

  private async change(id: string, set: Partial<Sitting>): Promise<void> {
    if (Object.keys(set).length === 0) return;
    await this.sittings.update({ id, endedAt: IsNull() }, set);
    this.known.delete(id);
    if (!this.leases.isHeld(id)) this.peers.tell('sitting', id);
  }

  /** The code that is wished for, if nobody has it, or another one. */
  private async freeCode(wished = makeJoinCode()): Promise<string> {
    let code = wished;
    while (
      (await this.sittings.existsBy({ code, endedAt: IsNull() })) ||
      (code !== wished && (await this.groups.keeps(code)))
    )
      code = makeJoinCode();
    return code;
  }
}

/** What students may do on the pages of a sitting on which ideas are collected. */
export function ideasOf({ ideas }: Pick<Sitting, 'ideas'>): NonNullable<Actor['ideas']> {
  const all = Object.entries(ideas ?? {});
  return Object.fromEntries(all.map(([page, { adding, grouping }]) => [page, { adding, grouping }]));
}

/** What the students of a sitting may do. */
export function rulesOf({ rules }: Pick<Sitting, 'rules'>): Rules {
  return { ...RULES_AT_FIRST, ...rules };
}
