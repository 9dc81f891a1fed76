import type { Actor, Change, LogState, Mark, Page, Rect } from '@doodla/core';
import { applyChanges, invertChanges, orderOnTop, SpatialIndex, stateOf } from '@doodla/core';
import { Store } from '@doodla/core/client';
import type { Instrument } from '@doodla/core/instruments';
import { aPage } from '../../../core/test/helpers/marks';
import type { Desk, FormulaEdit, TextEdit } from '../../src/desk/desk';
import type { InstrumentDesk } from '../../src/desk/instruments';
import { PenCase } from '../../src/desk/penCase';
import type { InkOffer } from '../../src/desk/shapeOffer';
import { freshStorage } from './fakeStorage';

type TestedDesk = Pick<
  Desk,
  | 'page'
  | 'pageId'
  | 'layers'
  | 'target'
  | 'targetMarks'
  | 'penCase'
  | 'draft'
  | 'extentOf'
  | 'formulaEdit'
  | 'textEdit'
  | 'newMark'
  | 'mayTouch'
  | 'maySelect'
  | 'dropBeside'
  | 'ink'
  | 'shapeOffer'
  | 'shapeWatch'
  | 'tellProblem'
  | 'isTeacher'
  | 'mayMeasure'
  | 'ownInstruments'
>;

/** A desk with some marks on its page, on which Ada works; what is done there is told. */
export class TestDesk implements TestedDesk {
  readonly page: Page = aPage({ width: 800, height: 600 });
  readonly pageId = new Store<string | undefined>(this.page.id);
  readonly penCase: PenCase;
  readonly draft = new Store<readonly number[] | undefined>(undefined);
  readonly formulaEdit = new Store<FormulaEdit | undefined>(undefined);
  readonly textEdit = new Store<TextEdit | undefined>(undefined);
  /** Steps, each as it would be undone. */
  readonly done: (readonly Change[])[] = [];
  /** Pens are down: nothing is taken. */
  refuses = false;
  readonly target: TestedDesk['target'];
  beside = false;
  readonly shapeOffer = new Store<InkOffer | undefined>(undefined);
  /** Ink that was drawn, as its watch heard of it. */
  readonly drawn: string[] = [];
  readonly shapeWatch = { hold: () => undefined, drawn: (id: string) => void this.drawn.push(id) };
  /** What was said to be wrong. */
  readonly problems: string[] = [];
  readonly ink = { broadcast: () => () => undefined } as unknown as TestedDesk['ink'];
  readonly ownInstruments = new Store<readonly Instrument[]>([]);
  mayMeasure = true;
  classroom: InstrumentDesk['classroom'];
  private readonly inverses = new Map<string, readonly Change[]>();
  private made = 0;

  constructor(
    marks: readonly Mark[],
    private readonly actor: Actor = { id: 'ada', role: 'student', tables: [] },
  ) {
    freshStorage();
    this.penCase = new PenCase('pens');
    const state: LogState = stateOf({ pages: [this.page], marks: [...marks] });
    const perform = (changes: readonly Change[]) => {
      if (this.refuses) return undefined;
      this.inverses.set(`step ${this.done.length + 1}`, invertChanges(state, changes));
      this.done.push(changes);
      applyChanges(state, changes);
      return `step ${this.done.length}`;
    };
    const takeBack = (step: string) => {
      const inverse = this.inverses.get(step);
      if (inverse) applyChanges(state, inverse);
      this.inverses.delete(step);
    };
    const allows = () => !this.refuses;
    this.target = { actor, allows, state, perform, takeBack };
  }

  get isTeacher(): boolean {
    return this.actor.role === 'teacher';
  }

  visible(): Rect {
    return { x: 0, y: 0, width: 800, height: 600 };
  }

  get targetMarks(): SpatialIndex {
    return new SpatialIndex([...this.target.state.marks.values()]);
  }

  get layers(): TestedDesk['layers'] {
    return [{ on: () => this.targetMarks }];
  }

  /** Marks that were put on the page, in that order. */
  get added(): Mark[] {
    return this.done.flat().flatMap((change) => (change.do === 'add' ? [change.mark] : []));
  }

  mark(id: string): Mark | undefined {
    return this.target.state.marks.get(id);
  }

  newMark(id = `made ${(this.made += 1)}`) {
    const orders = this.targetMarks.all().map(({ order }) => order);
    const own = { locked: false, group: null, alt: null, createdAt: 0, space: 'class' } as const;
    return { id, page: this.page.id, author: this.actor.id, order: orderOnTop(orders), ...own };
  }

  tellProblem(message: string): void {
    this.problems.push(message);
  }

  /** Whether something beside the page takes what is dropped. */
  dropBeside(): boolean {
    return this.beside;
  }

  extentOf({ width, height }: Page): Rect {
    return { x: 0, y: 0, width, height };
  }

  mayTouch(mark: Mark): boolean {
    return !mark.locked && (this.actor.role === 'teacher' || mark.author === this.actor.id);
  }

  maySelect(mark: Mark): boolean {
    return this.actor.role === 'teacher' || this.mayTouch(mark);
  }
}
