import { Injectable, Logger } from '@nestjs/common';
import type {
  Ask,
  ClassChange,
  ClassState,
  IdeaRules,
  PenState,
  Person,
  Rules,
  Scene,
  ShownCopy,
  StudentTable,
  Way,
  Ways,
} from '@doodla/core';
import { classChange, EMPTY_SCENE, pollForStudents, seatLook } from '@doodla/core';
import { turnAfter, turnOf } from '@doodla/core/answers';
import { createHash } from 'node:crypto';
import { DevicesService } from '../devices/devices.service.js';
import { GroupsService } from '../groups/groups.service.js';
import { logFailure } from '../http/failures.js';
import { notFound } from '../http/problem.js';
import { Leases } from '../processes/leases.js';
import { PollsService } from '../polls/polls.service.js';
import type { Sitting } from '../sittings/sitting.entity.js';
import { ideasOf, rulesOf, SittingsService } from '../sittings/sittings.service.js';
import { Soon } from './soon.js';
import type { Student } from '../sittings/student.entity.js';

/** Who is told how things stand: the teacher, with their devices, of everything; students of what is theirs to know. */
export const AUDIENCES = ['teacher', 'students'] as const;
export type Audience = (typeof AUDIENCES)[number];

/** What changes so soon one after the other is told together, milliseconds. */
const SOON_MS = 50;

type Listener = (change: ClassChange, audience: Audience) => void;

/** Connections of somebody in a class, and how many of them are not looked at. */
interface Connected {
  all: number;
  away: number;
}

/** Tells everybody in a class how things stand: page, pens, who is here. */
@Injectable()
export class ClassesService {
  private readonly logger = new Logger('Classes');
  /** By student or device, by sitting. Not stored: after a restart everybody connects anew. */
  private readonly here = new Map<string, Map<string, Connected>>();
  /** Shown screens and who may show them, as told by whoever keeps them. */
  private readonly screens = new Map<string, Pick<ClassState, 'screen' | 'presenters'>>();
  /** What is set up, by sitting, where a hand still moves it and it is not stored yet. */
  private readonly moving = new Map<string, Scene>();
  /** Classes that are being recorded, as told by whoever keeps that. */
  private readonly recorded = new Map<string, NonNullable<ClassState['recording']>>();
  /** Who waits to be let in, as told by whoever keeps them. */
  private readonly asks = new Map<string, Ask[]>();
  /** Students whose hands are up, the first first, by sitting. */
  private readonly hands = new Map<string, Set<string>>();
  /** Classes of which everybody is told in a moment. */
  private readonly soon = new Soon(SOON_MS, (error) =>
    logFailure(this.logger, 'Nobody could be told how a class stands', error),
  );
  /** What was told last of each class, by audience; after it, only what changes is told. */
  private readonly told = new Map<string, Record<Audience, ClassState>>();
  /** Looking at a class, one after the other. */
  private readonly looks = new Map<string, Promise<Record<Audience, ClassState>>>();
  private listener: Listener = () => undefined;
  private ruled: (sitting: string) => Promise<void> = () => Promise.resolve();

  constructor(
    private readonly sittings: SittingsService,
    private readonly groups: GroupsService,
    private readonly devices: DevicesService,
    private readonly polls: PollsService,
    leases: Leases,
  ) {
    sittings.onChangedElsewhere((id) => {
      if (this.told.has(id)) this.announceSoon(id);
    });
    leases.onLeft((lesson) => this.forget((sitting) => leases.lessonOf(sitting) === lesson));
  }

  /** Sets who passes changes on. */
  onChange(listener: Listener): void {
    this.listener = listener;
  }

  /** Sets who sees to it that everybody sees what they may once the rules are others, before they are told. */
  onRules(listener: (sitting: string) => Promise<void>): void {
    this.ruled = listener;
  }

  /** How things stand, which is what has been told last. Throws Problem where the class is gone. */
  async state(sittingId: string, audience: Audience): Promise<ClassState> {
    return (await this.lookAfterOthers(sittingId))[audience];
  }

  private lookAfterOthers(sittingId: string): Promise<Record<Audience, ClassState>> {
    const before = this.looks.get(sittingId) ?? Promise.resolve();
    const look = before.then(
      () => this.look(sittingId),
      // Whoever looked before has been told why they could not.
      () => this.look(sittingId),
    );
    this.looks.set(sittingId, look);
    const done = () => {
      if (this.looks.get(sittingId) === look) this.looks.delete(sittingId);
    };
    // A failure is told to whoever asked, by `look` itself.
    look.then(done, done);
    return look;
  }

  private async look(sittingId: string): Promise<Record<Audience, ClassState>> {
    const all = await this.read(sittingId);
    const before = this.told.get(sittingId);
    const after = {
      teacher: this.tell(before?.teacher, all, 'teacher'),
      students: this.tell(before?.students, forStudents(all), 'students'),
    };
    this.told.set(sittingId, after);
    return after;
  }

  /** Tells an audience what has changed; states count by audience. */
  private tell(
    before: ClassState | undefined,
    now: Omit<ClassState, 'version'>,
    audience: Audience,
  ): ClassState {
    const after = { ...now, version: (before?.version ?? 0) + 1 };
    const change = before && classChange(before, after);
    if (before && !change) return { ...before, now: after.now };
    if (change) this.listener(change, audience);
    return after;
  }

  private async read(sittingId: string): Promise<Omit<ClassState, 'version'>> {
    const sitting = await this.sittings.find(sittingId);
    if (!sitting) throw notFound('This class');
    const here = this.hereIn(sittingId);
    const { screen, presenters } = this.screens.get(sittingId) ?? { screen: null, presenters: [] };
    const people = await this.sittings.studentsOf(sittingId);
    const devices = await this.devices.listed({ sittingId });
    return {
      sitting: sitting.id,
      lesson: sitting.lessonId,
      title: sitting.title,
      page: sitting.pageId,
      pensUp: sitting.pensUp,
      ended: sitting.endedAt !== null,
      locked: sitting.locked,
      nodding: sitting.nodding,
      hasPassword: sitting.passwordHash !== null,
      group: await this.groupOf(sitting),
      screen,
      presenters,
      recording: this.recorded.get(sittingId) ?? null,
      people: people.map((student) => this.personOf(student, sitting)),
      asks: this.asks.get(sittingId) ?? [],
      rules: rulesOf(sitting),
      ways: sitting.ways ?? {},
      tables: sitting.tables ?? [],
      copy: sitting.copy,
      ideas: sitting.ideas ?? {},
      poll: sitting.endedAt === null ? await this.polls.stateOf(sittingId) : null,
      hands: [...(this.hands.get(sittingId) ?? [])].filter((id) => here.has(id)),
      sight: sightOf(sitting),
      scene: this.sceneOf(sitting),
      devices: devices.map(({ id, kind }) => ({ id, kind, here: here.has(id) })),
      now: Date.now(),
    };
  }

  private personOf({ id, name, colour, seat }: Student, { id: sitting, pens }: Sitting): Person {
    const { all, away } = this.here.get(sitting)?.get(id) ?? { all: 0, away: 0 };
    const { dash } = seatLook(seat);
    return { id, name, colour, dash, here: all > 0, away: all > 0 && away >= all, pen: pens?.[id] ?? null };
  }

  private async groupOf({ groupId }: Sitting): Promise<ClassState['group']> {
    const group = groupId === null ? null : await this.groups.find(groupId);
    return group && { id: group.id, title: group.title, names: group.names };
  }

  setScreen(sittingId: string, screen: Pick<ClassState, 'screen' | 'presenters'>): void {
    this.screens.set(sittingId, screen);
  }

  setRecording(sittingId: string, recording: ClassState['recording']): void {
    if (recording) this.recorded.set(sittingId, recording);
    else this.recorded.delete(sittingId);
  }

  setAsks(sittingId: string, asks: Ask[]): void {
    this.asks.set(sittingId, asks);
  }

  /** Tells everybody in a class what has changed. */
  async announce(sittingId: string): Promise<void> {
    await this.lookAfterOthers(sittingId);
  }

  /** Tells everybody in a moment, together with what else changes until then. */
  announceSoon(sittingId: string): void {
    this.soon.run(sittingId, () => this.announce(sittingId));
  }

  setHand(sittingId: string, student: string, up: boolean): void {
    const hands = this.hands.get(sittingId) ?? new Set<string>();
    if (up) hands.add(student);
    else hands.delete(student);
    this.hands.set(sittingId, hands);
  }

  /** Puts down the hand of one, or of all. */
  lowerHands(sittingId: string, student: string | undefined): void {
    if (student === undefined) this.hands.delete(sittingId);
    else this.setHand(sittingId, student, false);
  }

  /** How the pages of a class are worked on. */
  async waysOf(sittingId: string): Promise<Ways> {
    return (await this.sittings.find(sittingId))?.ways ?? {};
  }

  /** Hands pages to a class in other ways. */
  async setWays(sittingId: string, ways: Readonly<Record<string, Way>>): Promise<void> {
    await this.sittings.setWays(sittingId, ways);
    await this.announce(sittingId);
  }

  /** Seats students at tables. */
  async setTables(sittingId: string, tables: readonly StudentTable[]): Promise<void> {
    await this.sittings.setTables(sittingId, [...tables]);
    await this.ruled(sittingId);
    await this.announce(sittingId);
  }

  /** Shows one copy to all, or none. */
  async showCopy(sittingId: string, copy: ShownCopy | null): Promise<void> {
    await this.sittings.showCopy(sittingId, copy);
    await this.ruled(sittingId);
    await this.announce(sittingId);
  }

  /** Collects ideas on pages, or no more. */
  async setIdeas(sittingId: string, set: Readonly<Record<string, IdeaRules | null>>): Promise<void> {
    await this.sittings.setIdeas(sittingId, set);
    await this.ruled(sittingId);
    await this.announce(sittingId);
  }

  /** Changes what students may do. */
  async setRules(sittingId: string, set: Partial<Rules>): Promise<void> {
    await this.sittings.setRules(sittingId, set);
    await this.ruled(sittingId);
    await this.announce(sittingId);
  }

  /** Changes what is set up for a class; kept and told to all unless a hand still moves it. */
  async setScene(sittingId: string, set: Partial<Scene>, moving: boolean): Promise<void> {
    const sitting = await this.sittings.find(sittingId);
    if (!sitting || sitting.endedAt !== null) return;
    const scene = { ...this.sceneOf(sitting), ...set };
    if (moving) {
      this.moving.set(sittingId, scene);
      return;
    }
    this.moving.delete(sittingId);
    await this.sittings.setScene(sittingId, scene);
    await this.announce(sittingId);
  }

  /** Whether a student may point. */
  async mayPoint(sittingId: string, student: string): Promise<boolean> {
    const sitting = await this.sittings.find(sittingId);
    if (!sitting) return false;
    return rulesOf(sitting).pointing || this.sceneOf(sitting).pointers.includes(student);
  }

  /** Whose turn it is to answer in a class; undefined where nobody has to wait. */
  async turnIn(sittingId: string): Promise<string | undefined> {
    const sitting = await this.sittings.find(sittingId);
    const turns = sitting && this.sceneOf(sitting).turns;
    return turns ? turnOf(turns) : undefined;
  }

  /** Somebody whose turn it was has answered: it is the next one's, of those who are here. */
  async nextTurn(sittingId: string): Promise<void> {
    const sitting = await this.sittings.find(sittingId);
    const turns = sitting && this.sceneOf(sitting).turns;
    if (!turns) return;
    await this.setScene(sittingId, { turns: turnAfter(turns, this.hereIn(sittingId)) }, false);
  }

  private sceneOf(sitting: { id: string; scene: Scene | null }): Scene {
    return this.moving.get(sitting.id) ?? { ...EMPTY_SCENE, ...sitting.scene };
  }

  /** Who is connected to a class. */
  hereIn(sittingId: string): ReadonlySet<string> {
    const connected = this.here.get(sittingId) ?? new Map<string, Connected>();
    return new Set([...connected].flatMap(([id, { all }]) => (all > 0 ? [id] : [])));
  }

  /** Notes a connection of a student or device. Throws Problem where the class is gone. */
  async arrive(sittingId: string, who: string): Promise<void> {
    await this.sittings.seat(who);
    this.count(sittingId, who, { all: 1, away: 0 });
    await this.announce(sittingId);
  }

  /** Notes that a connection is gone, which was looked at or `away`. */
  async leave(sittingId: string, who: string, away: boolean): Promise<void> {
    this.count(sittingId, who, { all: -1, away: away ? -1 : 0 });
    await this.announce(sittingId);
  }

  /** Notes that somebody who is connected looks at something else now, or at the class again. */
  async lookAway(sittingId: string, who: string, away: boolean): Promise<void> {
    this.count(sittingId, who, { all: 0, away: away ? 1 : -1 });
    await this.announce(sittingId);
  }

  async turn(sittingId: string, page: string): Promise<void> {
    await this.sittings.turn(sittingId, page);
    await this.announce(sittingId);
  }

  async setPens(sittingId: string, up: boolean): Promise<void> {
    await this.sittings.setPens(sittingId, up);
    await this.announce(sittingId);
  }

  async setPensOf(sittingId: string, pens: Readonly<Record<string, PenState>>): Promise<void> {
    await this.sittings.setPensOf(sittingId, pens);
    await this.announce(sittingId);
  }

  /** Ends a class; its marks are kept under a title, or dropped. */
  async end(sittingId: string, how: { title?: string | undefined; drop: boolean }): Promise<void> {
    await this.sittings.end(sittingId, how);
    await this.announce(sittingId);
  }

  /** Lets an ended or dropped class go on. */
  async reopen(sittingId: string): Promise<void> {
    await this.sittings.reopen(sittingId);
    await this.announce(sittingId);
  }

  /** What is not kept is gone with the hand that had it. */
  private forget(isMeant: (sitting: string) => boolean): void {
    const { here, screens, moving, recorded, asks, hands, told } = this;
    for (const one of [here, screens, moving, recorded, asks, hands, told] as Map<string, unknown>[])
      for (const sitting of one.keys()) if (isMeant(sitting)) one.delete(sitting);
  }

  private count(sittingId: string, who: string, by: Connected): void {
    const here = this.here.get(sittingId) ?? new Map<string, Connected>();
    const { all, away } = here.get(who) ?? { all: 0, away: 0 };
    const now = { all: Math.max(0, all + by.all), away: Math.max(0, away + by.away) };
    this.here.set(sittingId, here.set(who, now));
  }
}

/** What students are told: not who is expected, who waits, who looks elsewhere and, unless they may, who is who. */
function forStudents(state: Omit<ClassState, 'version'>): Omit<ClassState, 'version'> {
  const { people, rules } = state;
  return {
    ...state,
    group: null,
    asks: [],
    rules: { ...rules, hidden: [] },
    poll: state.poll && pollForStudents(state.poll),
    people: people.map((person) => ({ ...person, away: false, name: rules.seeNames ? person.name : '' })),
  };
}

/** Differs wherever other marks may be seen, or changed. */
function sightOf(sitting: Sitting): string {
  const { seeMarks, hidden } = rulesOf(sitting);
  const ideas = ideasOf(sitting);
  const all = JSON.stringify([seeMarks, [...hidden].sort(), sitting.tables, sitting.copy, ideas]);
  return createHash('sha256').update(all).digest('base64url').slice(0, 8);
}
