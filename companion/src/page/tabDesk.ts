import type { Mark, Page, Rect, SpatialIndex } from '@doodla/core';
import { orderOnTop } from '@doodla/core';
import type { Line } from '@doodla/core/client';
import { LiveInk, Pointers, Store } from '@doodla/core/client';
import type { Desk, MarkCommon, Mode, TextEdit } from '@web/desk/desk';
import type { Gesture, PenPoint } from '@web/desk/gesture';
import type { PenCase } from '@web/desk/penCase';
import { Selection } from '@web/desk/selection';
import { nanoid } from 'nanoid';
import type { PageLog } from './pageLog';
import { PAGE, SELF } from './pageLog';
import type { TabToolId } from './toolIds';

/** What the tools need of a page in its tab; the same as of a page of a lesson, as far as there is such a thing. */
type ForTools = Pick<
  Desk,
  | 'draft'
  | 'dropBeside'
  | 'formulaEdit'
  | 'ink'
  | 'isTeacher'
  | 'layers'
  | 'maySelect'
  | 'mayTouch'
  | 'newMark'
  | 'page'
  | 'pageId'
  | 'penCase'
  | 'pointers'
  | 'shapeOffer'
  | 'shapeWatch'
  | 'space'
  | 'target'
  | 'targetMarks'
  | 'tellProblem'
  | 'textEdit'
>;

/** Nobody is connected as long as no class is. */
const NO_LINE: Line = {
  status: new Store('offline'),
  hasRoom: false,
  on: () => () => undefined,
  onOnline: () => () => undefined,
  request: () => Promise.reject(new Error('no line')),
  send: () => undefined,
  sendVolatile: () => undefined,
  close: () => undefined,
};

/** A page of the web that is worked on in its tab. */
export class TabDesk implements ForTools {
  readonly mode = new Store<Mode>('write');
  readonly pageId = new Store<string | undefined>(PAGE);
  readonly draft = new Store<readonly number[] | undefined>(undefined);
  readonly textEdit = new Store<TextEdit | undefined>(undefined);
  readonly formulaEdit = new Store<undefined>(undefined);
  readonly shapeOffer = new Store<undefined>(undefined);
  readonly shapeWatch = { hold: () => undefined, drawn: () => undefined };
  /** Waits for a colour to be picked from the page. */
  readonly picking = new Store<((hex: string, at: { x: number; y: number }) => void) | undefined>(undefined);
  readonly ink = new LiveInk(undefined, NO_LINE);
  readonly pointers = new Pointers(undefined, NO_LINE, () => SELF.id);
  readonly selection: Selection;
  readonly space = 'class';
  readonly isTeacher = false;
  /** What could not be done, said until it is read. */
  readonly problem = new Store<string | undefined>(undefined);

  constructor(
    readonly target: PageLog,
    readonly penCase: PenCase,
    /** Pours colour at a place of the page. */
    private readonly pour: (at: { x: number; y: number }) => void,
  ) {
    this.selection = new Selection(this);
  }

  get page(): Page {
    const { scrollWidth: width, scrollHeight: height } = document.documentElement;
    const surface = { kind: 'view', pictures: [] } as const;
    return { id: PAGE, order: 'a0', title: document.title, width, height, surface, removed: false };
  }

  get targetMarks(): SpatialIndex {
    return this.target.marks;
  }

  get layers(): Desk['layers'] {
    return [{ on: () => this.target.marks }];
  }

  /** The part of the page that is in sight, CSS pixels from its top left. */
  get visible(): Rect {
    return { x: scrollX, y: scrollY, width: innerWidth, height: innerHeight };
  }

  newMark(id = nanoid()): MarkCommon {
    const order = orderOnTop(this.target.marks.all().map((mark) => mark.order));
    const own = { id, page: PAGE, author: SELF.id, space: this.space, createdAt: Date.now() } as const;
    return { ...own, order, locked: false, group: null, alt: null };
  }

  mayTouch({ locked }: Mark): boolean {
    return !locked;
  }

  maySelect(): boolean {
    return true;
  }

  dropBeside(): boolean {
    return false;
  }

  takeTool(tool: TabToolId): void {
    this.draft.set(undefined);
    if (tool !== 'select') this.selection.clear();
    this.mode.set('write');
    this.penCase.patch({ tool });
  }

  /** Pours as soon as the pointer comes up. */
  pourAt(at: PenPoint): Gesture {
    const nothing = () => undefined;
    return { preview: {}, move: nothing, cancel: nothing, end: () => this.pour(at) };
  }

  tellProblem(message: string): void {
    this.problem.set(message);
  }
}
