import type { DeviceKind, LogRef, Mark, MarkKind, Page, Person, Rect, Rules, Situation } from '@doodla/core';
import {
  FREE,
  isShownIn,
  isFoldedAway,
  isStanding,
  isWithin,
  mayPut,
  orderedPages,
  pageExtent,
  standInId,
  stoodFor,
} from '@doodla/core';
import type { Line, LogChange } from '@doodla/core/client';
import type { Instrument } from '@doodla/core/instruments';
import { ClassClient, isPenUp, LiveInk, LogClient, Pointers, Signal, Store } from '@doodla/core/client';
import { uploadPicture } from '../api/uploadPicture';
import { WebPages } from '../canvas/webPages';
import type { DropPlace, ShelfPart } from '../desk/shelf';
import type { Mode } from '../desk/desk';
import { MarkLayer } from '../desk/markLayer';
import { PenCase } from '../desk/penCase';
import { Shortcuts } from '../desk/shortcuts';
import { TextDrafts } from '../desk/textDrafts';
import { connect } from '../live/connect';
import { LiveScreen } from '../live/liveScreen';
import { BrowserOutbox } from '../live/outbox';
import { PictureCache } from '../pictures/pictureCache';
import { ScreenSharing } from '../screen/screenSharing';
import type { ToolId } from '../tools/tools';
import { toolOf } from '../tools/tools';
import { Asking } from './asking';
import { Chat } from './chat';
import { IdeaVotes } from './ideaVotes';
import { ShownMarks } from './shownMarks';
import { WorkSpaces } from './workSpaces';
import { t } from '../words';
import { sayRefusal } from '../words/sentences';

export interface RoomOptions {
  lesson: string;
  /** Without one, the lesson itself is prepared. */
  sitting?: string;
  /** A student's token and colour; a teacher has neither. */
  token?: string;
  colour?: string;
  /** Page to start on while preparing or looking. */
  startPage?: string;
  /** A display or pad, which writes as the teacher. */
  device?: DeviceKind;
  /** One of the students who share this screen, from 1. */
  seat?: number;
  /** Only looks at a class: neither follows it nor turns its page. */
  looking?: boolean;
}

/** What one opened lesson or class shares: its logs, its people and what they may, wet ink, pens, pictures, screen. */
export class Room {
  readonly connection: Line;
  readonly lessonLog: LogClient;
  /** The log that is written to: the class's marks in a sitting, the prepared ones otherwise. */
  readonly target: LogClient;
  /** Layers of marks, lowest first. */
  readonly layers: readonly MarkLayer[];
  /** Typed text that is not on a page yet. */
  readonly drafts: TextDrafts;
  readonly classroom: ClassClient | undefined;
  /** Asking the class, where there is one. */
  readonly asking: Asking | undefined;
  /** What the class says to each other, where there is one. */
  readonly chat: Chat | undefined;
  /** Votes for ideas, where there is a class. */
  readonly votes: IdeaVotes | undefined;
  readonly ink: LiveInk;
  readonly pointers: Pointers;
  readonly pictures: PictureCache;
  readonly webPages: WebPages;
  readonly penCase: PenCase;
  readonly shortcuts: Shortcuts;
  /** The screen that is shown to the class, if one is. */
  readonly screen = new LiveScreen();
  /** Showing this device's screen, and seeing somebody else's. */
  readonly sharing: ScreenSharing;
  /** How many students share this screen now, each on a copy of their own; none where it is 0. */
  readonly seats = new Store(0);
  readonly pages = new Store<readonly Page[]>([]);
  readonly mode = new Store<Mode>('write');
  /** Whose marks are shown here. */
  readonly shown = new ShownMarks((author) => this.classroom?.person(author) !== undefined);
  /** In whose space one works on a page, and whose is shown. */
  readonly spaces: WorkSpaces = new WorkSpaces(this);
  /** One's own instruments where they are not the class's. */
  readonly ownInstruments = new Store<readonly Instrument[]>([]);
  /** The part of the shelf that is open, if one is. */
  readonly shelf = new Store<ShelfPart | undefined>(undefined);
  /** Where things of a page can be dropped, while there is such a place. */
  readonly dropPlace = new Store<DropPlace | undefined>(undefined);
  /** Counts changes of marks, for views that show them. */
  readonly marksChanged = new Store(0);
  /** Tells of each change of a layer, and what of it is stale on which page. */
  readonly changed = new Signal<{ layer: MarkLayer; change: LogChange; stale: Map<string, Rect[]> }>();
  /** Tells that all that is shown is to be looked at anew. */
  readonly renewed = new Signal();
  /** Tells of each mark that somebody else puts on a page. */
  readonly added = new Signal<Mark>();
  /** Tells what could not be done, in a sentence. */
  readonly problems = new Signal<string>();
  /** Tells what was done out of sight, in a sentence. */
  readonly notices = new Signal<string>();
  /** Which marks a student may see, as the class says. */
  private sight: string | undefined;
  readonly tellProblem = this.problems.tell;
  readonly tellNotice = this.notices.tell;

  /** `connection` is made anew if none is given. */
  constructor(
    readonly options: RoomOptions,
    connection?: Line,
  ) {
    const { lesson, sitting, token, colour } = options;
    this.connection = connection ?? connect(lesson, token);
    this.shortcuts = new Shortcuts(token === undefined ? 'teacher' : 'student');
    this.pictures = new PictureCache(token);
    this.webPages = new WebPages(token);
    this.penCase = new PenCase(this.penKey, colour);
    const ref: LogRef | undefined = sitting === undefined ? undefined : { kind: 'sitting', id: sitting };
    this.classroom = ref && new ClassClient(ref.id, this.connection);
    this.asking = ref && new Asking(ref.id, this.connection, this.tellProblem);
    this.chat = ref && new Chat(ref.id, token?.slice(-16) ?? 'teacher', this.connection, this.tellProblem);
    this.votes = ref && new IdeaVotes(ref.id, this.connection, this.tellProblem);
    this.lessonLog = this.openLog({ kind: 'lesson', id: lesson });
    this.target = ref ? this.openLog(ref) : this.lessonLog;
    this.drafts = new TextDrafts(this.target, sitting ?? lesson);
    this.ink = new LiveInk(ref, this.connection);
    this.pointers = new Pointers(sitting, this.connection, () => this.me ?? '');
    this.layers = (ref ? [this.lessonLog, this.target] : [this.lessonLog]).map(
      (log) =>
        new MarkLayer(
          log,
          (mark) =>
            isShownIn(this.spaces.shownOn(mark.page), mark.space) &&
            this.shown.isShown(mark, this.me) &&
            this.isStanding(mark),
        ),
    );
    this.sharing = new ScreenSharing(this);
    for (const layer of this.layers) this.watch(layer);
    this.spaces.opened.subscribe(() => this.renew());
    this.shown.of.subscribe(() => this.renew());
    this.target.givenUp.subscribe((operation) => this.drafts.rescue(operation));
    this.classroom?.refused.subscribe(this.tellProblem);
    this.classroom?.state.subscribe(() => this.followClass());
  }

  /** What students may do. */
  get rules(): Store<Rules> {
    return this.shown.rules;
  }

  get lesson(): string {
    return this.options.lesson;
  }

  get sitting(): string | undefined {
    return this.options.sitting;
  }

  get token(): string | undefined {
    return this.options.token;
  }

  /** What this is, if not the teacher's or a student's own browser. */
  get device(): DeviceKind | undefined {
    return this.options.device;
  }

  /** Whether this only looks at a class. */
  get isLooking(): boolean {
    return this.options.looking === true;
  }

  get isTeacher(): boolean {
    return this.options.token === undefined || this.options.device !== undefined;
  }

  /** Which of the students who share this screen writes here, if one does. */
  get seat(): number | undefined {
    return this.options.seat;
  }

  /** Under which name pens are kept in this browser. */
  private get penKey(): string {
    if (this.seat !== undefined) return `doodla.seatPens${this.seat}`;
    return this.isTeacher ? 'doodla.pens' : 'doodla.studentPens';
  }

  /** Where this lesson or class is at the server. */
  get address(): string {
    const { lesson, sitting } = this.options;
    return sitting === undefined ? `/api/lessons/${lesson}` : `/api/sittings/${sitting}`;
  }

  private get me(): string | undefined {
    return this.target.actor?.id;
  }

  /** Whether this person may point, and write ink that fades. */
  get mayPoint(): boolean {
    if (this.isLooking || this.situation().ended) return false;
    if (!this.classroom) return this.isTeacher;
    const { pointers } = this.classroom.scene.get();
    const all = this.classroom.state.get()?.rules.pointing === true;
    return this.isTeacher || all || (this.me !== undefined && pointers.includes(this.me));
  }

  /** Whether this person may write now. */
  get mayWrite(): boolean {
    const { ended, pensUp } = this.situation();
    return !ended && !this.isLooking && (this.isTeacher || (pensUp && !this.spaces.seesAnothers));
  }

  /** Whether this person may work with a tool now. */
  mayTake(tool: ToolId): boolean {
    const { needs, least = 'ink' } = toolOf(tool);
    if (needs === 'pointing') return this.mayPoint;
    if (!this.isTeacher && !isWithin(least, this.situation().freedom)) return false;
    return this.mayWrite && (needs === 'writing' || this.classroom !== undefined);
  }

  /** Whether this person may put a mark of a kind now. */
  mayPut(kind: MarkKind): boolean {
    return this.mayWrite && (this.isTeacher || mayPut(kind, this.situation().freedom));
  }

  /** Whether this person turns pages: the class's, their own where the teacher lets them, or those they look at. */
  get mayTurn(): boolean {
    return this.isTeacher || this.classroom?.scene.get().roam === true || this.situation().ended;
  }

  /** Whether this person may put new pages in. */
  get mayAddPages(): boolean {
    return this.isTeacher && !this.isLooking && !this.situation().ended;
  }

  /** Whether this person may change or remove a mark. */
  mayTouch(mark: Mark): boolean {
    return !mark.locked && (this.isTeacher || (mark.author === this.me && !mark.standIn));
  }

  /** Whether this person may select a mark; a teacher also locked ones, to unlock them. */
  maySelect(mark: Mark): boolean {
    return this.isTeacher || this.mayTouch(mark);
  }

  /** The colour that a person is known by. */
  colourOf(id: string): string {
    return this.classroom?.person(id)?.colour ?? '#f2c230';
  }

  /** What a person is called on this screen. */
  nameOf(id: string): string {
    if (id === this.me) return t('room.you');
    const person = this.classroom?.person(id);
    return person ? person.name || t('room.aClassmate') : t('room.theTeacher');
  }

  /** What whoever made a mark is called on this screen. */
  makerOf({ author, credit }: Pick<Mark, 'author' | 'credit'>): string {
    return credit ?? this.nameOf(author);
  }

  /** A person who is in the class, by id. */
  personOf(id: string): Person | undefined {
    return this.classroom?.person(id);
  }

  /** Lets a student point and write wisps, or not. */
  letPoint(student: string, may: boolean): void {
    const { pointers } = this.classroom!.scene.get();
    const others = pointers.filter((id) => id !== student);
    this.classroom!.setScene({ pointers: may ? [...others, student] : others });
  }

  hasPage(id: string): boolean {
    return this.pages.get().some((page) => page.id === id);
  }

  /** The part of the plane that a page takes, page units; a screen that is seen live is as large as its glass. */
  extentOf(page: Page): Rect {
    if (this.screen.isLive(page.id)) return { x: 0, y: 0, width: page.width, height: page.height };
    return pageExtent(
      page,
      this.layers.map((layer) => layer.on(page.id).bounds),
    );
  }

  /** Resolves once the marks of all pages are here. */
  async readAll(): Promise<void> {
    const pages = this.pages.get();
    await Promise.all(this.layers.flatMap(({ log }) => pages.map(({ id }) => log.need(id))));
  }

  /** Sees to it that a page's marks come first, then those of the pages beside it. */
  readFirst(page: string): void {
    const pages = this.pages.get();
    const at = pages.findIndex(({ id }) => id === page);
    const beside = [pages[at - 1], pages[at + 1]].flatMap((near) => near?.id ?? []);
    for (const { log } of this.layers) for (const id of [...beside, page]) void log.need(id);
  }

  /** Stores a picture that is ready as it is, and returns its id. Throws an error with a sentence. */
  upload(picture: Blob): Promise<string> {
    return uploadPicture(this.address, picture, this.token);
  }

  close(): void {
    this.sharing.close();
    this.lessonLog.close();
    this.target.close();
    this.classroom?.close();
    this.chat?.close();
    this.votes?.close();
    this.ink.close();
    this.pointers.close();
    this.pictures.close();
    this.connection.close();
  }

  private situation(): Situation {
    const state = this.classroom?.state.get();
    if (!state) return FREE;
    const { ended, pensUp, rules } = state;
    // A teacher's pen follows nobody's.
    const up = this.isTeacher ? pensUp : isPenUp(state, this.me);
    return { pensUp: up, ended, full: false, freedom: rules.freedom };
  }

  /** A log; in a class the lesson's own is only read here. */
  private openLog(ref: LogRef): LogClient {
    const isShared = ref.kind === 'sitting' || this.options.sitting === undefined;
    const log = new LogClient(ref, this.connection, {
      say: sayRefusal,
      situation: () => (isShared ? this.situation() : FREE),
      startsAnew: this.seat !== undefined,
      outboxFor: (owner) => new BrowserOutbox(owner, (error) => this.outboxFailed(error)),
    });
    log.refused.subscribe(this.tellProblem);
    return log;
  }

  private outboxFailed(error: unknown): void {
    console.error(error);
    this.tellProblem(t('room.thisBrowserCannotKeepWhat'));
  }

  /** While preparing nothing stands for anything, and what is hidden is seen. */
  private isStanding(mark: Mark): boolean {
    const { spaces, target, sitting } = this;
    if (sitting === undefined) return !isFoldedAway(mark, target.state.marks);
    return isStanding(mark, spaces.shownOn(mark.page), target.state.marks, this);
  }

  /** Whether a mark is there, prepared or of this class. */
  has(id: string): boolean {
    return this.layers.some(({ log }) => log.state.marks.has(id));
  }

  private watch(layer: MarkLayer): void {
    layer.log.touched.subscribe((own) => {
      const change = withStoodFor(own);
      if (layer.log === this.target && change.pages.size > 0)
        this.pages.set(orderedPages(this.target.state.pages.values()));
      for (const id of change.marks) this.ink.finish(id);
      if (change.arrived === undefined) this.tellAdded(layer, change);
      this.showOwn(layer, change);
      const isAlone = change.marks.size === own.marks.size && own.arrived === undefined;
      const layers = isAlone ? [layer] : this.layers;
      for (const one of layers) this.changed.tell({ layer: one, change, stale: one.update(change) });
      this.marksChanged.set(this.marksChanged.get() + 1);
    });
  }

  /** What one writes oneself is seen: whose marks are shown must not hide it. */
  private showOwn({ log }: MarkLayer, { marks, arrived }: LogChange): void {
    if (arrived !== undefined || this.shown.of.get() === 'everybody') return;
    const isHidden = (mark: Mark | undefined) =>
      mark?.author === this.me && mark !== undefined && !this.shown.isShown(mark, this.me);
    if ([...marks].some((id) => isHidden(log.state.marks.get(id)))) this.shown.of.set('everybody');
  }

  private tellAdded(layer: MarkLayer, { marks }: LogChange): void {
    for (const id of marks) {
      const mark = layer.log.state.marks.get(id);
      if (mark && mark.author !== this.me && layer.isNew(mark)) this.added.tell(mark);
    }
  }

  /** Shows what is to be seen in another space. */
  private renew(): void {
    for (const layer of this.layers) layer.renew();
    this.renewed.tell();
    this.marksChanged.set(this.marksChanged.get() + 1);
  }

  private followClass(): void {
    this.sharing.follow();
    const state = this.classroom!.state.get();
    const isOther = state !== undefined && this.shown.take(state.rules);
    if (this.spaces.changed() || isOther) this.renew();
    if (this.isLooking) return;
    if (state && !state.ended && (this.isTeacher || this.situation().pensUp)) this.target.resume();
    this.followSight(state?.sight);
  }

  /** What students may see has changed: all is asked for again. */
  private followSight(sight: string | undefined): void {
    if (sight === undefined || this.isTeacher) return;
    if (this.sight !== undefined && this.sight !== sight) this.target.reload();
    this.sight = sight;
  }
}

/** A change with what is seen or not because of what has changed: what answers stand for. */
function withStoodFor(change: LogChange): LogChange {
  const marks = new Set(change.marks);
  for (const id of change.marks) {
    const original = stoodFor(id);
    if (original !== undefined) marks.add(original).add(standInId(original, 'class'));
  }
  return { ...change, marks };
}
