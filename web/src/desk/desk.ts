import type { Focus, Mark, MarkOf, Page, Rect, Space, SpatialIndex } from '@doodla/core';
import type { Instrument } from '@doodla/core/instruments';
import type { ClassClient, Line, LiveInk, LogClient, Pointers, Store } from '@doodla/core/client';
import type { PictureCache } from '../pictures/pictureCache';
import type { LiveScreen } from '../live/liveScreen';
import type { MarkLayer } from './markLayer';
import type { ToolId } from '../tools/tools';
import type { PenCase } from './penCase';
import type { InkOffer } from './shapeOffer';

/** The parts of a mark that do not depend on its kind. */
export type MarkCommon = Pick<
  Mark,
  'id' | 'page' | 'author' | 'space' | 'order' | 'locked' | 'group' | 'alt' | 'createdAt' | 'pane'
>;

/** What the pointer does: work the content, or write on it. */
export type Mode = 'use' | 'write';

export interface TextEdit {
  /** The mark being changed; undefined for a new one. */
  mark?: MarkOf<'text' | 'note'>;
  x: number;
  y: number;
  width: number;
  /** What it becomes, and the page that it is on, whatever is shown when it is finished. */
  common: MarkCommon;
}

/** A formula that is being changed; a new one has no mark yet. */
export interface FormulaEdit {
  mark?: MarkOf<'formula'>;
}

/** A graph or chart that is being drawn or changed, or a table of values that is being made. */
export type PlotEdit =
  | { is: 'plot'; mark?: MarkOf<'plot'>; formula?: MarkOf<'formula'> }
  | { is: 'chart' | 'figure'; mark?: MarkOf<'plot'> }
  | { is: 'table'; formula: MarkOf<'formula'> }
  /** The idea map that a mark is part of, or that of the page. */
  | { is: 'ideaMap'; around?: string };

/** Hears of ink as it is drawn. */
export interface InkWatch {
  /** The pen is down again. */
  hold(): void;
  /** A stroke of an id is there. */
  drawn(id: string): void;
}

/**
 * A page being worked on, and what those who work on it share. Whatever works on a page is given the part of this that
 * it needs (`Pick<Desk, …>`), never the whole, so that a test can make one.
 */
export interface Desk {
  readonly page: Page | undefined;
  readonly pageId: Store<string | undefined>;
  readonly pages: Store<readonly Page[]>;
  /** Layers of marks, lowest first. */
  readonly layers: readonly Pick<MarkLayer, 'on'>[];
  /** The log that is written to. */
  readonly target: Pick<LogClient, 'actor' | 'allows' | 'state' | 'perform' | 'takeBack'>;
  /** The marks of the shown page that can be written to. */
  readonly targetMarks: SpatialIndex | undefined;
  /** Counts changes of marks. */
  readonly marksChanged: Store<number>;
  /** Whose marks new ones are. */
  readonly space: Space;
  readonly penCase: PenCase;
  readonly ink: LiveInk;
  readonly pointers: Pointers;
  readonly pictures: PictureCache;
  readonly screen: LiveScreen;
  readonly connection: Line;
  readonly classroom: ClassClient | undefined;
  readonly sitting: string | undefined;
  readonly token: string | undefined;
  readonly isTeacher: boolean;
  readonly mayWrite: boolean;
  /** What the class's eye is led to on the shown page, if it is seen here. */
  readonly focus: Focus | undefined;
  /** Corners clicked so far of a polyline or polygon, flat x, y. */
  readonly draft: Store<readonly number[] | undefined>;
  readonly textEdit: Store<TextEdit | undefined>;
  /** The formula that is being typed. */
  readonly formulaEdit: Store<FormulaEdit | undefined>;
  readonly plotEdit: Store<PlotEdit | undefined>;
  /** What was just neatened. */
  readonly shapeOffer: Store<InkOffer | undefined>;
  readonly shapeWatch: InkWatch;
  /** One's own instruments where they are not the class's. */
  readonly ownInstruments: Store<readonly Instrument[]>;
  /** Whether one may have instruments of one's own. */
  readonly mayMeasure: boolean;
  /** The parts of a new mark that do not depend on its kind; undefined where none can be made. */
  newMark(id?: string, page?: string): MarkCommon | undefined;
  mayTouch(mark: Mark): boolean;
  maySelect(mark: Mark): boolean;
  takeTool(tool: ToolId): void;
  /** Gives what is selected to what lies beside the page at a place of it. Returns whether something took it. */
  dropBeside(at: { x: number; y: number }): boolean;
  /** Finishes what is half done. */
  settle(): void;
  turnTo(page: string): void;
  /** The part of the plane that a page takes, page units. */
  extentOf(page: Page): Rect;
  /** The middle of what is in sight of the page, page units. */
  middle(): { x: number; y: number };
  /** Told when something could not be done; the message is fit to be shown. */
  tellProblem(message: string): void;
}
