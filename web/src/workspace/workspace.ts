import type {
  DeviceKind,
  Focus,
  LogRef,
  Mark,
  Page,
  Rect,
  Situation,
  Space,
  SpatialIndex,
} from '@doodla/core';
import { mainPane, orderedPages, orderOnTop, pageExtent } from '@doodla/core';
import { nanoid } from 'nanoid';
import { ClassClient } from '../live/classClient';
import { Connection } from '../live/connection';
import { LiveInk } from '../live/liveInk';
import { Pointers } from '../live/pointers';
import type { LogChange, StepTaken } from '../live/logClient';
import { LogClient } from '../live/logClient';
import { Outbox } from '../live/outbox';
import { Signal } from '../store/signal';
import { Store } from '../store/store';
import { WebPages } from '../canvas/webPages';
import { Surfaces } from '../canvas/surfaces';
import { PictureActions } from '../desk/pictureActions';
import { PictureCache } from '../pictures/pictureCache';
import { LiveScreen } from '../live/liveScreen';
import { ScreenSharing } from '../screen/screenSharing';
import type { Desk, MarkCommon, Mode, TextEdit } from '../desk/desk';
import type { Glass } from '../desk/glass';
import { MarkLayer } from '../desk/markLayer';
import { PageActions } from '../desk/pageActions';
import type { ToolId } from '../desk/penCase';
import { PenCase } from '../desk/penCase';
import { Selection } from '../desk/selection';
import { Shortcuts } from '../desk/shortcuts';
import { TextDrafts } from '../desk/textDrafts';

export interface WorkspaceOptions {
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
  /** Only looks at a class: neither follows it nor turns its page. */
  looking?: boolean;
}

/**
 * Everything behind the screen on which a lesson is shown and written on: the logs, the class, the
 * page that is shown and the tools in hand. The screen watches its stores.
 */
export class Workspace implements Desk {
  readonly connection: Connection;
  readonly lessonLog: LogClient;
  /** The log that is written to: the class's marks in a sitting, the prepared ones otherwise. */
  readonly target: LogClient;
  /** Typed text that is not on a page yet. */
  readonly drafts: TextDrafts;
  readonly classroom: ClassClient | undefined;
  readonly ink: LiveInk;
  readonly pointers: Pointers;
  readonly surfaces: Surfaces;
  readonly pictures: PictureCache;
  readonly webPages: WebPages;
  readonly pictureActions: PictureActions;
  readonly penCase: PenCase;
  /** The screen that is shown to the class, if one is. */
  readonly screen: LiveScreen;
  /** Showing this device's screen, and seeing somebody else's. */
  readonly sharing: ScreenSharing;
  /** The page beside this one, while two are shown. */
  readonly side = new Store<Workspace | undefined>(undefined);
  /** The one of the two that was last touched. */
  readonly active = new Store<Workspace>(this);
  /** Layers of marks, lowest first. */
  readonly layers: readonly MarkLayer[];
  private pane: number | undefined;

  readonly pages: Store<readonly Page[]>;
  readonly pageId = new Store<string | undefined>(undefined);
  readonly mode: Store<Mode>;
  readonly shortcuts: Shortcuts;
  readonly selection = new Selection(this);
  readonly pageActions = new PageActions(this);
  /** Corners clicked so far of a polyline or polygon, flat x, y. */
  readonly draft = new Store<readonly number[] | undefined>(undefined);
  /** Waits for a colour to be picked from the page. */
  readonly picking = new Store<((hex: string) => void) | undefined>(undefined);
  readonly textEdit = new Store<TextEdit | undefined>(undefined);
  /** Counts changes of marks, for views that show them. */
  readonly marksChanged: Store<number>;
  /** What shows the page, while something does. */
  readonly glass = new Store<Glass | undefined>(undefined);
  /** Tells what is stale on the shown page. */
  readonly stale = new Signal<Rect[] | 'all'>();
  /** Tells of each mark that somebody else puts on the shown page. */
  readonly added = new Signal<Mark>();
  /** Told when something could not be done; the message is fit to be shown. */
  onProblem: (message: string) => void = () => undefined;
  /** Told of what was done out of sight; the message is fit to be shown. */
  onNotice: (message: string) => void = () => undefined;
  /** Whether a student has moved the page away from what the teacher sees. */
  readonly apart = new Store(false);
  /** Told that the page is to be turned, but there is none after it. */
  onLastPage: () => void = () => undefined;

  private readonly stops: (() => void)[] = [];
  /** The page that the class was last known to be on. */
  private classPage: string | undefined;
  /** Whether a student could write before the class's state last changed. */
  private couldWrite = true;

  /** With `main`, this is the page beside that one: it shares its logs, tools and class. */
  constructor(
    private readonly options: WorkspaceOptions,
    private readonly main?: Workspace,
  ) {
    const { lesson, sitting, token, colour } = options;
    this.connection = main?.connection ?? new Connection(token);
    this.shortcuts = main?.shortcuts ?? new Shortcuts(token === undefined ? 'teacher' : 'student');
    this.pictures = main?.pictures ?? new PictureCache(token);
    this.webPages = main?.webPages ?? new WebPages(token);
    this.screen = main?.screen ?? new LiveScreen();
    this.sharing = main?.sharing ?? new ScreenSharing(this);
    this.pages = main?.pages ?? new Store<readonly Page[]>([]);
    this.mode = main?.mode ?? new Store<Mode>('write');
    this.marksChanged = main?.marksChanged ?? new Store(0);
    this.surfaces = new Surfaces(this.pictures, this.screen, token);
    const address = sitting === undefined ? `/api/lessons/${lesson}` : `/api/sittings/${sitting}`;
    this.pictureActions = new PictureActions(this, address, token);
    const pens = this.isTeacher ? 'doodla.pens' : 'doodla.studentPens';
    this.penCase = main?.penCase ?? new PenCase(pens, colour);
    const ref: LogRef | undefined = sitting === undefined ? undefined : { kind: 'sitting', id: sitting };
    const { connection } = this;
    this.classroom = main?.classroom ?? (ref && new ClassClient(ref.id, connection));
    this.lessonLog = main?.lessonLog ?? this.openLog({ kind: 'lesson', id: lesson });
    this.target = main?.target ?? (ref ? this.openLog(ref) : this.lessonLog);
    this.drafts = main?.drafts ?? new TextDrafts(this.target, sitting ?? lesson);
    this.ink = main?.ink ?? new LiveInk(ref, connection);
    this.pointers = main?.pointers ?? new Pointers(sitting, connection, () => this.target.actor?.id ?? '');
    const logs = ref ? [this.lessonLog, this.target] : [this.lessonLog];
    this.layers = main?.layers ?? logs.map((each) => new MarkLayer(each));
    this.stops.push(this.pageId.subscribe(() => this.readShown()));
    if (main) return;
    for (const layer of this.layers) this.watch(layer);
    this.target.onStep = (step) => this.showStep(step);
    this.target.onGivenUp = (operation) => this.drafts.rescue(operation);
    this.stops.push(this.active.subscribe(() => this.target.lookAt(this.active.get().pageId.get())));
    if (!this.classroom) return;
    this.classroom.onRefused = (message) => this.onProblem(message);
    this.stops.push(
      this.classroom.state.subscribe(() => this.followClass()),
      this.classroom.scene.subscribe(() => this.followScene()),
    );
  }

  get page(): Page | undefined {
    return this.pages.get().find((page) => page.id === this.pageId.get());
  }

  /** The part of the plane that a page takes, page units; a screen that is seen live is as large as its glass. */
  extentOf(page: Page): Rect {
    if (this.screen.isLive(page.id)) return { x: 0, y: 0, width: page.width, height: page.height };
    return pageExtent(
      page,
      this.layers.map((layer) => layer.on(page.id).bounds),
    );
  }

  /** The part of the page plane that is in sight. */
  visible(): Rect {
    const { width, height } = this.page ?? { width: 1, height: 1 };
    return this.glass.get()?.visible ?? { x: 0, y: 0, width, height };
  }

  /** The middle of what is in sight, page units. */
  middle(): { x: number; y: number } {
    const { x, y, width, height } = this.visible();
    return { x: x + width / 2, y: y + height / 2 };
  }

  /** Whose marks new ones are. */
  get space(): Space {
    return 'class';
  }

  get lesson(): string {
    return this.options.lesson;
  }

  get sitting(): string | undefined {
    return this.options.sitting;
  }

  get isTeacher(): boolean {
    return this.options.token === undefined || this.options.device !== undefined;
  }

  /** Whether this is the second of two pages that are shown. */
  get isBeside(): boolean {
    return this.main !== undefined;
  }

  /** What this is, if not the teacher's or a student's own browser. */
  get device(): DeviceKind | undefined {
    return this.options.device;
  }

  get token(): string | undefined {
    return this.options.token;
  }

  /** What the class's eye is led to on the shown page, if it is seen here. */
  get focus(): Focus | undefined {
    const focus = this.classroom?.scene.get().focus;
    if (!focus || focus.page !== this.pageId.get()) return undefined;
    return focus.shared || (this.isTeacher && this.device === undefined) ? focus : undefined;
  }

  /** Whether this person may point, and write ink that fades. */
  get mayPoint(): boolean {
    const me = this.target.actor?.id;
    if (this.options.looking || this.situation().ended) return false;
    if (!this.classroom) return this.isTeacher;
    return this.isTeacher || (me !== undefined && this.classroom.scene.get().pointers.includes(me));
  }

  /** Whether this person may work with a tool now. */
  mayTake(tool: ToolId): boolean {
    if (tool === 'pointer' || tool === 'wisp') return this.mayPoint;
    if (tool === 'enlarge' || tool === 'outline') return this.classroom !== undefined && this.mayWrite;
    return this.mayWrite;
  }

  /** Whether this person may write now. */
  get mayWrite(): boolean {
    const { ended, pensUp } = this.situation();
    return !ended && this.options.looking !== true && (this.isTeacher || pensUp);
  }

  /** Whether this person turns pages: the class's, their own where the teacher lets them, or those they look at. */
  get mayTurn(): boolean {
    return this.isTeacher || this.classroom?.scene.get().roam === true || this.situation().ended;
  }

  /** Shows a page, here and, if this is the teacher, to the class. */
  turnTo(page: string): void {
    if (!this.pages.get().some(({ id }) => id === page)) return;
    if (!this.mayTurn) return this.onNotice('Your teacher turns the pages for now.');
    this.settle();
    if (this.classroom && this.isTeacher && this.options.looking !== true) this.tellTurn(page);
    this.pageId.set(page);
  }

  /** Goes back to the page that the class is on. */
  rejoinClass(): void {
    const page = this.classroom?.state.get()?.page;
    if (page === undefined || !this.pages.get().some(({ id }) => id === page)) return;
    this.settle();
    this.pageId.set(page);
  }

  private tellTurn(page: string): void {
    const { classroom } = this;
    if (!this.main) return classroom!.turn(page);
    const { split } = classroom!.scene.get();
    if (split) classroom!.setScene({ split: { ...split, page } });
  }

  /** Shows a page that the server has just made, as soon as it has arrived. */
  turnToWhenThere(page: string): void {
    if (this.pages.get().some(({ id }) => id === page)) return this.turnTo(page);
    const stop = this.pages.subscribe(() => {
      if (!this.pages.get().some(({ id }) => id === page)) return;
      stop();
      this.turnTo(page);
    });
  }

  turnBy(step: number): void {
    const pages = this.pages.get();
    const at = pages.findIndex(({ id }) => id === this.pageId.get());
    const next = pages[at + step];
    if (next) this.turnTo(next.id);
    else if (step > 0 && at >= 0 && this.mayAddPages) this.onLastPage();
  }

  /** Whether this person may put new pages in. */
  get mayAddPages(): boolean {
    return this.isTeacher && this.options.looking !== true && !this.situation().ended;
  }

  /** Puts a page like the shown one after it. */
  addPageLikeThis(): void {
    const page = this.pageId.get();
    if (page !== undefined) this.pageActions.addLike(page);
  }

  /** Takes a tool in hand, which also means to write. */
  takeTool(tool: ToolId): void {
    this.settle();
    this.penCase.patch({ tool });
    this.setMode('write');
  }

  /** Finishes what is half done, so that it never swallows the next action. */
  settle(): void {
    this.textEdit.set(undefined);
    this.draft.set(undefined);
    this.picking.set(undefined);
    this.selection.clear();
  }

  setMode(mode: Mode): void {
    this.settle();
    if (mode === 'write' && !this.mayWrite && !this.mayPoint) return;
    this.mode.set(mode);
  }

  toggleMode(): void {
    this.setMode(this.mode.get() === 'use' ? 'write' : 'use');
  }

  /** Runs what makes marks on a part of a shown screen. */
  onPane<T>(pane: number | undefined, run: () => T): T {
    this.pane = pane;
    try {
      return run();
    } finally {
      this.pane = undefined;
    }
  }

  /** The parts of a new mark that do not depend on its kind. */
  newMark(id = nanoid(), page = this.pageId.get()): MarkCommon | undefined {
    const author = this.target.actor?.id;
    if (page === undefined || author === undefined) return undefined;
    const marks = this.layers.at(-1)!.on(page).all();
    const order = orderOnTop(marks.map((mark) => mark.order));
    const { space } = this;
    const pane = this.pane ?? mainPane(this.screen.panesOf(page))?.id;
    return {
      id,
      page,
      author,
      space,
      order,
      locked: false,
      group: null,
      alt: null,
      createdAt: Date.now(),
      ...(pane !== undefined && { pane }),
    };
  }

  /** The marks of the shown page that can be written to. */
  get targetMarks(): SpatialIndex | undefined {
    const page = this.pageId.get();
    return page === undefined ? undefined : this.layers.at(-1)!.on(page);
  }

  /** Whether this person may select a mark; a teacher also locked ones, to unlock them. */
  maySelect(mark: Mark): boolean {
    return this.isTeacher || this.mayTouch(mark);
  }

  /** Whether this person may change or remove a mark. */
  mayTouch(mark: Mark): boolean {
    return !mark.locked && (this.isTeacher || mark.author === this.target.actor?.id);
  }

  /** The colour that a person is known by. */
  colourOf(id: string): string {
    return this.classroom?.person(id)?.colour ?? '#f2c230';
  }

  /** What a person is called on this screen. */
  nameOf(id: string): string {
    if (id === this.target.actor?.id) return 'you';
    return this.classroom?.person(id)?.name ?? 'the teacher';
  }

  /** Lets a student point and write wisps, or not. */
  letPoint(student: string, may: boolean): void {
    const { pointers } = this.classroom!.scene.get();
    const others = pointers.filter((id) => id !== student);
    this.classroom!.setScene({ pointers: may ? [...others, student] : others });
  }

  close(): void {
    this.surfaces.close();
    for (const stop of this.stops) stop();
    if (this.main) return;
    this.side.get()?.close();
    this.sharing.close();
    this.lessonLog.close();
    this.target.close();
    this.classroom?.close();
    this.ink.close();
    this.pointers.close();
    this.pictures.close();
    this.connection.close();
  }

  private situation(): Situation {
    const state = this.classroom?.state.get();
    return {
      pensUp: state?.pensUp ?? true,
      ended: state?.ended ?? false,
      full: false,
    };
  }

  /** A log; in a class the lesson's own is only read here. */
  private openLog(ref: LogRef): LogClient {
    const isShared = ref.kind === 'sitting' || this.options.sitting === undefined;
    const open: Situation = { pensUp: true, ended: false, full: false };
    return new LogClient(ref, this.connection, {
      situation: () => (isShared ? this.situation() : open),
      outboxFor: (owner) => new Outbox(owner, (error) => this.outboxFailed(error)),
    });
  }

  private outboxFailed(error: unknown): void {
    console.error(error);
    this.onProblem(
      'This browser cannot keep what waits to be sent: it is full, or does not allow it. Stay on this page until the connection is back.',
    );
  }

  /** Sees to it that the shown page's marks come first, then those of the pages beside it. */
  private readShown(): void {
    const page = this.pageId.get();
    if (page === undefined) return;
    if ((this.main ?? this).active.get() === this) this.target.lookAt(page);
    const pages = this.pages.get();
    const at = pages.findIndex(({ id }) => id === page);
    const beside = [pages[at - 1], pages[at + 1]].flatMap((near) => near?.id ?? []);
    for (const { log } of this.layers) for (const id of [...beside, page]) void log.need(id);
  }

  /** Resolves once the marks of all pages are here. */
  async readAll(): Promise<void> {
    const pages = this.pages.get();
    await Promise.all(this.layers.flatMap(({ log }) => pages.map(({ id }) => log.need(id))));
  }

  /** Undo of a page itself goes to that page and says so. */
  private showStep({ which, pages, ofPages }: StepTaken): void {
    if (!ofPages) return;
    const there = this.pages.get().find(({ id }) => pages.includes(id));
    if (there && there.id !== this.pageId.get()) this.turnTo(there.id);
    const done = which === 'undo' ? 'Undone' : 'Done again';
    this.onNotice(`${done}: ${there ? 'this page is as it was' : 'the page is gone'}.`);
  }

  private watch(layer: MarkLayer): void {
    layer.log.onRefused = (message) => this.onProblem(message);
    layer.log.onTouched = (change) => {
      if (layer.log === this.target && change.pages.size > 0) this.updatePages();
      for (const id of change.marks) this.ink.finish(id);
      if (change.arrived === undefined) this.tellAdded(layer, change);
      const stale = layer.update(change);
      for (const pane of [this, this.side.get()]) {
        const page = pane?.pageId.get();
        if (pane && page !== undefined)
          pane.stale.tell(page === change.arrived ? 'all' : (stale.get(page) ?? []));
      }
      this.marksChanged.set(this.marksChanged.get() + 1);
    };
  }

  private tellAdded(layer: MarkLayer, touched: LogChange): void {
    const page = this.pageId.get();
    if (page === undefined) return;
    for (const id of touched.marks) {
      const mark = layer.log.state.marks.get(id);
      if (!mark || mark.page !== page || mark.author === this.target.actor?.id || layer.on(page).get(id))
        continue;
      this.added.tell(mark);
    }
  }

  private updatePages(): void {
    const pages = orderedPages(this.target.state.pages.values());
    this.pages.set(pages);
    const side = this.side.get();
    if (side && !pages.some(({ id }) => id === side.pageId.get())) side.pageId.set(pages[0]?.id);
    if (pages.some(({ id }) => id === this.pageId.get())) return;
    const followed = this.options.looking === true ? undefined : this.classroom?.state.get()?.page;
    const wanted = followed ?? this.options.startPage;
    this.pageId.set((pages.find(({ id }) => id === wanted) ?? pages[0])?.id);
  }

  /** Shows a second page beside this one as long as the class does. */
  private followScene(): void {
    const { split } = this.classroom!.scene.get();
    const side = this.side.get();
    if (!split || this.device === 'pad' || this.options.looking === true) {
      this.active.set(this);
      this.side.set(undefined);
      side?.close();
      return;
    }
    const shown = side ?? new Workspace(this.options, this);
    if (!side) {
      shown.onProblem = (message) => this.onProblem(message);
      shown.surfaces.onFailed = this.surfaces.onFailed;
    }
    if (shown.pageId.get() !== split.page) shown.settle();
    shown.pageId.set(split.page);
    this.side.set(shown);
  }

  /** Whoever may go by themselves and has gone stays where they are. */
  private followPage(page: string | undefined): void {
    const before = this.classPage;
    this.classPage = page;
    const strays = !this.isTeacher && this.mayTurn && before !== undefined && this.pageId.get() !== before;
    if (strays) return;
    if (page !== this.pageId.get()) this.settle();
    if (this.pages.get().some(({ id }) => id === page)) this.pageId.set(page);
  }

  private followClass(): void {
    this.sharing.follow();
    if (this.options.looking === true) return;
    const state = this.classroom?.state.get();
    if (state && !state.ended && (this.isTeacher || state.pensUp)) this.target.resume();
    this.followPage(state?.page);
    if (this.isTeacher || this.mayWrite === this.couldWrite) return;
    this.couldWrite = this.mayWrite;
    this.setMode(this.mayWrite ? 'write' : 'use');
  }
}
