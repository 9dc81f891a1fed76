import type { Focus, Page, Rect, Space, SpatialIndex } from '@doodla/core';
import { fieldsOf, mainPane, orderOnTop } from '@doodla/core';
import { nanoid } from 'nanoid';
import { Signal, Store } from '@doodla/core/client';
import { Surfaces } from '../canvas/surfaces';
import type { Desk, FormulaEdit, MarkCommon, Mode, PlotEdit, TextEdit } from '../desk/desk';
import type { Glass } from '../desk/glass';
import { PageActions } from '../desk/pageActions';
import type { ToolId } from '../tools/tools';
import { PictureActions } from '../desk/pictureActions';
import { Selection } from '../desk/selection';
import type { InkOffer } from '../desk/shapeOffer';
import { ShapeWatch } from '../desk/shapeWatch';
import type { Room } from './room';
import { t } from '../words';

/** One page of a room that is being worked on. */
export class PageDesk implements Desk {
  readonly connection: Room['connection'];
  readonly classroom: Room['classroom'];
  readonly target: Room['target'];
  readonly layers: Room['layers'];
  readonly pages: Room['pages'];
  readonly marksChanged: Room['marksChanged'];
  readonly penCase: Room['penCase'];
  readonly ink: Room['ink'];
  readonly pointers: Room['pointers'];
  readonly pictures: Room['pictures'];
  readonly screen: Room['screen'];
  readonly webPages: Room['webPages'];
  readonly sitting: Room['sitting'];
  readonly token: Room['token'];
  readonly isTeacher: Room['isTeacher'];
  readonly tellProblem: Room['tellProblem'];

  readonly pageId = new Store<string | undefined>(undefined);
  /** What shows the page, while something does. */
  readonly glass = new Store<Glass | undefined>(undefined);
  readonly surfaces: Surfaces;
  readonly selection = new Selection(this);
  readonly pageActions = new PageActions(this);
  readonly pictureActions: PictureActions;
  /** Corners clicked so far of a polyline or polygon, flat x, y. */
  readonly draft = new Store<readonly number[] | undefined>(undefined);
  /** Waits for a place, or its colour, to be picked from the page. */
  readonly picking = new Store<((hex: string, at: { x: number; y: number }) => void) | undefined>(undefined);
  readonly textEdit = new Store<TextEdit | undefined>(undefined);
  readonly formulaEdit = new Store<FormulaEdit | undefined>(undefined);
  readonly plotEdit = new Store<PlotEdit | undefined>(undefined);
  readonly shapeOffer = new Store<InkOffer | undefined>(undefined);
  readonly shapeWatch = new ShapeWatch(this);
  /** Whether a student has moved the page away from what the teacher sees. */
  readonly apart = new Store(false);
  /** Tells what is stale on the shown page. */
  readonly stale = new Signal<Rect[] | 'all'>();
  /** Tells that the page is to be turned, but there is none after it. */
  readonly atEnd = new Signal();
  private pane: number | undefined;
  private readonly stops: (() => void)[];

  /** `isBeside`: it is the second of two pages that are shown. */
  constructor(
    readonly room: Room,
    readonly isBeside = false,
  ) {
    this.connection = room.connection;
    this.classroom = room.classroom;
    this.target = room.target;
    this.layers = room.layers;
    this.pages = room.pages;
    this.marksChanged = room.marksChanged;
    this.penCase = room.penCase;
    this.ink = room.ink;
    this.pointers = room.pointers;
    this.pictures = room.pictures;
    this.screen = room.screen;
    this.webPages = room.webPages;
    this.sitting = room.sitting;
    this.token = room.token;
    this.isTeacher = room.isTeacher;
    this.tellProblem = room.tellProblem;
    this.pictureActions = new PictureActions(this, room);
    this.surfaces = new Surfaces(room.pictures, room.screen, room.token);
    this.stops = [
      this.pageId.subscribe(() => {
        const page = this.pageId.get();
        if (page !== undefined) room.readFirst(page);
      }),
      room.renewed.subscribe(() => this.stale.tell('all')),
      room.changed.subscribe(({ change, stale }) => {
        const page = this.pageId.get();
        if (page !== undefined) this.stale.tell(page === change.arrived ? 'all' : (stale.get(page) ?? []));
      }),
    ];
  }

  get page(): Page | undefined {
    return this.pages.get().find((page) => page.id === this.pageId.get());
  }

  get space() {
    return this.room.spaces.on(this.pageId.get());
  }

  /** The space of which marks are shown on the page, beside the class's. */
  get shownSpace(): Space {
    const page = this.pageId.get();
    return page === undefined ? 'class' : this.room.spaces.shownOn(page);
  }

  /** This student's own field of the shown page, where it is cut into fields. */
  get field(): Rect | undefined {
    const { page } = this;
    const students = page && this.room.spaces.fieldsOn(page.id);
    const place = students?.indexOf(this.target.actor?.id ?? '') ?? -1;
    return place < 0 ? undefined : fieldsOf(this.extentOf(page!), students!.length)[place];
  }

  get mayWrite(): boolean {
    return this.room.mayWrite;
  }

  get mayMeasure(): boolean {
    return this.isTeacher ? this.mayWrite : this.room.rules.get().instruments;
  }

  get ownInstruments(): Room['ownInstruments'] {
    return this.room.ownInstruments;
  }

  mayTouch: Desk['mayTouch'] = (mark) => this.room.mayTouch(mark);

  maySelect: Desk['maySelect'] = (mark) => this.room.maySelect(mark);

  /** As `Room.upload`. */
  upload: Room['upload'] = (picture) => this.room.upload(picture);

  extentOf: Desk['extentOf'] = (page) => this.room.extentOf(page);

  /** The part of the page plane that is in sight. */
  visible(): Rect {
    const { width, height } = this.page ?? { width: 1, height: 1 };
    return this.glass.get()?.visible ?? { x: 0, y: 0, width, height };
  }

  /** The middle of what is in sight of the page, page units; beside it there may be bars. */
  middle(): { x: number; y: number } {
    const { x, y, width, height } = this.visible();
    const page = this.page && this.extentOf(this.page);
    const between = (from: number, to: number, least = from, most = to) =>
      least < to && most > from ? (Math.max(from, least) + Math.min(to, most)) / 2 : (from + to) / 2;
    return {
      x: between(x, x + width, page?.x, page && page.x + page.width),
      y: between(y, y + height, page?.y, page && page.y + page.height),
    };
  }

  /** What the class's eye is led to on the shown page, if it is seen here. */
  get focus(): Focus | undefined {
    const focus = this.classroom?.scene.get().focus;
    if (!focus || focus.page !== this.pageId.get()) return undefined;
    return focus.shared || (this.isTeacher && this.room.device === undefined) ? focus : undefined;
  }

  /** Shows a page, here and, if this is the teacher, to the class. */
  turnTo(page: string): void {
    const { room, classroom } = this;
    if (!room.hasPage(page)) return;
    if (!room.mayTurn) return room.tellNotice(t('room.yourTeacherTurnsThePages'));
    this.settle();
    if (classroom && this.isTeacher && !room.isLooking) this.tellTurn(page);
    this.pageId.set(page);
  }

  private tellTurn(page: string): void {
    const { classroom } = this;
    if (!this.isBeside) return classroom!.turn(page);
    const { split } = classroom!.scene.get();
    if (split) classroom!.setScene({ split: { ...split, page } });
  }

  /** Lays a page on the desk that somebody else has chosen; undefined leaves it empty. */
  lay(page: string | undefined): void {
    if (page !== this.pageId.get()) this.settle();
    this.pageId.set(page);
  }

  /** Goes back to the page that the class is on. */
  rejoinClass(): void {
    const page = this.classroom?.state.get()?.page;
    if (page !== undefined && this.room.hasPage(page)) this.lay(page);
  }

  /** Shows a page that the server has just made, as soon as it has arrived. */
  turnToWhenThere(page: string): void {
    if (this.room.hasPage(page)) return this.turnTo(page);
    const stop = this.pages.subscribe(() => {
      if (!this.room.hasPage(page)) return;
      stop();
      this.turnTo(page);
    });
  }

  turnBy(step: number): void {
    const pages = this.pages.get();
    const at = pages.findIndex(({ id }) => id === this.pageId.get());
    const next = pages[at + step];
    if (next) this.turnTo(next.id);
    else if (step > 0 && at >= 0 && this.room.mayAddPages) this.atEnd.tell();
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

  dropBeside(at: { x: number; y: number }): boolean {
    const place = this.room.dropPlace.get();
    const glass = this.glass.get();
    if (!place || !glass || !place.covers(glass.toWindow(at))) return false;
    place.takeMarks();
    return true;
  }

  /** Finishes what is half done, so that it never swallows the next action. */
  settle(): void {
    this.textEdit.set(undefined);
    this.draft.set(undefined);
    this.picking.set(undefined);
    this.shapeOffer.set(undefined);
    this.selection.clear();
  }

  setMode(mode: Mode): void {
    this.settle();
    if (mode === 'write' && !this.mayWrite && !this.room.mayPoint) return;
    this.room.mode.set(mode);
  }

  toggleMode(): void {
    this.setMode(this.room.mode.get() === 'use' ? 'write' : 'use');
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

  get targetMarks(): SpatialIndex | undefined {
    const page = this.pageId.get();
    return page === undefined ? undefined : this.layers.at(-1)!.on(page);
  }

  close(): void {
    this.surfaces.close();
    for (const stop of this.stops) stop();
  }
}
