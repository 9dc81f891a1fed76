import type { Noted } from '@doodla/core/explain';
import type { ClassClient, LiveInk, LiveStroke, LogClient, Pointers } from '@doodla/core/client';
import type { PageDesk } from '../room/pageDesk';
import type { Room } from '../room/room';
import type { LiveSource } from './liveSource';

/** What noting needs of a desk. */
export type NotedDesk = Pick<PageDesk, 'pageId' | 'space'> & {
  room: Pick<Room, 'colourOf'> & {
    target: Pick<LogClient, 'pending' | 'touched'>;
    pointers: Pick<Pointers, 'changed' | 'onPage'>;
    ink: Pick<LiveInk, 'changed' | 'onPage'>;
    classroom: Pick<ClassClient, 'scene'> | undefined;
  };
};

/** What is noted beside the pages and what is written on them. */
export interface NotedChoice {
  /** Where somebody points, and ink that fades. */
  pointing: boolean;
  /** Spotlight, cover, magnifier. */
  focus: boolean;
}

/** What moves under the marks. */
type Moving = Pick<LiveSource, 'now' | 'watch'>;

/** Somebody's pointing is noted at most so often, milliseconds. */
const POINT_MS = 50;
/** A wisp that has not grown for so long is complete, milliseconds. */
const COMPLETE_MS = 200;

/** Notes what the log of an opened lesson or class does not know, from when it is made until it is closed. */
export class Noter {
  private noted: Noted[] = [];
  private readonly known = new Set<string>();
  private readonly people = new Map<string, { who: number; at: number }>();
  private readonly wisps = new Map<string, { length: number; at: number; stroke: LiveStroke }>();
  private readonly told = new Set<string>();
  private readonly stops: (() => void)[] = [];

  /** `time` says how many milliseconds ago the take began. */
  constructor(
    private readonly desk: NotedDesk,
    choice: NotedChoice,
    private readonly time: () => number,
    live?: Moving,
  ) {
    const { room, pageId } = desk;
    for (const { id } of room.target.pending) this.known.add(id);
    this.notePage();
    this.stops.push(
      pageId.subscribe(() => this.notePage()),
      room.target.touched.subscribe(() => this.noteOperations()),
    );
    if (choice.pointing)
      this.stops.push(
        room.pointers.changed.subscribe(() => this.notePoints()),
        room.ink.changed.subscribe(() => this.noteWisps()),
      );
    if (live) this.noteLive(live);
    const { classroom } = room;
    if (!classroom) return;
    if (choice.focus) this.noteEach(classroom.scene, 'focus', (focus) => ({ do: 'focus', focus }));
    this.noteEach(classroom.scene, 'uncovered', (marks) => ({ do: 'uncovered', marks }));
    this.noteEach(classroom.scene, 'playing', (playing) => ({ do: 'playing', playing }));
  }

  /** What was noted since it was last taken. */
  take(): Noted[] {
    this.completeWisps();
    const { noted } = this;
    this.noted = [];
    return noted;
  }

  /** Notes no more; what is noted can still be taken. */
  close(): void {
    this.completeWisps(0);
    for (const stop of this.stops) stop();
  }

  private note(
    what: Noted extends infer One ? (One extends Noted ? Omit<One, 't'> : never) : never,
    t = this.time(),
  ): void {
    this.noted.push({ t: Math.round(Math.max(0, t)), ...what });
  }

  private notePage(): void {
    const page = this.desk.pageId.get();
    if (page !== undefined) this.note({ do: 'page', page });
  }

  private noteOperations(): void {
    for (const { id } of this.desk.room.target.pending) {
      if (this.known.has(id)) continue;
      this.known.add(id);
      this.note({ do: 'op', op: id });
    }
  }

  /** Notes a part of the scene as it is and whenever it is another. */
  private noteEach<Scene extends object, Key extends keyof Scene>(
    scene: { get(): Scene; subscribe(listener: () => void): () => void },
    key: Key,
    say: (value: Scene[Key]) => Parameters<Noter['note']>[0],
  ): void {
    let last: string | undefined;
    const look = () => {
      const value = scene.get()[key];
      const written = JSON.stringify(value);
      if (written !== last) this.note(say(value));
      last = written;
    };
    look();
    this.stops.push(scene.subscribe(look));
  }

  private noteLive(live: Moving): void {
    let last = 'null';
    const look = () => {
      const now = live.now();
      const written = JSON.stringify(now);
      if (written !== last) this.note({ do: 'live', live: now });
      last = written;
    };
    look();
    this.stops.push(live.watch(look));
  }

  private notePoints(): void {
    const page = this.desk.pageId.get();
    if (page === undefined) return;
    const now = this.time();
    const { room } = this.desk;
    const here = new Map(room.pointers.onPage(page));
    for (const [author, { who, at }] of this.people)
      if (at >= 0 && !here.has(author)) {
        this.people.set(author, { who, at: -1 });
        this.note({ do: 'rest', who });
      }
    for (const [author, { trail }] of here) {
      const known = this.people.get(author) ?? { who: this.people.size, at: -1 };
      if (known.at >= 0 && now - known.at < POINT_MS) continue;
      this.people.set(author, { ...known, at: now });
      const { x, y } = trail.at(-1)!;
      const colour = room.colourOf(author);
      this.note({ do: 'point', who: known.who, colour, page, x: Math.round(x), y: Math.round(y) });
    }
  }

  private noteWisps(): void {
    const page = this.desk.pageId.get();
    if (page === undefined) return;
    for (const stroke of this.desk.room.ink.onPage(page, this.desk.space)) {
      if (stroke.fade === undefined || this.told.has(stroke.id)) continue;
      const length = stroke.points.length;
      if (this.wisps.get(stroke.id)?.length !== length)
        this.wisps.set(stroke.id, { length, at: this.time(), stroke });
    }
  }

  /** Notes wisps that grow no more, as they were when they were complete. */
  private completeWisps(after = COMPLETE_MS): void {
    const now = this.time();
    for (const [id, { at, stroke }] of this.wisps) {
      if (now - at < after) continue;
      this.wisps.delete(id);
      this.told.add(id);
      const { page, style, points, fade } = stroke;
      this.note({ do: 'wisp', page, style, points: [...points], fade: fade! }, at);
    }
  }
}
