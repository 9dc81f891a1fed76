import type { Change, Freedom, Mark, Space } from '@doodla/core';
import { orderOnTop } from '@doodla/core';
import fc from 'fast-check';
import { nanoid } from 'nanoid';
import { aPage } from './world';
import type { Member, World } from './world';

/** One thing that happens in a class. */
export type Step =
  | { do: 'add' | 'move' | 'lock' | 'remove' | 'restack' | 'wipe'; who: number; which: number; own: boolean }
  | { do: 'undo' | 'redo'; who: number }
  | { do: 'addPage' | 'takePage' | 'bringPage' | 'namePage'; which: number }
  | { do: 'up' | 'down'; who: number; most: number }
  | { do: 'cut' | 'mend' | 'reload'; who: number }
  | { do: 'pens'; up: boolean }
  | { do: 'way'; which: number; own: boolean }
  | { do: 'freedom'; freedom: Freedom }
  | { do: 'crash'; when: 'before' | 'after' }
  | { do: 'putAway' | 'settle' }
  | { do: 'flood' };

/** What a person does on a page. */
type Deed = Exclude<Extract<Step, { which: number }>, { do: 'way' }>;

const who = fc.nat(4);
const which = fc.nat(30);

/** Steps as often as they happen; faults are more frequent than in any school. */
export const anyStep: fc.Arbitrary<Step> = fc.oneof(
  {
    weight: 12,
    arbitrary: fc.record({
      do: fc.constantFrom('add', 'add', 'add', 'move', 'move', 'lock', 'remove', 'restack', 'wipe'),
      who,
      which,
      own: fc.boolean(),
    }),
  },
  { weight: 6, arbitrary: fc.record({ do: fc.constantFrom('undo', 'undo', 'redo'), who }) },
  {
    weight: 2,
    arbitrary: fc.record({ do: fc.constantFrom('addPage', 'takePage', 'bringPage', 'namePage'), which }),
  },
  {
    weight: 12,
    arbitrary: fc.record({ do: fc.constantFrom('up', 'down'), who, most: fc.integer({ min: 1, max: 4 }) }),
  },
  { weight: 4, arbitrary: fc.record({ do: fc.constantFrom('cut', 'mend', 'mend', 'reload'), who }) },
  { weight: 1, arbitrary: fc.record({ do: fc.constant('pens'), up: fc.boolean() }) },
  { weight: 1, arbitrary: fc.record({ do: fc.constant('way'), which, own: fc.boolean() }) },
  {
    weight: 1,
    arbitrary: fc.record({
      do: fc.constant('freedom'),
      freedom: fc.constantFrom('ink', 'words', 'everything', 'everything'),
    }),
  },
  { weight: 2, arbitrary: fc.record({ do: fc.constant('crash'), when: fc.constantFrom('before', 'after') }) },
  { weight: 6, arbitrary: fc.record({ do: fc.constantFrom('settle', 'settle', 'settle', 'putAway') }) },
);

/** Does a step, as far as there is something to do it with. */
export async function take(step: Step, world: World): Promise<void> {
  const member = 'who' in step ? world.members[step.who % world.members.length]! : world.members[0]!;
  switch (step.do) {
    case 'undo':
      return member.client.undo();
    case 'redo':
      return member.client.redo();
    case 'up':
      return member.line.deliverUp(step.most);
    case 'down':
      return member.line.deliverDown(step.most);
    case 'cut':
      return member.line.cut();
    case 'mend':
      return member.line.mend();
    case 'reload':
      return member.reload();
    case 'pens':
      world.situation.pensUp = step.up;
      return;
    case 'way':
      world.ways = step.own ? { [`page-${1 + (step.which % 2)}`]: 'own' } : {};
      return;
    case 'freedom':
      world.situation.freedom = step.freedom;
      return;
    case 'crash':
      return world.crashAtNext(step.when);
    case 'putAway':
      return world.putAway();
    case 'settle':
      return world.settle();
    case 'flood':
      return world.flood(505);
    default:
      act(step, member);
  }
}

/** Something that a person does on a page. Returns whether there was something to do. */
export function act(step: Deed, member: Member): boolean {
  const changes = changesOf(step, member);
  return changes.length > 0 && member.client.perform(changes) !== undefined;
}

function changesOf(step: Deed, { client, actor }: Member): Change[] {
  if (!client.actor) return [];
  const { state } = client;
  const pages = [...state.pages.values()].sort((a, b) => (a.id < b.id ? -1 : 1));
  const page = pages[step.which % Math.max(1, pages.length)];
  const touchable = [...state.marks.values()]
    .filter((mark) => actor.role === 'teacher' || mark.author === actor.id)
    .sort((a, b) => (a.id < b.id ? -1 : 1));
  const mark = touchable[step.which % Math.max(1, touchable.length)];
  switch (step.do) {
    case 'add':
      return page
        ? [{ do: 'add', mark: aMark(actor.id, page.id, step.own ? `student:${actor.id}` : 'class') }]
        : [];
    case 'move':
      return mark
        ? [{ do: 'patch', mark: mark.id, set: { x: step.which, style: { size: 10 + step.which } } }]
        : [];
    case 'restack':
      return mark ? [{ do: 'patch', mark: mark.id, set: { order: orderOnTop([mark.order]) } }] : [];
    case 'lock':
      return mark && actor.role === 'teacher'
        ? [{ do: 'patch', mark: mark.id, set: { locked: !mark.locked } }]
        : [];
    case 'remove':
      return mark ? [{ do: 'remove', mark: mark.id }] : [];
    case 'wipe':
      return touchable.filter(({ locked }) => !locked).map(({ id }) => ({ do: 'remove', mark: id }));
    case 'addPage':
      return [{ do: 'addPage', page: aPage(nanoid(), orderOnTop(pages.map(({ order }) => order))) }];
    case 'takePage':
    case 'bringPage':
      return page ? [{ do: 'patchPage', page: page.id, set: { removed: step.do === 'takePage' } }] : [];
    case 'namePage':
      return page ? [{ do: 'patchPage', page: page.id, set: { title: `name ${step.which}` } }] : [];
  }
}

function aMark(author: string, page: string, space: Space): Mark {
  return {
    kind: 'text',
    id: nanoid(),
    page,
    author,
    space,
    order: 'a0',
    locked: false,
    group: null,
    alt: null,
    createdAt: 0,
    x: 10,
    y: 10,
    width: 100,
    rotation: 0,
    text: 'word',
    style: {
      font: 'andika',
      size: 20,
      colour: '#000000',
      bold: false,
      italic: false,
      underline: false,
      background: null,
      align: 'left',
      list: 'none',
    },
  };
}
