import type { Mark } from '../marks/mark.js';
import { standInId } from '../marks/standIn.js';
import { orderOnTop } from '../ops/order.js';
import { isFree } from './accepted.js';
import { dropped, filledIn, tapped } from './answering.js';
import { centreOf, restIn } from './places.js';
import type { AnsweredPage, Answer } from './standingIn.js';
import { standInFor } from './standingIn.js';

/**
 * What stands for the marks of a page once all of it is answered rightly: things in their places, fields filled in, right
 * answers chosen, pairs uncovered, lines found. What a tap would only show by the way is left as it is.
 */
export function solved(marks: readonly Mark[]): Mark[] {
  const originals = marks.filter(({ standIn }) => !standIn);
  const page = new SolvedPage(originals);
  for (const place of originals)
    // What lies in columns is planned, and neither right nor wrong.
    if (!place.rule?.takes?.stack) for (const id of place.rule?.takes?.things ?? []) page.put(id, place);
  for (const mark of originals) {
    const { fill, tap, pair, trace } = mark.rule ?? {};
    if (fill && !isFree(fill))
      page.take(filledIn(page, mark, fill.as === 'words' ? fill.answers[0]! : quantityOf(fill)));
    if (tap?.is === 'right') page.take(tapped(page, mark));
    if (pair) page.take({ marks: [standInFor(page, mark, { hidden: true })] });
    for (const line of trace?.lines ?? []) page.show(line.marks, mark);
  }
  return [...page.made.values()];
}

/** Ids of the marks that only an answer shows: what was chosen, found or came by chance. */
export function shownByAnswers(marks: readonly Mark[]): Set<string> {
  return new Set(
    marks.flatMap(({ rule }) => {
      const { tap, trace } = rule ?? {};
      const steps = (tap?.steps ?? []).flatMap((step) => {
        if (step.do === 'pick') return step.sets.flat();
        return tap?.is && step.do === 'show' ? step.marks : [];
      });
      return [...steps, ...(trace?.lines ?? []).flatMap((line) => line.marks)];
    }),
  );
}

const quantityOf = ({ value, unit }: { value: number; unit: string }) => `${value} ${unit}`.trim();

/** A page that nobody but its key answers. */
class SolvedPage implements AnsweredPage {
  readonly made = new Map<string, Mark>();
  readonly space = 'class';
  readonly author = '';
  private top: string | null = null;
  private readonly byId: ReadonlyMap<string, Mark>;

  constructor(readonly originals: readonly Mark[]) {
    this.byId = new Map(originals.map((mark) => [mark.id, mark]));
    this.top =
      originals
        .map(({ order }) => order)
        .sort()
        .at(-1) ?? null;
  }

  original = (id: string) => this.byId.get(id);
  now = (id: string) => this.made.get(standInId(id, this.space)) ?? this.byId.get(id);
  order = () => (this.top = orderOnTop(this.top === null ? [] : [this.top]));
  newId = () => `key${this.made.size}`;
  time = () => 0;
  chance = () => 0;

  take({ marks }: Answer): void {
    for (const mark of marks) this.made.set(mark.id, mark);
  }

  /** Puts a thing into a place, unless it lies in another one already. */
  put(id: string, place: Mark): void {
    const thing = this.byId.get(id);
    if (!thing?.rule?.moves || this.now(id)?.standIn?.at !== undefined) return;
    this.take(dropped(this, thing, { from: centreOf(thing), to: restIn(this.now(place.id) ?? place) }));
  }

  show(ids: readonly string[], by: Mark): void {
    for (const id of ids) {
      const mark = this.byId.get(id);
      if (mark) this.take({ marks: [standInFor(this, mark, { hidden: false }, { by: by.id })] });
    }
  }
}
