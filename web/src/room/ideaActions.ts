import type { Change, IdeaRules, Mark, MarkOf, Page } from '@doodla/core';
import {
  arrangedIdeas,
  arrangeIdeas,
  FORMATS,
  heapsOf,
  IDEAS_AT_FIRST,
  onWhite,
  orderAt,
  ordersBeside,
  orderOnTop,
  PALETTE,
} from '@doodla/core';
import { nanoid } from 'nanoid';
import { t } from '../words';
import type { PageDesk } from './pageDesk';

type Note = MarkOf<'note'>;
type Title = MarkOf<'text'>;

const QUESTION = { x: 16, y: 14, size: 34 };
/** How much of a student's colour their notes have. */
const TINT = 0.35;
/** The part of a note's height that its votes take. */
const VOTES_PART = 0.16;

/** What is done with the ideas of the shown page. Each is one step to undo. */
export class IdeaActions {
  constructor(
    private readonly desk: Pick<
      PageDesk,
      'isTeacher' | 'layers' | 'newMark' | 'page' | 'pageActions' | 'pages' | 'room' | 'target' | 'turnTo'
    >,
  ) {}

  /** How ideas are collected on the shown page, if they are. */
  get rules(): IdeaRules | undefined {
    const { page, room } = this.desk;
    return page && room.classroom?.state.get()?.ideas[page.id];
  }

  /** Whether notes may be put together here. */
  get mayGroup(): boolean {
    return this.desk.room.mayWrite && (this.desk.isTeacher || this.rules?.grouping === true);
  }

  /** The class's notes and titles on the shown page. */
  get marks(): readonly Mark[] {
    const { layers, page } = this.desk;
    return page ? layers.at(-1)!.on(page.id).all() : [];
  }

  /** Puts a page for ideas after the shown one, with what is asked on it, and lets everybody write. */
  begin(question: string): void {
    const { desk } = this;
    const beside = desk.page?.id;
    if (beside === undefined) return;
    const surface = { kind: 'blank', colour: '#ffffff', ruling: 'plain', spacing: 10 } as const;
    const page = this.pageAfter(beside, question, { ...FORMATS.wide, surface });
    const common = desk.newMark(nanoid(), page.id);
    if (!common) return;
    const changes: Change[] = [{ do: 'addPage', page }];
    if (question !== '') changes.push({ do: 'add', mark: asked(common, question, page) });
    if (desk.target.perform(changes) === undefined) return;
    const { classroom } = desk.room;
    classroom!.setIdeas(page.id, IDEAS_AT_FIRST);
    classroom!.setPens(true);
    desk.turnTo(page.id);
  }

  setRules(set: Partial<IdeaRules> | null): void {
    const { page, room } = this.desk;
    if (page && this.rules) room.classroom!.setIdeas(page.id, set && { ...this.rules, ...set });
  }

  /** Adds a note. Returns whether it could be. */
  add(words: string): boolean {
    const { desk } = this;
    const common = desk.newMark();
    if (!common || !desk.page) return false;
    const colour = desk.isTeacher
      ? desk.room.penCase.get().noteColour
      : onWhite(desk.room.colourOf(common.author), TINT);
    const style = { colour, font: 'andika' as const };
    const box = { x: 0, y: 0, width: 100, height: 100, rotation: 0 };
    const note: Note = { ...common, kind: 'note', text: words, style, ...box };
    const place = arrangeIdeas([...this.marks, note], desk.page).get(note.id) ?? box;
    return desk.target.perform([{ do: 'add', mark: { ...note, ...place } }]) !== undefined;
  }

  /** Puts a note together with another, in its group or in a new one. Returns the title of a new one. */
  putWith(note: Note, other: Note): Title | undefined {
    if (note.id === other.id) return undefined;
    const heap = heapsOf(this.marks).find(({ notes }) => notes.includes(other));
    if (heap && heap.id !== null) {
      const others = heap.notes.filter(({ id }) => id !== note.id);
      const order = orderAt(others, others.indexOf(other) + 1);
      this.perform([grouping(note, heap.id, order)]);
      return undefined;
    }
    const group = nanoid();
    const common = this.desk.newMark();
    if (!common) return undefined;
    const title: Title = {
      ...common,
      kind: 'text',
      group,
      text: t('ideas.group'),
      ...letters(18, other.width),
      x: other.x,
      y: other.y,
    };
    const changes: Change[] = [
      grouping(other, group, other.order),
      grouping(note, group, note.order),
      { do: 'add', mark: title },
    ];
    return this.perform(changes) ? title : undefined;
  }

  /** Puts a note into a group, at its end. */
  putInto(note: Note, group: string): void {
    const heap = heapsOf(this.marks).find(({ id }) => id === group);
    if (heap) this.perform([grouping(note, group, orderAt(heap.notes, heap.notes.length))]);
  }

  takeOut(note: Note): void {
    if (note.group !== null) this.perform([grouping(note, null, note.order)]);
  }

  setWords({ id }: Note | Title, text: string): void {
    this.perform([{ do: 'patch', mark: id, set: { text } }]);
  }

  remove({ id }: Note): void {
    this.perform([{ do: 'remove', mark: id }]);
  }

  /** Makes an ordinary page of what there is, the most voted first, with their votes, and shows it. */
  makePage(counts: Readonly<Record<string, number>>): void {
    const { desk, marks } = this;
    const { page: original } = desk;
    if (!original) return;
    const page = this.pageAfter(original.id, original.title, original);
    const order = orderOnTop(marks.map((mark) => mark.order));
    const changes = arrangedIdeas(marks, original, new Map(Object.entries(counts))).flatMap(
      (mark): Change[] => {
        const copy = { ...mark, id: nanoid(), page: page.id };
        const count = counts[mark.id] ?? 0;
        if (copy.kind !== 'note' || count === 0) return [{ do: 'add', mark: copy }];
        const height = copy.height * VOTES_PART;
        const label: Title = {
          ...desk.newMark(nanoid(), page.id)!,
          kind: 'text',
          order,
          text: t('ideas.votes', { count }),
          ...letters(height * 0.6, copy.width, 'right'),
          x: copy.x,
          y: copy.y + copy.height - height,
        };
        return [
          { do: 'add', mark: { ...copy, height: copy.height - height } },
          { do: 'add', mark: label },
        ];
      },
    );
    if (this.perform([{ do: 'addPage', page }, ...changes])) desk.turnTo(page.id);
  }

  private pageAfter(id: string, title: string, sheet: Pick<Page, 'width' | 'height' | 'surface'>): Page {
    const { width, height, surface } = sheet;
    const order = ordersBeside(this.desk.target.state.pages.values(), id, { where: 'after' })[0]!;
    return { id: nanoid(), order, title: title.slice(0, 100), removed: false, width, height, surface };
  }

  private perform(changes: Change[]): boolean {
    return this.desk.target.perform(changes) !== undefined;
  }
}

const grouping = ({ id }: Note, group: string | null, order: string): Change => ({
  do: 'patch',
  mark: id,
  set: { group, order },
});

/** How words are set that are not a note's. */
function letters(size: number, width: number, align: 'left' | 'right' = 'left') {
  const style = {
    font: 'andika' as const,
    size,
    colour: PALETTE[0].hex,
    bold: true,
    italic: false,
    underline: false,
    background: null,
    align,
    list: 'none' as const,
  };
  return { style, width, rotation: 0 };
}

function asked(common: NonNullable<ReturnType<PageDesk['newMark']>>, text: string, page: Page): Title {
  const { x, y, size } = QUESTION;
  return { ...common, kind: 'text', text, x, y, ...letters(size, page.width - 2 * x) };
}
