import type { Change, Mark, Page } from '@doodla/core';
import { byOrder, isMark, ordersAt, ordersBeside } from '@doodla/core';
import type { ReadMark } from '@doodla/core/formats';
import { nanoid } from 'nanoid';
import type { PageDesk } from '../room/pageDesk';

/** Most marks of one step; more than this are left out, and that is said. */
export const MOST_MARKS = 5000;

type Putting = Pick<PageDesk, 'isTeacher' | 'layers' | 'newMark' | 'page' | 'pages' | 'target'>;

/** What was put where. */
export interface Put {
  /** The marks on the shown page. */
  shown: readonly string[];
  count: number;
  left: number;
}

/**
 * Puts marks that were read from a file onto the shown page and those after it, as one step; pages that are missing are
 * added. Undefined where nothing may be put.
 */
export function putMarks(desk: Putting, lists: readonly (readonly ReadMark[])[]): Put | undefined {
  const { page } = desk;
  if (!page) return undefined;
  const wanted = desk.isTeacher ? lists : [lists.flat()];
  const pages = pagesFor(desk, page, wanted.length);
  const changes: Change[] = pages.added.map((added) => ({ do: 'addPage', page: added }));
  const shown: string[] = [];
  let left = 0;
  for (const [i, list] of wanted.entries()) {
    const marks = marksOn(desk, pages.all[i]!, list);
    const room = Math.max(0, MOST_MARKS - changes.length);
    left += Math.max(0, marks.length - room);
    for (const mark of marks.slice(0, room)) changes.push({ do: 'add', mark });
    if (i === 0) shown.push(...marks.slice(0, room).map(({ id }) => id));
  }
  if (desk.target.perform(changes) === undefined) return undefined;
  return { shown, count: changes.length - pages.added.length, left };
}

/** The shown page and those after it, and new ones like it where these are too few. */
function pagesFor(desk: Putting, page: Page, count: number): { all: string[]; added: Page[] } {
  const pages = desk.pages.get();
  const there = pages.slice(pages.findIndex(({ id }) => id === page.id)).slice(0, count);
  const last = there.at(-1)!;
  const missing = count - there.length;
  const orders = ordersBeside(desk.target.state.pages.values(), last.id, { count: missing });
  const surface = { kind: 'blank', colour: '#ffffff', ruling: 'plain', spacing: 5 } as const;
  const { width, height } = page;
  const added = orders.map((order): Page => ({
    id: nanoid(),
    order,
    title: '',
    width,
    height,
    surface,
    removed: false,
  }));
  return { all: [...there, ...added].map(({ id }) => id), added };
}

function marksOn(desk: Putting, page: string, list: readonly ReadMark[]): Mark[] {
  const common = desk.newMark(undefined, page);
  if (!common) return [];
  const there = [...desk.layers.at(-1)!.on(page).all()].sort(byOrder);
  const orders = ordersAt(there, there.length, list.length);
  const group = list.length > 1 ? nanoid() : null;
  const marks = list.map(({ body, credit, createdAt }, i) => ({
    ...common,
    ...body,
    id: nanoid(),
    order: orders[i]!,
    group,
    ...(createdAt !== undefined && { createdAt }),
    // Only a teacher may say that something is of somebody else.
    ...(credit !== undefined && desk.isTeacher && { credit }),
  }));
  return marks.filter(isMark);
}
